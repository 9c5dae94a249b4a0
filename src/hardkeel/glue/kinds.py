"""Every kind of glue with what it usually does.

Times are minutes at 20 °C, ranges as they stand on makers' sheets of each kind and as builders find them; the
builder's own bottle goes before.  Weight is grams for a square centimetre of joint as it is usually spread, by
experience.  Temperature: a reaction runs twice as fast for every 10 °C (the rule of van 't Hoff, good for epoxy and
polyurethane between 10 and 40 °C); what dries by giving off water or solvent goes about 1.4 times as fast; moisture
sets cyanoacrylate, warm or cold.  Below its film temperature a glue that dries from water does not go slower, it
chalks: about 10 °C on makers' sheets of PVA and aliphatic glues (5 to 12).  An epoxy that may be handled has about a
third of its strength; makers' sheets give the load-bearing times.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.glue.model import Bottle, GlueKind

Sands = Literal["well", "ridges", "hard", "not"]
Range = tuple[float, float]
WARM: Final = 20.0  # °C: what the times are for


@dataclass(frozen=True, slots=True)
class Glue:
    """One kind.

    Attributes
    ----------
    open, handle, cure : (least, most)
        Minutes in which parts can be put together; until it may be handled; until it is through.
    moves : float
        Minutes in which a part can still be moved; 0 for one try only.
    gap : float
        mm that it fills and still holds.
    weight : float
        g/cm² of joint.
    water : bool
        It brings water into the wood: a wide joint may warp.
    two_parts : bool
        It is mixed.
    faster : float
        How many times as fast it goes for 10 °C more.
    foam : bool
        It leaves usual foams whole.
    coldest : float
        °C below which it does not hold, however long it is left.
    loaded : float
        Minutes before a joint may carry load; 0 where that is when it may be handled.
    hazards : tuple of str
    """

    kind: GlueKind
    open: Range
    handle: Range
    cure: Range
    moves: float
    gap: float
    sands: Sands
    weight: float
    water: bool = False
    two_parts: bool = False
    faster: float = 1.0
    foam: bool = True
    brittle: bool = False
    coldest: float = 0.0
    loaded: float = 0.0
    hazards: tuple[str, ...] = ()


_CHALKS: Final = 10.0  # °C
_CA: Final = ("cyanoacrylate",)
_EPOXY: Final = ("epoxy",)
KINDS: Final[dict[GlueKind, Glue]] = {
    one.kind: one
    for one in (
        Glue("thin cyanoacrylate", (0, 0.1), (0.1, 1), (60, 1440), 0, 0.05, "ridges", 0.005, foam=False, brittle=True, hazards=_CA),
        Glue("medium cyanoacrylate", (0.2, 0.5), (0.3, 2), (60, 1440), 0.1, 0.2, "ridges", 0.01, foam=False, brittle=True, hazards=_CA),
        Glue("thick cyanoacrylate", (0.5, 1.5), (1, 5), (60, 1440), 0.3, 0.5, "ridges", 0.015, foam=False, brittle=True, hazards=_CA),
        Glue("aliphatic", (5, 10), (15, 30), (480, 1440), 5, 0.2, "well", 0.015, water=True, faster=1.4, coldest=_CHALKS),
        Glue("pva", (8, 15), (20, 60), (720, 1440), 8, 0.2, "well", 0.015, water=True, faster=1.4, coldest=_CHALKS),
        Glue("5-minute epoxy", (3, 5), (10, 20), (60, 1440), 3, 1.0, "hard", 0.03, two_parts=True, faster=2.0, loaded=60, hazards=_EPOXY),
        Glue("15-minute epoxy", (10, 15), (45, 90), (720, 1440), 10, 1.0, "hard", 0.03, two_parts=True, faster=2.0, loaded=180, hazards=_EPOXY),
        Glue("30-minute epoxy", (20, 30), (90, 180), (720, 1440), 20, 1.0, "hard", 0.025, two_parts=True, faster=2.0, loaded=360, hazards=_EPOXY),
        Glue("slow epoxy", (45, 90), (360, 600), (1440, 2880), 45, 1.0, "hard", 0.02, two_parts=True, faster=2.0, loaded=720, hazards=_EPOXY),
        Glue("contact", (10, 30), (0.1, 1), (720, 1440), 0, 0.05, "not", 0.012, faster=1.4, foam=False, hazards=("solvent",)),
        Glue("polyurethane", (15, 30), (120, 240), (720, 1440), 10, 0.5, "well", 0.012, faster=2.0, hazards=("polyurethane",)),
    )
}  # fmt: skip


# minutes until it can be handled, until it is through: what a step is planned with, a round figure within the kind's
# ranges, until the builder's own bottle says another
PLANNED: Final[dict[str, tuple[float, float]]] = {
    "aliphatic": (20.0, 720.0),
    "slow epoxy": (480.0, 1440.0),
    "thin cyanoacrylate": (1.0, 60.0),
}


def mean_weight(kinds: Sequence[str]) -> float:
    """Grams for a cm² of joint on the mean of some glues; 0 where none of them is known."""
    known = [KINDS[kind].weight for kind in kinds if kind in KINDS]
    return sum(known) / len(known) if known else 0.0


@dataclass(frozen=True, slots=True)
class Times:
    """Minutes as they are now: by the bottle or the kind, at a temperature."""

    open: float
    handle: float
    cure: float
    loaded: float = 0.0


def middle(span: Range) -> float:
    """What is usual within a range: the geometric middle, or half of the most where it begins at nothing."""
    least, most = span
    return (least * most) ** 0.5 if least > 0 else most / 2


def times_of(glue: Glue, bottle: Bottle | None = None, celsius: float = WARM) -> Times:
    """How long it takes: the bottle's own figures before the kind's, warmer or colder than 20 °C.

    Colder than it holds at all, its clock is that of the coldest at which it does.
    """
    slower = float(glue.faster ** ((WARM - max(celsius, glue.coldest)) / 10))

    def said(own: float | None, span: Range) -> float:
        return (own if own is not None else middle(span)) * slower

    return Times(
        said(bottle.open_minutes if bottle else None, glue.open),
        said(bottle.handle_minutes if bottle else None, glue.handle),
        said(bottle.cure_minutes if bottle else None, glue.cure),
        glue.loaded * slower,
    )
