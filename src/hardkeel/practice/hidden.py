"""The crooked copy of an airframe that the stand-in gauges measure.

The window never sees it: it learns of the airframe only through readings, as in life.
"""

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array, turns
from hardkeel.survey.model import FUSELAGE, Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.readings import Reading, sigma_of

# How crooked a carefully pinned but not yet trued model is, one sigma: mm and degrees.
_CROOKED: Final = {
    "dx": 0.8,
    "dy": 0.8,
    "dz": 0.6,
    "roll": 0.5,
    "pitch": 0.4,
    "yaw": 0.35,
    "twist_port": 0.25,
    "twist_starboard": 0.25,
}
_BENCH: Final = {"pitch": 0.4, "roll": 0.3, "z": 3.0}
_BOARD: Final = 90.0  # mm: how high the datum line stands over the board


@dataclass(frozen=True, slots=True)
class Hidden:
    """A survey's airframe as it really stands.

    Attributes
    ----------
    unknowns : Array
        Shape (n,) in the network's columns.
    """

    net: Network
    unknowns: Array

    def show(self, reading: Reading) -> float:
        """What a perfect instrument would read, mm or degrees."""
        placed = self.net.placer.place(self.unknowns)
        values, _ = self.net.observer([reading]).predict(self.unknowns, placed)
        return float(values[0])

    @property
    def bench_pitch(self) -> float:
        """How far the datum line leans against the board, degrees."""
        return float(self.unknowns[self.net.columns.bench])

    def turn_to_bench(self) -> Array:
        """The rotation from airframe axes to the bench's, shape (3, 3)."""
        k = self.net.columns.bench
        pitch, roll = float(self.unknowns[k]), float(self.unknowns[k + 1])
        matrices, _ = turns([(roll, pitch, 0.0)])
        turn: Array = matrices[0]
        return turn

    def measure(self, reading: Reading, rng: "np.random.Generator") -> float:
        """What an instrument of the reading's own sigma might read."""
        return self.show(reading) + float(rng.normal(0.0, sigma_of(reading)))


def hidden_from(survey: Survey, given: Mapping[str, Mapping[str, float]]) -> Hidden:
    """An airframe that is crooked in a given way: ``{"stab": {"roll": 0.8}, "bench": {"z": 60}}``."""
    net = network_of(survey)
    unknowns = np.zeros(net.columns.size)
    for body, names in given.items():
        for name, amount in names.items():
            if body == "bench":
                unknowns[net.columns.bench + ("pitch", "roll", "z").index(name)] = amount
            else:
                column = net.columns.column(body, name)
                if column is not None:
                    unknowns[column] = amount
    return Hidden(net, unknowns)


def hidden_by_chance(survey: Survey, name: str) -> Hidden:
    """An airframe that is crooked in its own way: the same for the same name, always."""
    seed = int.from_bytes(hashlib.sha256(name.encode()).digest()[:8], "big")
    rng = np.random.default_rng(seed)
    given = {
        body.id: {unknown: float(rng.normal(0, spread)) for unknown, spread in _CROOKED.items()}
        for body in survey.bodies
        if body.id != FUSELAGE
    }
    given["bench"] = {unknown: float(rng.normal(0, spread)) for unknown, spread in _BENCH.items()}
    given["bench"]["z"] += _BOARD
    return hidden_from(survey, given)
