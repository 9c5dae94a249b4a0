"""What the board shows of a piece, as plain values."""

from collections.abc import Mapping, Sequence
from functools import partial
from typing import Final

import numpy as np

from hardkeel.base.units import LengthUnit, format_length, shortest
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.messages import pieces as say
from hardkeel.messages import practising as words
from hardkeel.practice.pieces.knowing import Taken, best_looks
from hardkeel.practice.pieces.piece import Piece, Stroke
from hardkeel.practice.pieces.task import Marked, Task
from hardkeel.project.practice import Word
from hardkeel.ui.stages.practice.minutes_strip import Block
from hardkeel.ui.stages.practice.piece_view import PiecePicture, Read
from hardkeel.ui.stages.practice.told_shown import said_bubble
from hardkeel.ui.stages.practice.verdict_rows import Bubble, VerdictRow
from hardkeel.ui.stages.practice.words_card import Question
from hardkeel.ui.widgets.cells import Row

_SEEN: Final = 0.05  # of the picture's size: so large the most that is off is drawn
_TIMES: Final = (1, 2, 5, 10, 20, 30)


def questions(task: Task, said: Mapping[str, Word], unit: LengthUnit) -> tuple[Question, ...]:
    """What is asked, as it is answered so far."""
    kind = say.PIECES[task.piece.kind]
    found = []
    for asked in task.piece.asked:
        name, above, below = kind.asked[asked.id]
        word = said.get(asked.id)
        wanted = f"{format_length(asked.target, unit)} " if asked.target else ""
        found.append(
            Question(
                asked.id,
                name,
                f"{wanted}±{format_length(asked.tolerance, unit)}",
                (above, below),
                angular=False,
                out=word.out if word is not None else None,
                amount=word.off if word is not None else None,
            )
        )
    return tuple(found)


def look_rows(task: Task) -> list[Row]:
    """What can be read."""
    return [
        Row(
            one.id,
            (say.look_name(task.piece.kind, one), shortest(one.minutes)),
            typed=False,
            tip=f"{say.look_name(task.piece.kind, one)}: {say.TOOLS[one.tool]}",
        )
        for one in task.piece.looks
    ]


def taken_rows(task: Task, taken: Sequence[Taken], unit: LengthUnit) -> list[Row]:
    """What was read, the last beneath."""
    rows = []
    for number, one in enumerate(taken, start=1):
        off = one.value - float(task.piece.if_true[one.look])
        cells = (
            *say.taken_cells(task, number, one, unit),
            say.differs(off, unit),
        )
        rows.append(Row(str(number), cells, typed=False, cell_colours={0: "soft", 2: "soft"}))  # fmt: skip
    return rows


def picture(task: Task, taken: Sequence[Taken], held: int, *, over: bool) -> PiecePicture:
    """The piece with what was read; when it is over as it was, larger than life."""
    piece = task.piece
    numbers: dict[int, list[str]] = {}
    for number, one in enumerate(taken, start=1):
        numbers.setdefault(one.look, []).append(str(number))
    read = tuple(
        Read(", ".join(which), _down(piece.looks[look].at)) for look, which in numbers.items()
    )
    straight = _strokes(piece, np.zeros(len(piece.unknowns)))
    name = say.PIECES[piece.kind].is_this
    if not over:
        at = _down(piece.looks[held].at) if 0 <= held < len(piece.looks) else ()
        return PiecePicture(straight, (), read, at, name)
    times = _times(task)
    rest = np.array([one in piece.whole for one in piece.unknowns])
    as_was = _strokes(piece, np.where(rest, task.truth, task.truth * times))
    return PiecePicture(as_was, straight, (), (), name, say.times_words(times))


def _strokes(piece: Piece, off: Array) -> tuple[Stroke, ...]:
    return tuple(Stroke(one.role, _down(one.points)) for one in piece.drawn(off))


def _down(points: tuple[Point2, ...]) -> tuple[Point2, ...]:
    """A sketch has its v upwards, a widget downwards."""
    return tuple((u, -v) for u, v in points)


def _times(task: Task) -> int:
    """How many times larger what is off is drawn, so that it is seen."""
    points = [at for one in task.piece.drawn(np.zeros(len(task.truth))) for at in one.points]
    size = float(np.ptp(np.array(points), axis=0).max())
    rest = [
        abs(one)
        for name, one in zip(task.piece.unknowns, task.truth, strict=True)
        if name not in task.piece.whole
    ]
    most = max(*rest, 0.1)
    return max((one for one in _TIMES if one * most <= _SEEN * size), default=1)


def verdict_rows(
    task: Task, lines: Sequence[Marked], unit: LengthUnit
) -> tuple[VerdictRow, ...]:  # fmt: skip
    """Each question: as it was, as it was told, as the readings have it."""
    kind = say.PIECES[task.piece.kind]
    rows = []
    for one, asked in zip(lines, task.piece.asked, strict=True):
        was = Bubble(
            one.line.error / asked.tolerance,
            0.0,
            "out" if one.line.is_out else "true",
            format_length(one.line.value, unit),
        )
        known, sharp = one.known, one.known.sigma <= asked.tolerance
        read = Bubble(
            known.error / asked.tolerance,
            known.sigma / asked.tolerance,
            known.verdict,
            format_length(known.value, unit) if sharp else words.NOT_KNOWN,
        )
        rows.append(
            VerdictRow(
                kind.asked[asked.id][0],
                was,
                said_bubble(
                    one.word,
                    asked.tolerance,
                    partial(_amount, asked.target, unit),
                ),
                read,
                one.outcome,
                words.outcome_words(one.outcome, guessed=one.guessed),
            )
        )
    return tuple(rows)


def _amount(wanted: float, unit: LengthUnit, off: float) -> str:
    return format_length(wanted + off, unit)


def blocks(task: Task, looks: Sequence[int]) -> tuple[Block, ...]:
    """Readings as lengths of minutes."""
    return tuple(
        Block(
            str(number),
            say.TOOLS[task.piece.looks[one].tool],
            task.piece.looks[one].minutes,
            1.0,
            f"{number}: {say.look_name(task.piece.kind, task.piece.looks[one])}",
        )
        for number, one in enumerate(looks, start=1)
    )


def best_lines(task: Task) -> tuple[tuple[int, ...], str]:
    """The best list, and what it is in words."""
    best = best_looks(task.piece)
    said = [
        f"{number}  {say.look_name(task.piece.kind, task.piece.looks[one])}"
        for number, one in enumerate(best, start=1)
    ]
    return best, "\n".join(said)
