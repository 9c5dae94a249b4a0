"""Count names over frames with a hidden fault, and what moving by hand leaves: ``python tools/measure_squaring.py``."""

import sys
from collections import Counter

import numpy as np

from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.fuselage.shaping import name_frame, shape_of_frame
from hardkeel.fuselage.squaring import CORNERS, Squared, square
from tests.square_frames import FAULTS, fault_of, frame_on_board, places, read

_FRAMES = 1000
_MOVED_FRAMES = 120
_HAND_MM = 0.2
_FINER_MM = 0.3  # a move of less is finer than a hand
_ROUNDS = 3
_CLOSE_MM, _CLOSE_DEG = 0.4, 0.3


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
    for hand in (_HAND_MM, 0.0):
        shares = _moved(hand)
        told = ", ".join(f"{share:.0%}" for share in shares)
        print(f"formers within 0.4 mm and 0.3°, hand {hand} mm: {told} after 0 to {_ROUNDS} rounds")


def _frame(seed: int, kind: str) -> tuple[Fuselage, np.ndarray]:
    rng = np.random.default_rng(seed)
    plain = frame_on_board(rng, int(rng.integers(5, 10)))
    truth = fault_of(rng, kind, np.array([former.station for former in plain.formers]))
    return read(plain, truth, places(plain, rng), rng), truth


def _moved(hand: float) -> list[float]:
    """Share of formers told to be close, before and after each round of measuring and moving."""
    close = np.zeros(_ROUNDS + 1)
    count = 0
    for seed in range(_MOVED_FRAMES):
        kind = FAULTS[1 + seed % (len(FAULTS) - 1)]
        fuselage, truth = _frame(seed, kind)
        rng = np.random.default_rng(90000 + seed)
        count += len(truth)
        for number in range(_ROUNDS + 1):
            close[number] += int(np.sum(_is_close(truth)))
            squared = square(fuselage)
            truth = _by_hand(squared, truth, hand, rng)
            fuselage = read(fuselage, truth, places(fuselage, rng), rng)
    return [float(share) for share in close / count]


def _is_close(truth: np.ndarray) -> np.ndarray:
    """Of what is checked: off the centre line, and the four angles."""
    near = (np.abs(truth[:, 1]) <= _CLOSE_MM) & (np.abs(truth[:, 3:]).max(axis=1) <= _CLOSE_DEG)
    return np.asarray(near)


def _by_hand(
    squared: Squared, truth: np.ndarray, hand: float, rng: np.random.Generator
) -> np.ndarray:
    """Each move carried out at four corners, a hand's error at each; finer moves are left."""
    after = truth.copy()
    for i, name in enumerate(squared.formers):
        mine = [move for move in squared.moves if move.former == name]
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


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _FRAMES)
