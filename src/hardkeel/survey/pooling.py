"""All that the tools at hand could read, made ready for ranking: it follows from bodies, marks and tools."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Network, Solution
from hardkeel.survey.handiness import efforts_of
from hardkeel.survey.model import Reading, place_of, sigma_of
from hardkeel.survey.observing import Observer
from hardkeel.survey.placing import Placer
from hardkeel.survey.proposing import candidates_of, tools_of


@dataclass(frozen=True, slots=True)
class Pool:
    """Candidates with what ranking wants to know of each.

    Attributes
    ----------
    places : tuple
        Where each is held, to tell whether it was taken.
    noise, efforts : Array
        Shape (c,): sigma squared, and minutes to take it.
    """

    readings: tuple[Reading, ...]
    places: tuple[object, ...]
    noise: Array
    efforts: Array
    observer: Observer
    placer: Placer
    tools: object

    def serves(self, net: Network) -> bool:
        """Whether it is this survey's too."""
        return self.placer is net.placer and self.tools == tools_of(net.survey)


@dataclass(frozen=True, slots=True)
class Offers:
    """Candidates that were not taken yet, as an estimate sees them.

    Attributes
    ----------
    expected, noise, efforts : Array
        Shape (c,): what each would read, its sigma squared, and minutes to take it.
    rows : Array
        Shape (c, n): the slopes of each.
    """

    readings: tuple[Reading, ...]
    expected: Array
    rows: Array
    noise: Array
    efforts: Array


def pool_of(net: Network, candidates: Sequence[Reading] | None = None) -> Pool:
    """The pool of a survey, or of these candidates alone."""
    readings = tuple(candidates_of(net.survey) if candidates is None else candidates)
    return Pool(
        readings=readings,
        places=tuple(place_of(reading) for reading in readings),
        noise=np.square([sigma_of(reading) for reading in readings]),
        efforts=efforts_of(net.survey, readings),
        observer=net.observer(readings),
        placer=net.placer,
        tools=tools_of(net.survey),
    )


def offers_of(pool: Pool, solution: Solution, taken: Sequence[Reading] = ()) -> Offers:
    """What of a pool is still to be taken."""
    expected, rows = pool.observer.predict(solution.unknowns, solution.placed)
    done = {place_of(reading) for reading in taken}
    left = np.array([place not in done for place in pool.places], dtype=bool)
    return Offers(
        tuple(reading for reading, free in zip(pool.readings, left, strict=True) if free),
        expected[left],
        rows[left],
        pool.noise[left],
        pool.efforts[left],
    )
