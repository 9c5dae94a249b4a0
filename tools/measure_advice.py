"""Follow the advice at both seats once, and count what is in tolerance: ``python tools/measure_advice.py [COUNT]``.

Each crooked airframe is read by the app's own list and then by what it asks for, forty-five readings at most, four in
a hundred off by 5 to 20 sigma.  Wing and stabilizer are then corrected together, packing in the shop's steps and
sliding, each contact wrong by the hand's 0.1 mm; a seat that nothing asks to touch is left.  Counted are the checks
of both that a seat can change.
"""

import sys

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.checking import judge
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Reading, sigma_of
from tests.airframes import plain_survey, random_truth

_TRIALS = 250
_LISTED, _MOST = 30, 45
_BLUNDERS = 0.04
_SCALE = 0.4
_HAND_MM = 0.1
_BODIES = ("wing", "stab")
_NOT_AT_A_SEAT = "twist_difference"


def main(count: int) -> None:
    """Print how many airframes have all those checks in tolerance: before, after by hand, after exactly."""
    survey = plain_survey()
    empty = judge_survey(survey)
    listed = plan(empty.net, empty.solution, empty.rules, (), _LISTED, empty.pool)
    before = by_hand = exactly = single = asked = 0
    for seed in range(count):
        rng = np.random.default_rng(seed)
        truth = random_truth(network_of(survey), rng, _SCALE)
        judgement = _read(survey, listed, truth, rng)
        asked += judgement.together is not None
        before += _all_true(judgement, truth)
        moved = _corrected(judgement, truth, rng, _HAND_MM)
        good = _true_checks(judgement, moved)
        by_hand += all(good)
        single += sum(good) / len(good) > 1 - 1e-9 or sum(good) >= len(good) - 1
        exactly += _all_true(judgement, _corrected(judgement, truth, rng, 0.0))
    print(
        f"{count} crooked airframes, up to {_MOST} readings, {_BLUNDERS:.0%} blunders, both seats once"
    )
    print(f"  advice asked for something on {asked / count:.0%}")
    print(f"  all checks of wing and stabilizer in tolerance: before {before / count:.1%}")
    print(
        f"    after, by hand ({_HAND_MM} mm) {by_hand / count:.1%}, without hand error {exactly / count:.1%}"
    )
    print(f"    all but at most one {single / count:.1%}")


def _read(
    survey: Survey, listed: tuple[Reading, ...], truth: Array, rng: np.random.Generator
) -> Judgement:
    """The list first, then whatever is asked for; a reading to doubt is taken again."""
    read = survey
    for one in listed:
        read = _with(read, one, truth, rng)
    judgement = judge_survey(read, sound=True)
    while len(read.readings) < _MOST:
        if judgement.outliers:
            weighed = read.reading(judgement.outliers[0].reading)
            if weighed is None:
                break
            kept = tuple(
                one.but(ignored=True) if one.id == weighed.id else one for one in read.readings
            )
            read = _with(read.but(readings=kept), weighed, truth, rng)
        elif judgement.next:
            read = _with(read, judgement.next[0].reading, truth, rng)
        else:
            break
        judgement = judge_survey(read, sound=True)
    return judgement


def _with(read: Survey, one: Reading, truth: Array, rng: np.random.Generator) -> Survey:
    net = network_of(read)
    values, _ = net.observer([one]).predict(truth, net.placer.place(truth))
    sigma = sigma_of(one)
    off = rng.normal() * sigma
    if rng.random() < _BLUNDERS:
        off += float(rng.choice([-1, 1])) * rng.uniform(5, 20) * sigma
    taken = one.but(id=f"r{len(read.readings)}", value=float(values[0] + off), ignored=False)
    return read.but(readings=(*read.readings, taken))


def _corrected(judgement: Judgement, truth: Array, rng: np.random.Generator, hand: float) -> Array:
    """The truth after one round: each contact goes where it is sent, but for the hand; the body follows as it can."""
    after = truth.copy()
    net = judgement.net
    packed: dict[str, list[float]] = {}
    for body, _, mm in judgement.together.only_sanding.moves if judgement.together else ():
        packed.setdefault(body, []).append(mm)
    for correction in judgement.corrections:
        if correction.body not in packed:
            continue
        seat, size = net.seats[correction.body], len(correction.moves)
        wanted = seat.place(truth).airframe.copy()
        wanted[:, 2] += np.array(packed[correction.body]) + rng.normal(0, hand, size)
        wanted[:, 0] += [move.slide_x for move in correction.moves] + rng.normal(0, hand, size)
        wanted[:, 1] += [move.slide_y for move in correction.moves] + rng.normal(0, hand, size)
        _let_follow(net, correction.body, wanted, after)
    return after


def _let_follow(net: Network, body: str, wanted: Array, after: Array) -> None:
    """Bring a rigid body's contacts as near as they go: Gauss and Newton over its six motions."""
    names = net.columns.names[body]
    start = net.columns.start[body]
    free = [start + names.index(one) for one in ("dx", "dy", "dz", "roll", "pitch", "yaw")]
    for _ in range(6):
        placed = net.seats[body].place(after)
        slopes = placed.airframe_moves[:, :, free].reshape(-1, len(free))
        after[free] += np.linalg.lstsq(slopes, (wanted - placed.airframe).ravel(), rcond=None)[0]


def _true_checks(judgement: Judgement, truth: Array) -> list[bool]:
    zero = np.zeros((len(truth), len(truth)))
    return [
        abs(check.error) <= check.tolerance
        for check in judge(judgement.rules, truth, zero)
        if check.body in _BODIES and check.kind != _NOT_AT_A_SEAT
    ]


def _all_true(judgement: Judgement, truth: Array) -> bool:
    return all(_true_checks(judgement, truth))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _TRIALS)
