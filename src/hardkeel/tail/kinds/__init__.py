"""How a tail surface can be built: one module is one kind, with its figures, wood, drawing and steps.

Lives here: what each kind has, what is cut of it, how it is drawn and in which steps it is built.  Not here: what
surfaces of all kinds share (hinges, outlines, passing a slot), words (`messages`, by keys).  Imports the tail's own
trades.  Adding a kind: its module with a `KIND`, its name in `tail.model.Kind`, its words.
"""

from hardkeel.tail.kinds.kind import (
    Drawn,
    TailKind,
    has,
    kind_named,
    kind_of,
    tail_kinds,
)

__all__ = ["Drawn", "TailKind", "has", "kind_named", "kind_of", "tail_kinds"]
