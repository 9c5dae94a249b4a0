"""All that the tools at hand could read, made ready for ranking: it follows from bodies, marks and tools."""

from collections import Counter
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.handiness import NEARLY, NEARLY_SHARED, efforts_of
from hardkeel.survey.model import Survey
from hardkeel.survey.network import Network
from hardkeel.survey.observing import Observer
from hardkeel.survey.placing import Placer
from hardkeel.survey.proposing import candidates_of, tools_of
from hardkeel.survey.readings import Reading, marks_of, place_of, sigma_of
from hardkeel.survey.sharing import is_off


@dataclass(frozen=True, slots=True)
class CandidatePool:
    """Candidates with what ranking wants to know of each.

    Attributes
    ----------
    places : tuple
        Where each is held, to tell whether it was taken.
    nearly : float
        Times the best's sigma that counts as worth nearly as much.
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
    nearly: float

    def serves(self, net: Network) -> bool:
        """Whether it is this survey's too."""
        return self.placer is net.placer and self.tools == tools_of(net.survey)


@dataclass(frozen=True, slots=True)
class Available:
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
    nearly: float = NEARLY


def candidate_pool(net: Network, candidates: Sequence[Reading] | None = None) -> CandidatePool:
    """The pool of a survey, or of these candidates alone."""
    readings = tuple(candidates_of(net.survey) if candidates is None else candidates)
    return CandidatePool(
        readings=readings,
        places=tuple(place_of(reading) for reading in readings),
        noise=np.square([sigma_of(reading) for reading in readings]),
        efforts=efforts_of(net.survey, readings),
        observer=net.observer(readings),
        placer=net.placer,
        tools=tools_of(net.survey),
        nearly=NEARLY if is_off(net.survey.shared) else NEARLY_SHARED,
    )


MOST_TIMES: Final = 3  # a place is read so often; more says more of the hand than of the airframe


def available_in(
    pool: CandidatePool, solution: Solution, taken: Sequence[Reading] = ()
) -> Available:
    """What of a pool is still to be taken."""
    done = {place_of(reading) for reading in taken}
    return _offered(pool, solution, [place not in done for place in pool.places])


def available_again(pool: CandidatePool, solution: Solution, taken: Sequence[Reading]) -> Available:
    """What was taken and may be taken again: once more halves the variance of its place."""
    times: Counter[object] = Counter(place_of(reading) for reading in taken)
    return _offered(pool, solution, [0 < times[place] < MOST_TIMES for place in pool.places])


def tied_to(available: Available, survey: Survey, bodies: Collection[str]) -> Available:
    """Those of the offers that touch nothing but these bodies: what comes later is not on the model yet."""
    owners = {mark.id: mark.body for mark in survey.marks}
    free = np.array(
        [
            reading.hung_on in bodies
            if reading.hung_on is not None
            else all(owners[mark] in bodies for mark in marks_of(reading))
            for reading in available.readings
        ],
        dtype=bool,
    )
    return Available(
        tuple(r for r, is_free in zip(available.readings, free, strict=True) if is_free),
        available.expected[free],
        available.rows[free],
        available.noise[free],
        available.efforts[free],
        available.nearly,
    )


def _offered(pool: CandidatePool, solution: Solution, free: Sequence[bool]) -> Available:
    expected, rows = pool.observer.predict(solution.unknowns, solution.placed)
    left = np.array(free, dtype=bool)
    return Available(
        tuple(reading for reading, is_free in zip(pool.readings, left, strict=True) if is_free),
        expected[left],
        rows[left],
        pool.noise[left],
        pool.efforts[left],
        pool.nearly,
    )
