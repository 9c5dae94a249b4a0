"""Which unknown stands where: the order of the parameter vector.

Each body but the fuselage has dx, dy, dz (mm), roll, pitch, yaw (degrees) and, where it may be
twisted, twist_port and twist_starboard (degrees at the tip).  The bench has pitch, roll (degrees)
and z (mm).  Behind them stands what readings share.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.model import FUSELAGE, Body

SHIFTS: Final = ("dx", "dy", "dz")
POSE: Final = (*SHIFTS, "roll", "pitch", "yaw")
RACK: Final = ("rack",)
TWIST: Final = ("twist_port", "twist_starboard")
BENCH: Final = ("pitch", "roll", "z")
BEND: Final = ("bend_y", "bend_z")
_AXES: Final = 3

_BENCH_SIGMA: Final = {"pitch": 5.0, "roll": 5.0, "z": 500.0}


@dataclass(frozen=True, slots=True)
class Priors:
    """Weak priors centred on zero, one sigma; fixed by the contract.

    Attributes
    ----------
    shift, turn : float
        Of every body's shifts (mm), angles, twists and rack (degrees).
    bench : bool
        Whether the whole stands on a bench by unknowns of its own; a building board is the reference itself.
    """

    shift: float = 5.0
    turn: float = 3.0
    bench: bool = True


AIRFRAME: Final = Priors()


@dataclass(frozen=True, slots=True)
class SharedPart:
    """What several readings share: ``mark``, ``gauge`` …, whose, and one sigma of it."""

    what: str
    owner: str
    sigma: float

    @property
    def size(self) -> int:
        """Its unknowns: a mark's three shifts, else one."""
        return _AXES if self.what == "mark" else 1


@dataclass(frozen=True, slots=True)
class Bend:
    """From which station to which a fuselage bends, mm: as the square of the way along."""

    first: float
    last: float

    def share(self, x: float) -> float:
        """Of the bend at its end, at a mark that stands at x on a true airframe."""
        return ((x - self.first) / (self.last - self.first)) ** 2 if x > self.first else 0.0


@dataclass(frozen=True, slots=True)
class Columns:
    """Offsets of each body's unknowns, the bench's, and the priors.

    Attributes
    ----------
    start : dict of str to int
        First column of each free body.
    names : dict of str to tuple of str
        Names of its unknowns in order.
    bench : int
        First column of the bench.
    prior_weight : Array
        Shape (n,): 1 / prior sigma².
    shared : mapping of (str, str) to int
        First column of what readings share, by what it is and whose.
    bend : Bend, optional
        Where the fuselage bends, if it may.
    """

    start: dict[str, int]
    names: dict[str, tuple[str, ...]]
    bench: int
    prior_weight: Array
    has_bench: bool = True
    shared: Mapping[tuple[str, str], int] = field(default_factory=lambda: MappingProxyType({}))
    bend: Bend | None = None

    @property
    def own(self) -> int:
        """The number of unknowns of bodies and bench, which stand first."""
        return self.bench + (len(BENCH) if self.has_bench else 0)

    @property
    def size(self) -> int:
        """The number of unknowns."""
        return len(self.prior_weight)

    def column(self, body_id: str, name: str) -> int | None:
        """Column of a body's unknown; ``None`` where it has none of that name or does not move."""
        names = self.names.get(body_id, ())
        return self.start[body_id] + names.index(name) if name in names else None


def lay_out(
    bodies: Iterable[Body],
    priors: Priors = AIRFRAME,
    parts: Iterable[SharedPart] = (),
    bend: Bend | None = None,
) -> Columns:
    """Place the unknowns of the bodies, in their order, of the bench, and of what readings share."""
    start: dict[str, int] = {}
    names: dict[str, tuple[str, ...]] = {}
    sigmas: list[float] = []
    for body in bodies:
        if body.id == FUSELAGE:
            continue
        start[body.id] = len(sigmas)
        names[body.id] = POSE + (TWIST if body.twist else RACK if body.racks else ())
        sigmas += [priors.shift if name in SHIFTS else priors.turn for name in names[body.id]]
    bench = len(sigmas)
    if priors.bench:
        sigmas += [_BENCH_SIGMA[name] for name in BENCH]
    shared: dict[tuple[str, str], int] = {}
    for part in parts:
        shared[part.what, part.owner] = len(sigmas)
        sigmas += [part.sigma] * part.size
    weight = 1.0 / np.square(np.array(sigmas))
    weight.setflags(write=False)
    return Columns(start, names, bench, weight, priors.bench, MappingProxyType(shared), bend)
