"""Schools of gluing: which glue goes into which sort of joint, for all of them at once."""

from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.glue.model import GlueKind

JointSort = Literal["frame joints", "formers", "wide faces"]
# which sort of joint a step of ours glues, by its key
_SORTS: Final[dict[JointSort, frozenset[str]]] = {
    "frame joints": frozenset(
        {
            "frame.port side", "frame.starboard side", "frame.gussets", "frame.stringers", "frame.crutch",
            "frame.strips", "tail.stick.glue", "tail.ribbed.glue",
        }
    ),
    "formers": frozenset(
        {
            "frame.glue in", "frame.pull in", "frame.close tail", "frame.lower formers", "frame.upper formers",
            "frame.lower sides", "frame.upper sides", "frame.sides",
        }
    ),
    "wide faces": frozenset({"frame.doublers", "tail.foam.skin"}),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class School:
    """A way to glue.

    Attributes
    ----------
    sorts : tuple of JointSort
        The joints that it is for; others keep theirs.
    glue : GlueKind
    tacked : bool
        Thin cyanoacrylate holds the joint first, and the glue is a bead along it.
    """

    id: str
    sorts: tuple[JointSort, ...]
    glue: GlueKind
    tacked: bool = False


SCHOOLS: Final = (
    School("tack and bead", ("frame joints", "formers"), "medium cyanoacrylate", tacked=True),
    School("aliphatic", ("frame joints", "formers"), "aliphatic"),
    School("slow epoxy", ("formers", "wide faces"), "slow epoxy"),
    School("contact", ("wide faces",), "contact"),
)


def sort_of(key: str) -> JointSort | None:
    """Which sort of joint the step with this key glues; ``None`` for all others."""
    return next((sort for sort, keys in _SORTS.items() if key in keys), None)
