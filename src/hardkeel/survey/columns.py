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

from hardkeel.base.values import Point
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
    """What several readings share: ``mark``, ``gauge`` …, whose, and one sigma of it.

    Attributes
    ----------
    along, normal : float, (float, float, float)
        Of a mark with a printed target: its sigma along the target's normal, which `sigma` is across.
    """

    what: str
    owner: str
    sigma: float
    along: float | None = None
    normal: Point | None = None

    @property
    def size(self) -> int:
        """Its unknowns: a mark's three shifts, else one."""
        return _AXES if self.what == "mark" else 1

    @property
    def sigmas(self) -> tuple[float, ...]:
        """Of each of its unknowns."""
        if self.along is None:
            return (self.sigma,) * self.size
        return (self.sigma, self.sigma, self.along)

    @property
    def frame(self) -> Array | None:
        """Shape (3, 3), body axes: the ways of its three shifts as columns, the normal last; the axes' own without one."""
        if self.normal is None:
            return None
        normal = np.array(self.normal)
        aside = np.eye(_AXES)[int(np.argmin(np.abs(normal)))]
        first = np.cross(aside, normal)
        first /= np.linalg.norm(first)
        return np.column_stack([first, np.cross(normal, first), normal])


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
    frames : mapping of str to Array
        Of a mark whose shifts run along ways of their own, by its id: shape (3, 3), body axes, the ways as columns.
    """

    start: dict[str, int]
    names: dict[str, tuple[str, ...]]
    bench: int
    prior_weight: Array
    has_bench: bool = True
    shared: Mapping[tuple[str, str], int] = field(default_factory=lambda: MappingProxyType({}))
    bend: Bend | None = None
    frames: Mapping[str, Array] = field(default_factory=lambda: MappingProxyType({}))

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
    frames: dict[str, Array] = {}
    for part in parts:
        shared[part.what, part.owner] = len(sigmas)
        sigmas += part.sigmas
        if part.frame is not None:
            frames[part.owner] = part.frame
    weight = 1.0 / np.square(np.array(sigmas))
    weight.setflags(write=False)
    return Columns(
        start,
        names,
        bench,
        weight,
        priors.bench,
        MappingProxyType(shared),
        bend,
        MappingProxyType(frames),
    )
