"""What a fuselage is framed of beside formers, sides, longerons and sticks: one module is one kind, or a few alike.

Lives here: each kind's figures, what it takes out of the formers that it passes, what is cut of it, how it is
seen, and which step puts it in.  Not here: what all kinds share (`notching`, `flatwork`, `cut_list`), words
(`messages`, by the kind).  Imports the fuselage's own trades.  Adding a kind: its module with its `KINDS`, its name in
`fuselage.model.MemberKind`, its words.
"""

from hardkeel.fuselage.members.kind import (
    MemberSort,
    Seen,
    both_sides,
    kinds_with,
    member_kind,
    members_with,
)

__all__ = ["MemberSort", "Seen", "both_sides", "kinds_with", "member_kind", "members_with"]
