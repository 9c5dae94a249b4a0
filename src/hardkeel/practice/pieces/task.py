"""A piece with something hidden in it: made by its seed, read in its minutes, told when the word was given."""

import math
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces import PIECES
from hardkeel.practice.pieces.knowing import Known, Taken, best_looks, known_of, minutes_of
from hardkeel.practice.pieces.piece import Piece, slopes_of
from hardkeel.practice.scoring import Line, Outcome, outcome_of
from hardkeel.project.practice import Word

_TRIES: Final = 200
_NEAR_TRUE, _FAR_OUT = 0.45, 1.5  # of a tolerance: nothing asked is between
_STORY: Final = (1.1, 1.9)  # sigmas of what a story makes
_REST: Final = 0.12  # of a sigma: what is off besides
_ROOM: Final = 1.6  # times the best list's minutes


@dataclass(frozen=True)
class Task:
    """One.

    Attributes
    ----------
    truth : Array
        The unknowns as they are, mm.
    minutes : float
        For readings: until it sets, where the piece is wet.
    """

    piece: Piece
    seed: int
    last: bool
    story: str
    truth: Array
    minutes: float

    def read(self, look: int, number: int) -> Taken:
        """What a look shows at the learner's `number`th reading, from 0; the same at the same turn."""
        rng = np.random.default_rng((self.seed, _of(self.piece.kind), 3, int(self.last), number))
        noise = float(rng.normal()) * self.piece.looks[look].sigma
        return Taken(look, float(self.piece.shows(self.truth)[look]) + noise)

    def taken(self, looks: Sequence[int]) -> tuple[Taken, ...]:
        """A list read from its first to its last."""
        return tuple(self.read(one, number) for number, one in enumerate(looks))

    def spent(self, taken: Sequence[Taken]) -> float:
        """Minutes that readings took."""
        return minutes_of(self.piece, [one.look for one in taken])

    @property
    def lines(self) -> tuple[Line, ...]:
        """What each question really is."""
        return tuple(
            Line(
                asked.id,
                float(value),
                float(value) - asked.target,
                abs(float(value) - asked.target) > asked.tolerance,
            )
            for asked, value in zip(self.piece.asked, self.piece.is_so(self.truth), strict=True)
        )


@dataclass(frozen=True, slots=True)
class Marked:
    """A question when it is over.

    Attributes
    ----------
    left : float or None
        How far off it stays, mm, pushed back by the learner's figure; ``None`` without one.
    """

    line: Line
    word: Word | None
    known: Known
    outcome: Outcome
    guessed: bool
    left: float | None

    @property
    def is_right(self) -> bool:
        """Told rightly, and known."""
        return self.outcome in ("found", "right") and not self.guessed


def marked(task: Task, taken: Sequence[Taken], said: Mapping[str, Word]) -> tuple[Marked, ...]:
    """The learner's word against what is so and what the readings tell."""
    found = []
    for line, known in zip(task.lines, known_of(task.piece, taken), strict=True):
        word = said.get(line.check)
        guessed = word is not None and known.verdict == "unsure"
        left = line.error - word.off if word is not None and word.out and word.off else None
        found.append(Marked(line, word, known, outcome_of(line, word), guessed, left))
    return tuple(found)


def task_of(kind: str, seed: int, *, last: bool = False) -> Task:
    """The one of a kind and a number; always the same.

    Raises
    ------
    BadInput
        When there is no such kind, or in so many tries none that its own best list decides.
    """
    if kind not in PIECES:
        raise BadInput("practice", f'has no piece "{kind}"')
    rng = np.random.default_rng((seed, _of(kind), int(last)))
    for _ in range(_TRIES):
        piece = PIECES[kind](rng)
        story = piece.last if last else str(rng.choice(sorted(piece.stories)))
        task = _hidden(piece, seed, story, rng, last=last)
        if task is not None:
            return task
    raise BadInput("practice", f'finds no "{kind}" that its readings decide')


def _hidden(
    piece: Piece, seed: int, story: str, rng: np.random.Generator, *, last: bool
) -> Task | None:
    """One with a story; ``None`` where something asked is near its limit, or the best list does not tell it."""
    truth = _REST * piece.priors * np.clip(rng.normal(size=len(piece.unknowns)), -2, 2)
    for name in piece.whole:
        truth[piece.at(name)] = 0.0
    for name in piece.stories[story]:
        at = piece.at(name)
        if name in piece.whole:
            truth[at] = piece.priors[at]
            continue
        way = piece.one_way.get(name) or float(rng.choice((-1.0, 1.0)))
        truth[at] = way * rng.uniform(*_STORY) * piece.priors[at]
    best = best_looks(piece)
    wanted = minutes_of(piece, best)
    minutes = piece.pot_life or math.ceil(_ROOM * wanted)
    task = Task(piece, seed, last, story, truth, float(minutes))
    if wanted > minutes or not _is_clear(task):
        return None
    if last and _is_told(task, by_belief(task)):
        return None
    known = known_of(piece, task.taken(best))
    told = all(
        (one.verdict == "out") == line.is_out and one.verdict != "unsure"
        for one, line in zip(known, task.lines, strict=True)
    )
    return task if told else None


def _is_clear(task: Task) -> bool:
    """Whether nothing asked is near its limit, and out is what the story makes so and nothing else."""
    piece = task.piece
    slopes = slopes_of(piece.is_so, task.truth)
    story = [piece.at(name) for name in piece.stories[task.story]]
    made = {
        asked.id
        for asked, row in zip(piece.asked, slopes, strict=True)
        if any(abs(row[one]) > 0 for one in story)
    }
    for line, asked in zip(task.lines, piece.asked, strict=True):
        share = abs(line.error) / asked.tolerance
        if _NEAR_TRUE < share < _FAR_OUT or line.is_out != (line.check in made):
            return False
    return True


def _is_told(task: Task, said: Mapping[str, Word]) -> bool:
    """Whether all that is out was called so, and nothing else."""
    return all(said[one.check].out == one.is_out for one in task.lines)


def _of(kind: str) -> int:
    return zlib.crc32(kind.encode())


def by_belief(task: Task) -> dict[str, Word]:
    """What one says who lacks the kind's idea: he reads what he believes in, twice, and holds only that for possible."""
    piece, belief = task.piece, task.piece.believed
    looks = [piece.look(one) for one in belief.looks] * 2
    taken = task.taken(looks)
    ways = np.array(
        [[cause.get(name, 0.0) for name in piece.unknowns] for cause in belief.causes]
    ).T
    rows = slopes_of(piece.shows, np.zeros(len(piece.unknowns)))[looks] @ ways
    shown = np.array([one.value for one in taken]) - piece.if_true[looks]
    weight = np.array([1 / piece.looks[one].sigma for one in looks])
    figures = np.linalg.lstsq(rows * weight[:, None], shown * weight, rcond=None)[0]
    held = piece.is_so(ways @ figures)
    return {
        asked.id: Word(
            out=bool(abs(value - asked.target) > asked.tolerance), off=float(value - asked.target)
        )
        for asked, value in zip(piece.asked, held, strict=True)
    }


def by_best(task: Task) -> dict[str, Word]:
    """What one says who reads the best list and holds all of its causes for possible."""
    known = known_of(task.piece, task.taken(best_looks(task.piece)))
    return {
        one.asked.id: Word(
            out=one.verdict == "out", off=one.error if one.verdict == "out" else None
        )
        for one in known
    }
