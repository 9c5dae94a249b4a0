"""Pieces on the practice board: what they show by plain geometry, what readings tell of them, and what each teaches."""

import math
from collections.abc import Callable
from datetime import UTC, datetime

import numpy as np
import pytest
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.spatial.transform import Rotation

from hardkeel.base.errors import BadInput
from hardkeel.messages import pieces as say
from hardkeel.practice.pieces import PIECES, Piece
from hardkeel.practice.pieces.knowing import best_looks, estimate, known_of, minutes_of
from hardkeel.practice.pieces.task import by_belief, by_best, marked, task_of
from hardkeel.practice.progress import Book, due_of, next_course, piece_of, skill_now
from hardkeel.project.practice import Word

Array = NDArray[np.float64]
NOW = datetime(2026, 3, 1, 19, 0, tzinfo=UTC)
KINDS = list(PIECES)


def _piece(kind: str, seed: int = 4) -> Piece:
    return PIECES[kind](np.random.default_rng(seed))


def _off(piece: Piece, seed: int) -> Array:
    rng = np.random.default_rng(seed)
    return np.asarray(piece.priors * rng.uniform(-2, 2, len(piece.unknowns)))


# -- what each kind shows, once more by other means -------------------------------------------------


def _print(piece: Piece, off: Array) -> Array:
    """A unit of the drawing stretched by its own share along and across."""
    bar, along, across, former, border = piece.if_true
    stretch = np.diag([1 + off[0] / along, 1 + off[1] / across])
    edge = 40.0
    vectors = [(bar, 0), (along, 0), (0, across), (0, former), (along + edge, across + edge)]
    assert border == pytest.approx(math.hypot(along + edge, across + edge))
    return np.array([np.linalg.norm(stretch @ np.array(one)) for one in vectors])


def _sides(piece: Piece, off: Array) -> Array:
    more, port, starboard, alike, size = off
    length, edge, thick = piece.if_true[0], piece.if_true[3], piece.if_true[5]
    port_end, starboard_end = length + size + more, length + size
    return np.array(
        [port_end, starboard_end, port_end - starboard_end, edge + port, edge + starboard, thick, thick - alike]
    )  # fmt: skip


def _box(piece: Piece, off: Array) -> Array:
    """Corners as vectors: sheared by rack and lean, the rear ring turned about the long axis."""
    rack, lean, twist, long, wide, tall = off
    size = _box_size(piece)
    turn = Rotation.from_euler("x", -math.atan(twist / (size[2] / 2)))

    def at(aft: int, y: int, z: int) -> Array:
        across = np.array([0, y * (size[1] + wide) / 2, z * (size[2] + tall) / 2])
        if aft:
            across = turn.apply(across)
        along = aft * (size[0] + long) - y * rack / 2 - z * lean / 2
        return np.asarray(across + np.array([along, 0, 0]))

    pairs = [
        (at(0, -1, 1), at(1, 1, 1)), (at(0, 1, 1), at(1, -1, 1)),
        (at(0, -1, -1), at(1, -1, 1)), (at(0, -1, 1), at(1, -1, -1)),
        (at(0, 1, -1), at(1, 1, 1)), (at(0, 1, 1), at(1, 1, -1)),
    ]  # fmt: skip
    lines = [float(np.linalg.norm(a - b)) for a, b in pairs]
    return np.array([*lines, at(1, -1, -1)[2] - at(1, 1, -1)[2]])


def _box_size(piece: Piece) -> Array:
    """Length, width, height from three diagonals of what is drawn and its own foot."""
    top, side = piece.if_true[0], piece.if_true[2]
    foot = piece.looks[piece.look("shim")].at
    wide = (foot[1][0] - foot[0][0]) / 0.45
    length = math.sqrt(top**2 - wide**2)
    return np.array([length, wide, math.sqrt(side**2 - length**2)])


def _rear(piece: Piece, off: Array) -> Array:
    """The bend as a parabola through three points."""
    bend, post, aft = off
    line = np.polynomial.Polynomial.fit([0, 0.5, 1], [0, post / 2 + bend, post], 2)
    thread = np.polynomial.Polynomial.fit([0, 1], [0, post], 1)
    offs = [line(x) - thread(x) for x in (0.25, 0.5, 0.75)]
    length = piece.looks[piece.look("tips")].at[0][0]
    half = math.sqrt(_tips_reach(piece) ** 2 - length**2)
    tip, other = np.array([aft, half]), np.array([-aft, -half])
    end = np.array([length, post])
    tips = np.linalg.norm(end - tip) - np.linalg.norm(end - other)
    return np.array([*offs, line(0.5), line(1.0), float(tips)])


def _tips_reach(piece: Piece) -> float:
    """From the slope of the tips' difference with the post: −2·half/reach, and reach² = length² + half²."""
    length = piece.looks[piece.look("tips")].at[0][0]
    step = np.array([0, 1e-3, 0])
    slope = (piece.shows(step)[5] - piece.shows(-step)[5]) / 2e-3
    share = -slope / 2
    return float(length / math.sqrt(1 - share**2))


def _hatch(piece: Piece, off: Array) -> Array:
    return piece.if_true + off


def _tail(piece: Piece, off: Array) -> Array:
    """Light under the middle of the board's line, and at a corner of z = w·x·y turned as the frame is laid."""
    bow, twist, hollow, winding = off

    def corner(turn: Rotation) -> float:
        wound = turn.apply(np.array([1.0, 1.0, twist]))  # the corner of z = twist·x·y
        x, y, z = wound
        return float(z / (x * y) + winding)

    over = Rotation.from_euler("x", 180, degrees=True)
    quarter = Rotation.from_euler("z", 90, degrees=True)
    laid = [corner(Rotation.identity()), corner(over)]
    across = corner(quarter) - winding
    return np.array([hollow + bow, hollow - bow, *laid, -(across + winding)])


def _panels(piece: Piece, off: Array) -> Array:
    """The wing as complex numbers, turned about its own middle."""
    swing, longer, aside, back, size = off
    half, deep = piece.if_true[4], piece.if_true[6]
    tail = math.sqrt(piece.if_true[0] ** 2 - half**2)
    nose = -math.sqrt(piece.if_true[2] ** 2 - half**2)
    turn = np.exp(-1j * swing / half)
    middle = back + 1j * aside
    port = middle + turn * 1j * (half + size + longer / 2)
    starboard = middle - turn * 1j * (half + size - longer / 2)
    lines = [abs(pin - tip) for pin in (tail, nose) for tip in (port, starboard)]
    return np.array([*lines, abs(port - middle), abs(starboard - middle), deep + aside])


SECOND: dict[str, Callable[[Piece, Array], Array]] = {
    "print": _print,
    "sides": _sides,
    "box": _box,
    "rear": _rear,
    "hatch": _hatch,
    "tail": _tail,
    "panels": _panels,
}


@pytest.mark.parametrize("kind", KINDS)
def test_it_shows_what_plain_geometry_says(kind: str) -> None:
    for seed in range(5):
        piece = _piece(kind, seed)
        off = _off(piece, seed)
        np.testing.assert_allclose(piece.shows(off), SECOND[kind](piece, off), atol=2e-5)


def test_a_frame_laid_across_winds_the_other_way_and_turned_over_it_does_not() -> None:
    piece = _piece("tail")
    off = np.array([0.0, 1.0, 0.0, 0.0])
    shown = dict(zip((one.id for one in piece.looks), piece.shows(off), strict=True))
    assert shown["corner"] == shown["corner-over"] == 1
    board = piece.shows(np.array([0.0, 0.0, 0.0, 1.0]))
    assert board[piece.look("corner")] == -board[piece.look("corner-across")] == 1


# -- what readings tell -----------------------------------------------------------------------------


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_known_is_the_least_of_the_squares(kind: str) -> None:
    task = task_of(kind, 3)
    piece, taken = task.piece, task.taken(best_looks(task.piece))
    looks = [one.look for one in taken]
    sigma = np.array([piece.looks[one].sigma for one in looks])

    def left(x: Array) -> Array:
        shown = piece.shows(x)[looks] - [one.value for one in taken]
        return np.concatenate([shown / sigma, x / piece.priors])

    found = least_squares(left, np.zeros(len(piece.unknowns)), xtol=1e-14, ftol=1e-14, gtol=1e-14)
    unknowns, covariance = estimate(piece, taken)
    np.testing.assert_allclose(unknowns, found.x, atol=2e-3)
    np.testing.assert_allclose(covariance, np.linalg.inv(found.jac.T @ found.jac), rtol=5e-3, atol=1e-4)  # fmt: skip


@pytest.mark.parametrize("kind", KINDS)
def test_before_anything_is_read_nothing_is_known(kind: str) -> None:
    assert {one.verdict for one in known_of(_piece(kind), ())} == {"unsure"}


@pytest.mark.parametrize("kind", KINDS)
def test_errors_are_as_large_as_they_are_said_to_be(kind: str) -> None:
    piece = _piece(kind)
    looks = best_looks(piece)
    rng = np.random.default_rng(8)
    seen = []
    for _ in range(120):
        truth = piece.priors * rng.normal(size=len(piece.unknowns))
        shown = piece.shows(truth)[list(looks)]
        sigma = np.array([piece.looks[one].sigma for one in looks])
        values = shown + rng.normal(size=len(looks)) * sigma
        known = known_of(piece, [_taken(a, b) for a, b in zip(looks, values, strict=True)])
        is_so = piece.is_so(truth)
        seen += [(one.value - is_so[i]) / one.sigma for i, one in enumerate(known)]
    assert np.std(seen) == pytest.approx(1, abs=0.15)


def _taken(look: int, value: float):  # type: ignore[no-untyped-def]
    from hardkeel.practice.pieces.knowing import Taken  # noqa: PLC0415

    return Taken(look, float(value))


# -- what it teaches ----------------------------------------------------------------------------------


@pytest.mark.parametrize("kind", KINDS)
def test_the_best_list_tells_it_in_its_minutes_and_who_lacks_the_idea_fails_the_last(
    kind: str,
) -> None:
    for seed in range(6):
        task = task_of(kind, seed)
        best = best_looks(task.piece)
        assert minutes_of(task.piece, best) <= task.minutes
        assert all(one.is_right for one in marked(task, task.taken(best), by_best(task)))
        last = task_of(kind, seed, last=True)
        assert last.story == last.piece.last
        assert all(
            one.is_right for one in marked(last, last.taken(best_looks(last.piece)), by_best(last))
        )
        said = by_belief(last)
        assert any(said[one.check].out != one.is_out for one in last.lines)


@pytest.mark.parametrize("kind", KINDS)
def test_a_number_is_always_the_same_piece_and_another_another(kind: str) -> None:
    one, again, other = task_of(kind, 21), task_of(kind, 21), task_of(kind, 22)
    np.testing.assert_array_equal(one.truth, again.truth)
    assert one.read(0, 2) == again.read(0, 2)
    assert not np.array_equal(one.truth, other.truth)
    assert one.read(0, 0) != one.read(0, 1)  # each reading has its own noise


def test_without_a_reading_a_right_word_is_a_guess() -> None:
    task = task_of("box", 2)
    said = {one.check: Word(out=one.is_out) for one in task.lines}
    assert all(one.guessed and not one.is_right for one in marked(task, (), said))


def test_a_word_the_wrong_way_finds_half_and_tells_what_it_would_leave() -> None:
    task = next(one for one in (task_of("rear", seed) for seed in range(30)) if one.story == "bent")
    bend = task.lines[0]
    lines = marked(task, (), {"bend": Word(out=True, off=-bend.error)})
    assert lines[0].outcome == "half"
    assert lines[0].left == pytest.approx(2 * bend.error)


def test_of_a_kind_that_is_none_that_is_said() -> None:
    with pytest.raises(BadInput, match='has no piece "kite"'):
        task_of("kite", 1)


@pytest.mark.parametrize("kind", KINDS)
def test_every_look_question_and_story_has_its_words(kind: str) -> None:
    piece, words = _piece(kind), say.PIECES[kind]
    assert list(words.looks) == [one.id for one in piece.looks]
    assert list(words.asked) == [one.id for one in piece.asked]
    assert set(words.stories) == set(piece.stories)
    assert {one.tool for one in piece.looks} <= set(say.TOOLS)


# -- what is kept of it -------------------------------------------------------------------------------


def test_two_that_go_well_bring_the_last_one() -> None:
    assert next_course(Book(), NOW) == "print"
    book = Book()
    for seed in (1, 2):
        task = task_of("print", seed)
        taken = task.taken(best_looks(task.piece))
        done = piece_of(task, taken, marked(task, taken, by_best(task)), NOW)
        assert done.well
        book = book.but(done=(*book.done, done))
    due = {one.course: one for one in due_of(book)}
    assert due["print"].is_last
    assert next_course(book, NOW) == "sides"


def test_a_piece_whose_number_is_typed_in_again_counts_once() -> None:
    task, other = task_of("print", 1), task_of("print", 2)
    done = piece_of(task, (), marked(task, (), {}), NOW)
    book = Book(done=(done,))
    assert book.has_told(task)
    assert not book.has_told(other)
    assert not book.has_told(task_of("print", 1, last=True))


def test_blaming_a_piece_for_the_board_is_a_want_of_doubt() -> None:
    task = task_of("tail", 3, last=True)
    said = by_belief(task)
    done = piece_of(task, (), marked(task, (), said), NOW)
    assert skill_now(Book(done=(done,)), "doubting") == pytest.approx(0.5)
