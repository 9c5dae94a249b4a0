"""Which readings of a frame are there to take, and which is worth most."""

from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Any, Final

import numpy as np

from hardkeel.fuselage.squaring import BOARD, CHECKED, CORNERS, Squared, bodies_of
from hardkeel.survey.candidates import Available, available_in, candidate_pool
from hardkeel.survey.checking import Check, CheckRule, verdict_of
from hardkeel.survey.ranking import NextReading, promised, rank, undecided
from hardkeel.survey.readings import (
    ANGULAR,
    AngleAt,
    Distance,
    DistanceDifference,
    Gap,
    Height,
    Incidence,
    Offset,
    Reading,
    Tilt,
    marks_of,
    place_of,
    sigma_of,
)

_SUSPECT: Final = 2.0  # sigmas of a careful hand
_WORTH: Final = 0.9  # by the contract
_MOST: Final = 5
_AT: Final[dict[str, Any]] = {"id": "?", "value": 0.0}


@lru_cache(maxsize=8)
def readings_at_hand(names: tuple[str, ...]) -> tuple[Reading, ...]:
    """Everything that is read on a frame: former by former, then bay by bay."""
    return tuple(_readings(names))


def reading_of_marks(
    names: tuple[str, ...], marks: tuple[str, ...], kinds: tuple[str, ...]
) -> Reading | None:
    """What is read at one mark, or from one mark to another.

    Parameters
    ----------
    marks : tuple of str
        One or two, as ``F3.tp``.
    kinds : tuple of str
        Kinds of reading that are meant, the likeliest first; ``incidence`` is the lean of a former
        whose top and foot are pointed at.
    """
    wanted = frozenset(marks)
    bodies = {mark.rpartition(".")[0] for mark in marks}
    best: tuple[int, Reading] | None = None
    for reading in readings_at_hand(names):
        if reading.kind not in kinds:
            continue
        if isinstance(reading, Incidence):
            meant = len(marks) > 1 and bodies == {reading.body}
        else:
            ends = frozenset(one for one in marks_of(reading) if not one.startswith(f"{BOARD}."))
            meant = ends == wanted
        rank_ = kinds.index(reading.kind)
        if meant and (best is None or rank_ < best[0]):
            best = (rank_, reading)
    return best[1] if best is not None else None


def _readings(names: tuple[str, ...]) -> Iterator[Reading]:
    for name in names:
        yield Incidence(**_AT, body=name)
        for corner in CORNERS:
            yield Height(**_AT, mark=f"{name}.{corner}")
        for middle in ("tc", "bc"):
            yield Offset(**_AT, mark=f"{name}.{middle}")
        yield Distance(**_AT, from_=f"{name}.bp", to=f"{name}.ts")
        yield Distance(**_AT, from_=f"{name}.bs", to=f"{name}.tp")
        yield Tilt(**_AT, from_=f"{name}.tp", to=f"{name}.ts")
        yield AngleAt(**_AT, at=f"{name}.bp", from_=f"{name}.bs", to=f"{name}.tp")
        yield AngleAt(**_AT, at=f"{name}.bs", from_=f"{name}.bp", to=f"{name}.ts")
        for corner in CORNERS:
            yield Gap(**_AT, from_=f"{BOARD}.{name}", to=f"{name}.{corner}", axis="x")
    for a, b in pairwise(names):
        for level in "tb":
            # both diagonals against each other, from a middle to two corners: the tape's own zero falls out
            ends = (f"{b}.{level}p", f"{b}.{level}s")
            yield DistanceDifference(**_AT, from_=f"{a}.{level}c", to=ends)
            yield Distance(**_AT, from_=f"{a}.{level}p", to=f"{b}.{level}s")
            yield Distance(**_AT, from_=f"{a}.{level}s", to=f"{b}.{level}p")
        for side in "ps":
            yield Distance(**_AT, from_=f"{a}.t{side}", to=f"{b}.b{side}")
            yield Distance(**_AT, from_=f"{a}.b{side}", to=f"{b}.t{side}")


def next_readings(squared: Squared) -> tuple[NextReading, ...]:
    """The best readings for what is open and that any of them would still help.

    First the formers that seem to be off, the worst in front; then each former that nothing was read of sideways gets
    its centre mark, for whatever moves it sideways, tips or pushes it shows there; then whatever is sharpened most.
    What would sharpen a check by less than a tenth is not asked for.
    """
    pool = candidate_pool(squared.net, readings_at_hand(squared.formers))
    used = {fit.id for fit in squared.fits if fit.used}
    held = [reading for reading in squared.readings if reading.id in used]
    available = available_in(pool, squared.solution, held)
    rules = _rules(squared)
    open_ = undecided(squared.checks)
    off = suspicion(squared, held)
    suspected = [check for check in open_ if off.get(check.body, 0.0) > _SUSPECT]
    suspected.sort(key=lambda check: (-off[check.body], -abs(check.error) / check.tolerance))
    for check in suspected:
        if best := rank(available, squared.solution, rules[check.id], worth=_WORTH):
            return best
    left = {check.body: check for check in reversed(open_)}
    for name in squared.formers:
        if name in left and not _read_sideways(held, name):
            mark = Offset(**_AT, mark=f"{name}.tc")
            if found := promised(
                squared.net,
                squared.solution,
                [mark],
                tuple(rules.values()),
                squared.checks_on(name),
            ):
                return found
    return _sharpest(squared, available, rules, open_)


def suspicion(squared: Squared, held: Sequence[Reading]) -> dict[str, float]:
    """By former how far the readings on it are from those of a frame that is true, in the sigmas of a careful hand.

    A reading of a true frame errs by its own sigma and by what a careful hand leaves, a third of a tolerance of each
    figure: √(σ² + Σ(j·tolerance/3)²).
    """
    net, found = squared.net, dict.fromkeys(squared.formers, 0.0)
    if not held:
        return found
    true = np.zeros(net.columns.size)
    values, slopes = net.observer(held).predict(true, net.placer.place(true))
    careful = np.sqrt(1 / net.columns.prior_weight)
    for i in range(len(squared.formers)):
        start = net.columns.start[squared.formers[i]]
        careful[start : start + 3] = squared.tolerances[i, 0] / 3
        careful[squared.columns[i]] = squared.tolerances[i] / 3
    noise = np.square([sigma_of(one) for one in held]) + np.square(slopes * careful).sum(axis=1)
    pulls = np.abs(np.array([one.value for one in held]) - values) / np.sqrt(noise)
    for reading, pull in zip(held, pulls.tolist(), strict=True):
        for body in bodies_of(reading) & found.keys():
            found[body] = max(found[body], pull)
    return found


def _read_sideways(held: Sequence[Reading], former: str) -> bool:
    return any(isinstance(one, Offset) and one.mark.startswith(f"{former}.") for one in held)


def _sharpest(
    squared: Squared, available: Available, rules: dict[str, CheckRule], open_: Sequence[Check]
) -> tuple[NextReading, ...]:
    """The readings that together sharpen the open checks most for their minutes, each for the check it helps most."""
    if not open_ or not available.readings:
        return ()
    covariance = squared.solution.covariance
    slopes = np.array([rules[check.id].slope for check in open_])
    spread = available.rows @ covariance
    wide = available.noise + np.sum(spread * available.rows, axis=1)
    now = np.sum((slopes @ covariance) * slopes, axis=1)
    gain = (spread @ slopes.T) ** 2 / wide[:, None]
    left = np.sqrt(np.maximum(1 - gain / now, 1e-12))
    worth = np.where(left <= _WORTH, -np.log(left), 0.0).sum(axis=1) / available.efforts
    order = np.argsort(-worth, kind="stable")[:_MOST]
    found = []
    for i in order[worth[order] > 0]:
        best = int(np.argmin(left[i]))
        sigma = float(np.sqrt(now[best]))
        reading = available.readings[i].but(value=float(available.expected[i]))
        found.append(NextReading(reading, open_[best].id, sigma, sigma * float(left[i, best])))
    return tuple(found)


def decided_by_finer(squared: Squared, sigma_mm: float) -> tuple[int, int]:
    """How many of the open checks would be decided, had every length been read so finely, and how many are open.

    Values stay as they are: what a finer tool would say of them is not known before it is read.
    """
    open_ = undecided(squared.checks)
    used = {fit.id for fit in squared.fits if fit.used}
    held = [one for one in squared.readings if one.id in used]
    if not open_ or not held:
        return 0, len(open_)
    net, solution = squared.net, squared.solution
    _, slopes = net.observer(held).predict(solution.unknowns, solution.placed)
    sigmas = [
        sigma_of(one) if one.kind in ANGULAR else min(sigma_of(one), sigma_mm) for one in held
    ]
    rows, read = (
        slopes / np.array(one)[:, None] for one in (sigmas, [sigma_of(one) for one in held])
    )
    # what sightings and priors say stays as it is
    known = np.linalg.inv(solution.covariance) - read.T @ read
    spread = np.sqrt(np.diag(np.linalg.inv(rows.T @ rows + known)))
    columns = {
        f"{name}_{kind}": int(squared.columns[i, j])
        for i, name in enumerate(squared.formers)
        for j, (kind, _, _) in enumerate(CHECKED)
    }
    decided = sum(
        verdict_of(check.error, float(spread[columns[check.id]]), check.tolerance) != "unsure"
        for check in open_
    )
    return decided, len(open_)


def expected(squared: Squared, reading: Reading) -> float:
    """What a reading would show by the estimate."""
    values, _ = squared.net.observer([reading]).predict(
        squared.solution.unknowns, squared.solution.placed
    )
    return float(values[0])


def like(readings: tuple[Reading, ...], place: Reading) -> Reading | None:
    """The reading that was taken at the same place, if one was."""
    return next((one for one in readings if place_of(one) == place_of(place)), None)


def _rules(squared: Squared) -> dict[str, CheckRule]:
    found = {}
    kinds = [kind for kind, _, _ in CHECKED]
    for i, name in enumerate(squared.formers):
        for j, kind in enumerate(kinds):
            slope = np.zeros(squared.net.columns.size)
            slope[int(squared.columns[i, j])] = 1.0
            check_id = f"{name}_{kind}"
            unit = "mm" if kind == "dy" else "deg"
            limit = float(squared.tolerances[i, j])
            found[check_id] = CheckRule(check_id, kind, name, unit, 0.0, limit, 0.0, slope)
    return found
