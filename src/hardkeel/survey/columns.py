"""Which unknown stands where: the order of the parameter vector.

Each body but the fuselage has dx, dy, dz (mm), roll, pitch, yaw (degrees) and, where it may be
twisted, twist_port and twist_starboard (degrees at the tip).  The bench has pitch, roll (degrees)
and z (mm).
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.model import FUSELAGE, Body

POSE: Final = ("dx", "dy", "dz", "roll", "pitch", "yaw")
TWIST: Final = ("twist_port", "twist_starboard")
BENCH: Final = ("pitch", "roll", "z")

# Weak priors centred on zero, one sigma; fixed by the contract.
_PRIOR_SIGMA: Final = {
    "dx": 5.0,
    "dy": 5.0,
    "dz": 5.0,
    "roll": 3.0,
    "pitch": 3.0,
    "yaw": 3.0,
    "twist_port": 3.0,
    "twist_starboard": 3.0,
}
_BENCH_SIGMA: Final = {"pitch": 5.0, "roll": 5.0, "z": 500.0}


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
    """

    start: dict[str, int]
    names: dict[str, tuple[str, ...]]
    bench: int
    prior_weight: Array

    @property
    def size(self) -> int:
        """The number of unknowns."""
        return self.bench + len(BENCH)

    def column(self, body_id: str, name: str) -> int | None:
        """Column of a body's unknown; ``None`` where it has none of that name or does not move."""
        names = self.names.get(body_id, ())
        return self.start[body_id] + names.index(name) if name in names else None


def lay_out(bodies: Iterable[Body]) -> Columns:
    """Place the unknowns of the bodies, in their order, and of the bench."""
    start: dict[str, int] = {}
    names: dict[str, tuple[str, ...]] = {}
    sigmas: list[float] = []
    for body in bodies:
        if body.id == FUSELAGE:
            continue
        start[body.id] = len(sigmas)
        names[body.id] = POSE + TWIST if body.twist else POSE
        sigmas += [_PRIOR_SIGMA[name] for name in names[body.id]]
    bench = len(sigmas)
    sigmas += [_BENCH_SIGMA[name] for name in BENCH]
    weight = 1.0 / np.square(np.array(sigmas))
    weight.setflags(write=False)
    return Columns(start, names, bench, weight)
