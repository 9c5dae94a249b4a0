"""Which glue for a joint: each kind is held against what the joint asks, and says what speaks for and against it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.glue.kinds import KINDS, WARM, Glue, Times, times_of
from hardkeel.glue.model import Bottle, GlueKind

JointKind = Literal[
    "wide lamination",
    "end grain",
    "strip joint",
    "ply to balsa",
    "foam",
    "wire to ply",
    "tail seat",
    "gusset",
    "hinge",
]
Reason = Literal[
    # for
    "no water", "time to square", "sands like wood", "light", "fills", "grips at once", "soaks in", "tough", "foam is safe",
    "flexible", "usual",
    # against
    "warps", "one try", "too quick", "ridges", "hard to sand", "does not sand", "eats foam", "brittle", "leaves gaps",
    "too slow", "soaked up", "heavy", "weak here", "chalks",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Joint:
    """What a joint asks.

    Attributes
    ----------
    open : float
        Minutes that it takes to put together and square.
    gap : float
        mm that are usual between its faces.
    wide, foam, metal, shock : bool
        It has wide faces (water can't get out); foam in it; metal; it takes knocks.
    likes, dislikes : mapping
        What experience says beyond that.
    """

    open: float
    gap: float = 0.05
    wide: bool = False
    foam: bool = False
    metal: bool = False
    shock: bool = False
    likes: dict[GlueKind, Reason] | None = None
    dislikes: dict[GlueKind, Reason] | None = None


JOINTS: Final[dict[JointKind, Joint]] = {
    "wide lamination": Joint(8, wide=True, likes={"slow epoxy": "time to square", "30-minute epoxy": "time to square"}),
    "end grain": Joint(
        1, likes={"aliphatic": "soaks in", "thick cyanoacrylate": "fills"}, dislikes={"thin cyanoacrylate": "soaked up"}
    ),
    "strip joint": Joint(1, likes={"aliphatic": "usual", "thin cyanoacrylate": "grips at once"}),
    "ply to balsa": Joint(3, gap=0.2, shock=True, likes={"aliphatic": "usual", "30-minute epoxy": "tough"}),
    "foam": Joint(5, foam=True, wide=True, likes={"polyurethane": "light", "slow epoxy": "foam is safe"}),
    "wire to ply": Joint(
        5, gap=0.5, metal=True, shock=True, likes={"slow epoxy": "tough", "30-minute epoxy": "tough"}
    ),
    "tail seat": Joint(
        15, gap=0.3, shock=True, likes={"slow epoxy": "time to square", "30-minute epoxy": "time to square"}
    ),
    "gusset": Joint(1, likes={"aliphatic": "usual", "medium cyanoacrylate": "grips at once"}),
    "hinge": Joint(
        0, likes={"thin cyanoacrylate": "soaks in", "15-minute epoxy": "tough"},
        dislikes={"aliphatic": "weak here", "pva": "weak here"},
    ),
}  # fmt: skip
_METAL_NEEDS: Final[frozenset[GlueKind]] = frozenset(
    {"5-minute epoxy", "15-minute epoxy", "30-minute epoxy", "slow epoxy"}
)
_HEAVY: Final = 0.025  # g/cm²
_WEIGHTS: Final[dict[Reason, float]] = {
    "no water": 0.5, "time to square": 1.2, "sands like wood": 0.8, "light": 0.8, "fills": 0.6, "grips at once": 0.5,
    "soaks in": 1.0, "tough": 0.8, "foam is safe": 1.0, "flexible": 0.4, "usual": 1.0,
    "warps": -1.5, "one try": -1.5, "too quick": -3.0, "ridges": -1.2, "hard to sand": -1.0, "does not sand": -2.0,
    "eats foam": -6.0, "brittle": -1.0, "leaves gaps": -1.5, "too slow": -4.0, "soaked up": -2.0, "heavy": -0.5,
    "weak here": -3.0, "chalks": -8.0,
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Choice:
    """One glue for the joint.

    Attributes
    ----------
    speaks, against : tuple of str
        Reasons, the weightiest first.
    """

    glue: Glue
    times: Times
    score: float
    speaks: tuple[Reason, ...]
    against: tuple[Reason, ...]


def choices(
    joint: JointKind,
    *,
    minutes: float | None = None,
    sand: bool = False,
    move: float = 0.0,
    celsius: float = WARM,
    bottles: Sequence[Bottle] = (),
) -> tuple[Choice, ...]:
    """All kinds, the best first.

    Parameters
    ----------
    minutes : float, optional
        How long there is until the part must be handled.
    sand : bool
        The joint is sanded flush afterwards.
    move : float
        Minutes in which it must be possible to move it.
    """
    own = {bottle.kind: bottle for bottle in bottles}
    asked = JOINTS[joint]
    found = [
        _weighed(
            asked,
            glue,
            times_of(glue, own.get(glue.kind), celsius),
            Wish(minutes, move, sand=sand, celsius=celsius),
        )
        for glue in KINDS.values()
    ]
    return tuple(sorted(found, key=lambda one: -one.score))


@dataclass(frozen=True, slots=True)
class Wish:
    """What is asked beyond the joint: handled within so many minutes, moved for so many, sanded, at so many °C."""

    minutes: float | None
    move: float
    sand: bool
    celsius: float


def _weighed(joint: Joint, glue: Glue, times: Times, wish: Wish) -> Choice:
    reasons: list[Reason] = [*_of_times(joint, glue, times, wish.minutes, wish.move)]
    reasons += _of_faces(joint, glue)
    reasons += _of_sanding(glue, sand=wish.sand)
    if wish.celsius < glue.coldest:
        reasons.append("chalks")
    for table in (joint.likes, joint.dislikes):
        if table and glue.kind in table:
            reasons.append(table[glue.kind])
    unique = list(dict.fromkeys(reasons))
    ranked = sorted(unique, key=lambda one: -abs(_WEIGHTS[one]))
    return Choice(
        glue,
        times,
        sum(_WEIGHTS[one] for one in unique),
        tuple(one for one in ranked if _WEIGHTS[one] > 0),
        tuple(one for one in ranked if _WEIGHTS[one] < 0),
    )


def _of_times(
    joint: Joint, glue: Glue, times: Times, minutes: float | None, move: float
) -> list[Reason]:
    found: list[Reason] = []
    soaks = glue.kind == "thin cyanoacrylate"  # it runs into what stands together already
    if times.open < joint.open and not (soaks and joint.open <= 1):
        found.append("too quick")
    if move and glue.moves < move:
        found.append("one try" if glue.moves == 0 else "too quick")
    elif glue.moves == 0 and not soaks:
        found.append("one try")
    # a joint that takes load is not handled before the glue bears it
    ready = max(times.handle, times.loaded) if joint.shock else times.handle
    if minutes is not None and ready > minutes:
        found.append("too slow")
    return found


def _of_faces(joint: Joint, glue: Glue) -> list[Reason]:
    found: list[Reason] = []
    if joint.wide:
        found.append("warps" if glue.water else "no water")
    if joint.foam and not glue.foam:
        found.append("eats foam")
    if joint.metal and glue.kind not in _METAL_NEEDS:
        found.append("weak here")
    if joint.shock and glue.brittle:
        found.append("brittle")
    if joint.gap > glue.gap:
        found.append("leaves gaps")
    elif joint.gap >= _GAP_FELT and glue.gap >= 1:
        found.append("fills")
    if glue.weight >= _HEAVY:
        found.append("heavy")
    return found


_GAP_FELT: Final = 0.3


def _of_sanding(glue: Glue, *, sand: bool) -> list[Reason]:
    if not sand:
        return []
    told: dict[str, Reason] = {
        "well": "sands like wood",
        "ridges": "ridges",
        "hard": "hard to sand",
        "not": "does not sand",
    }
    return [told[glue.sands]]
