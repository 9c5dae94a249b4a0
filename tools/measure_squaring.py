"""Count names over frames with a hidden fault, and what moving by hand leaves: ``python tools/measure_squaring.py``."""

import sys
from collections import Counter

import numpy as np

from hardkeel.fuselage.curing import JudgedFrame, judge_frame
from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.fuselage.shaping import name_frame, shape_of_frame
from hardkeel.fuselage.squaring import CORNERS, square
from hardkeel.fuselage.squaring_next import next_readings
from hardkeel.survey.priors import USUAL_SHARED, Shared
from tests.square_frames import FAULTS, fault_of, frame_on_board, places, read

_FRAMES = 1000
_MOVED_FRAMES = 120
_HAND_MM = 0.2
_FINER_MM = 0.3  # a move of less is finer than a hand
_ROUNDS = 3
_TOLERANCE = 0.5  # mm and degrees
_WIDE_MM = 70.0
_FOLLOWED = 20
_AT = {"dy": 1, "roll": 3, "lean": 4, "yaw": 5}


def main(frames: int) -> None:
    """Print both tables."""
    print(f"names of {frames} frames with a hidden fault")
    kinds = [kind for kind in FAULTS if kind != "true"]
    counts: dict[str, Counter[str]] = {kind: Counter() for kind in kinds}
    for seed in range(frames):
        kind = kinds[seed % len(kinds)]
        fuselage, _ = _frame(seed, kind)
        squared = square(fuselage)
        counts[kind][name_frame(squared, Squaring(), shape_of_frame(squared)).name] += 1
    for kind, found in counts.items():
        print(f"  {kind:<11} {dict(found)}")
    total = sum(sum(found.values()) for found in counts.values())
    right = sum(found[kind] for kind, found in counts.items())
    unsure = sum(found["unsure"] for found in counts.values())
    print(f"  right {right / total:.1%}, wrong {(total - right - unsure) / total:.2%}")
    every: list[tuple[str, ...]] = [("one-former",), ("twisted",), FAULTS[1:]]
    for kinds_ in every:
        for hand in (_HAND_MM, 0.0):
            shares, moved, needed = _moved(hand, kinds_)
            told = ", ".join(f"{share:.0%}" for share in shares)
            name = kinds_[0] if len(kinds_) == 1 else "all faults"
            print(
                f"{name}, hand {hand} mm: formers in tolerance {told} after 0 to {_ROUNDS} rounds; "
                f"{moved} moved one by one in the first, {needed} were out"
            )
    for shared in (None, USUAL_SHARED):
        _followed(shared)


def _frame(seed: int, kind: str) -> tuple[Fuselage, np.ndarray]:
    rng = np.random.default_rng(seed)
    plain = frame_on_board(rng, int(rng.integers(5, 10)))
    truth = fault_of(rng, kind, np.array([former.station for former in plain.formers]))
    return read(plain, truth, places(plain, rng), rng), truth


def _moved(hand: float, kinds: tuple[str, ...]) -> tuple[list[float], int, int]:
    """Share of formers in tolerance before and after each round, and in the first how many moved and were out."""
    close = np.zeros(_ROUNDS + 1)
    count = moved = needed = 0
    for seed in range(_MOVED_FRAMES):
        fuselage, truth = _frame(seed, kinds[seed % len(kinds)])
        rng = np.random.default_rng(90000 + seed)
        count += len(truth)
        for number in range(_ROUNDS + 1):
            within = _in_tolerance(truth)
            close[number] += int(np.sum(within))
            judged = judge_frame(fuselage)
            if number == 0:
                moved += len({move.former for move in judged.moves})
                needed += int(np.sum(~within))
            truth = _by_hand(judged, truth, hand, rng)
            fuselage = read(fuselage, truth, places(fuselage, rng), rng)
    return [float(share) for share in close / count], moved, needed


def _in_tolerance(truth: np.ndarray) -> np.ndarray:
    """Of what is checked: off the centre line, and the four angles."""
    near = np.abs(truth[:, (1, 3, 4, 5, 6)]).max(axis=1) <= _TOLERANCE
    return np.asarray(near)


def _by_hand(
    judged: JudgedFrame, truth: np.ndarray, hand: float, rng: np.random.Generator
) -> np.ndarray:
    """The cure of the whole, a hand's error at its far end, and each move at four corners with one at each."""
    squared, after = judged.squared, truth.copy()
    if judged.cure is not None:
        far = np.linspace(0.0, 1.0, len(truth))
        slip = rng.normal(0, hand, len(_AT))
        for i, (_, given) in enumerate(judged.cure.formers):
            for k, (kind, amount) in enumerate(given.items()):
                error = slip[k] if kind == "dy" else np.degrees(slip[k] / _WIDE_MM)
                after[i, _AT[kind]] += amount + error * far[i]
    for i, name in enumerate(squared.formers):
        mine = [move for move in judged.moves if move.former == name]
        if not mine or max(max(abs(m.dx), abs(m.dy), abs(m.dz)) for m in mine) < _FINER_MM:
            continue
        start = squared.net.columns.start[name]
        rows = [squared.net.index[f"{name}.{corner}"] for corner in CORNERS]
        slopes = squared.solution.placed.airframe_moves[rows][:, :, start : start + 7].reshape(
            -1, 7
        )
        error = np.linalg.lstsq(slopes, rng.normal(0, 1, 12) * hand, rcond=None)[0]
        after[i] = truth[i] - squared.solution.unknowns[start : start + 7] + error
    return after


def _followed(shared: Shared | None) -> None:
    """What is asked for on nine formers of which one is racked and one aside: readings to the first `out`, and to the end."""
    first, last, left = [], [], []
    for seed in range(_FOLLOWED):
        rng = np.random.default_rng(seed)
        plain = frame_on_board(rng, 9)
        truth = fault_of(rng, "true", np.array([former.station for former in plain.formers]))
        racked, aside = rng.choice(9, 2, replace=False)
        truth[racked, 6] += 1.8
        truth[aside, 1] += 1.4
        fuselage = plain.but(squaring=Squaring(shared=shared))
        squared = square(fuselage)
        found = 0
        while offered := next_readings(squared):
            held = fuselage.squaring.readings if fuselage.squaring is not None else ()
            taken = read(plain, truth, [offered[0].reading], rng).squaring
            if taken is None:
                break
            one = taken.readings[0].but(id=f"q{len(held)}")
            fuselage = fuselage.but(squaring=Squaring(readings=(*held, one), shared=shared))
            squared = square(fuselage, near=squared)
            if not found and any(check.verdict == "out" for check in squared.checks):
                found = len(held) + 1
        first.append(found)
        last.append(len(squared.readings))
        left.append(sum(one.verdict == "unsure" and not one.edge for one in squared.checks))
    print(
        f"following what is asked for, {'with' if shared else 'without'} shared errors: first out after "
        f"{np.median(first):.0f} readings (at most {max(first)}), ended after {np.median(last):.0f}, "
        f"{np.median(left):.0f} of 45 checks left open"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _FRAMES)
