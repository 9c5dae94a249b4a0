"""Squaring a frame: against a second implementation, against cases known by hand, and by counting names."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.fuselage.curing import judge_frame, moves_of
from hardkeel.fuselage.model import Board, Fuselage, Squaring
from hardkeel.fuselage.shaping import name_frame, shape_of_frame
from hardkeel.fuselage.squared_telling import squaring_json
from hardkeel.fuselage.squaring import CHECKED, UNKNOWNS, Squared, frame_survey, square
from hardkeel.messages.square import doubt_sentence, reading_words, squared_lines, what_to_do
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.outliers import Outlier
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import Distance, Gap, Height, Incidence, Offset
from tests.draws import draws
from tests.frames import box
from tests.square_frames import FAULTS, fault_of, frame_on_board, places, read
from tests.squaring_independent import squaring


def stations(fuselage: Fuselage) -> np.ndarray:
    return np.array([former.station for former in fuselage.formers])


@pytest.mark.parametrize("seed", draws([1, 4, 6], list(range(len(FAULTS)))))
def test_random_frames_agree_with_a_second_implementation(seed: int) -> None:
    rng = np.random.default_rng(seed)
    plain = frame_on_board(rng, int(rng.integers(2, 6)), inverted=bool(rng.random() < 0.4))
    truth = fault_of(rng, FAULTS[seed % len(FAULTS)], stations(plain))
    taken = places(plain, rng, share=float(rng.uniform(0.3, 1.0)))
    fuselage = read(plain, truth, taken, rng, blunders=0.05 if seed % 3 == 0 else 0.0)
    if rng.random() < 0.4:
        own = {"yaw": 0.8, "F2_lean": 0.3, "dy": 0.7}
        fuselage = fuselage.but(squaring=fuselage.squaring.but(tolerances=own))  # type: ignore[union-attr]
    if seed in (2, 5):
        sharing = Shared(mark=0.3, gauge=0.2, level=0.1, tape_zero=0.6, tape_stretch=0.001)
        fuselage = fuselage.but(squaring=fuselage.squaring.but(shared=sharing))  # type: ignore[union-attr]
    told: Any = squaring_json(fuselage)
    wanted = squaring(json.loads(text_of(Build(fuselage=fuselage)))["fuselage"])
    shared = fuselage.squaring is not None and fuselage.squaring.shared is not None
    for row, sigma, former in zip(wanted["u"], wanted["sigma"], told["formers"], strict=True):
        assert [former[name] for name in UNKNOWNS] == pytest.approx(row, abs=2e-3)
        assert [former["sigma"][name] for name in UNKNOWNS] == pytest.approx(sigma, rel=2e-3)
    assert [one["reading"] for one in told["suspects"]] == wanted["suspects"]
    for check in told["checks"]:
        value, spread, limit, verdict = wanted["checks"][check["id"]]
        assert (check["value"], check["sigma"]) == pytest.approx((value, spread), abs=2e-3)
        assert (check["tolerance"], check["verdict"]) == (limit, verdict)
        at_edge = verdict == "unsure" and 2 * spread <= limit / 2
        assert check.get("edge", False) == at_edge
    if len(fuselage.formers) > 2:
        for part, value in wanted["shape"].items():
            assert told["shape"][part] == pytest.approx(value, abs=5e-3)
            assert told["shape"]["sigma"][part] == pytest.approx(
                wanted["shape_sigma"][part], rel=5e-3
            )
        assert (told["named"], told["former"]) == (wanted["named"], wanted["former"])
    cure = {one.pop("former"): one for one in (told["cure"] or {"formers": []})["formers"]}
    assert cure.keys() == wanted["parts"].keys()
    for former, given in cure.items():
        assert {kind: -amount for kind, amount in given.items()} == pytest.approx(
            wanted["parts"][former], abs=5e-3
        )
    moves = {one["point"]: [one["dx"], one["dy"], one["dz"]] for one in told["moves"]}
    assert moves.keys() == wanted["moves"].keys()
    for point, move in moves.items():
        # with marks beside their places the wood's corner is moved, not the mark
        assert move == pytest.approx(wanted["moves"][point], abs=0.3 if shared else 5e-3)


def test_marks_stand_where_the_contract_has_them() -> None:
    upright = {mark.id: mark.at for mark in frame_survey(box().but(board=Board(z=-60.0))).marks}
    assert upright["F2.bp"] == (100.0, -27.0, 21.5)
    assert upright["F2.ts"] == (100.0, 27.0, 108.5)
    assert upright["F2.tc"] == (100.0, 0.0, 108.5)
    assert upright["board.F2"] == (100.0, 0.0, 0.0)
    over = {
        mark.id: mark.at
        for mark in frame_survey(box().but(board=Board(z=80.0, inverted=True))).marks
    }
    # upside down the top edge lies 31.5 over the board, starboard is at −y
    assert over["F2.ts"] == (100.0, -27.0, 31.5)
    assert over["F2.bp"] == (100.0, 27.0, 118.5)


def reading(kind: Any, number: int, value: float, **fields: object) -> Any:
    return kind(id=f"q{number}", value=value, **fields)


def squared_with(*readings: Any) -> Squared:
    fuselage = box().but(board=Board(z=-60.0), squaring=Squaring(readings=readings))
    return square(fuselage)


def test_each_unknown_moves_its_marks_as_it_is_called() -> None:
    """One precise set of readings for each: lean is the top aft, roll starboard up, rack the top to starboard."""
    low, high = 21.5, 108.5
    squared = squared_with(
        reading(Incidence, 1, 1.0, body="F2", sigma=1e-4),
        reading(Gap, 2, 0.0, from_="board.F2", to="F2.bc", axis="x", sigma=1e-4),
        reading(Height, 3, low + 0.5, mark="F3.bs", sigma=1e-4),
        reading(Height, 4, low - 0.5, mark="F3.bp", sigma=1e-4),
        reading(Offset, 5, 0.0, mark="F4.bc", sigma=1e-4),
        reading(Offset, 6, 1.0, mark="F4.tc", sigma=1e-4),
        reading(Height, 7, low, mark="F4.bs", sigma=1e-4),
        reading(Height, 8, low, mark="F4.bp", sigma=1e-4),
    )
    at = {name: squared.solution.placed.airframe[row] for name, row in squared.net.index.items()}
    assert squared.unknown("F2", "lean")[0] == pytest.approx(1.0, abs=1e-3)
    assert at["F2.tc"][0] > at["F2.bc"][0] + 1.4  # 87 mm of former leaning a degree
    assert squared.unknown("F3", "roll")[0] == pytest.approx(
        np.degrees(np.arctan(1 / 54)), abs=0.02
    )
    rack = squared.unknown("F4", "rack")[0] - squared.unknown("F4", "roll")[0]
    assert np.radians(rack) * (high - low) == pytest.approx(1.0, abs=0.02)


def test_equal_diagonals_do_not_hide_a_twist() -> None:
    """A box can have equal diagonals in plan and still be twisted: the corner heights tell."""
    rng = np.random.default_rng(4)
    plain = frame_on_board(rng, 6)
    x = stations(plain)
    truth = np.zeros((6, 7))
    truth[:, 3] = np.linspace(-1.5, 1.5, 6)
    fuselage = read(plain, truth, places(plain, rng), rng)
    squared = square(fuselage)
    shape = shape_of_frame(squared)
    assert shape.twist == pytest.approx(3.0 / (x[-1] - x[0]) * 1000, abs=3 * shape.sigma["twist"])
    named = name_frame(squared, Squaring(), shape)
    assert named.name == "twisted"


@pytest.mark.parametrize("kind", FAULTS)
def test_every_fault_gets_its_name(kind: str) -> None:
    right = wrong = 0
    for seed in range(draws(6, 12)):
        rng = np.random.default_rng(seed)
        plain = frame_on_board(rng, 7)
        truth = fault_of(rng, kind, stations(plain), 1.2)
        fuselage = read(plain, truth, places(plain, rng), rng)
        squared = square(fuselage)
        name = name_frame(squared, Squaring(), shape_of_frame(squared)).name
        right += name == kind
        wrong += name not in (kind, "unsure")
    assert wrong == 0
    # that all is well is said only where the readings bear it: half of what is carefully glued
    assert right >= (1 if kind == "true" else draws(4, 9))


def test_moves_bring_every_corner_home() -> None:
    rng = np.random.default_rng(8)
    plain = frame_on_board(rng, 5)
    truth = fault_of(rng, "one-former", stations(plain), 1.5)
    judged = judge_frame(read(plain, truth, places(plain, rng), rng))
    squared = judged.squared
    assert judged.named.name == "one-former"
    assert judged.cure is None
    assert judged.moves
    design = {mark.id: np.array(mark.at) for mark in squared.net.survey.marks}
    for move in judged.moves:
        now = squared.solution.placed.airframe[squared.net.index[move.point]]
        assert [now[0] + move.dx, now[1] + move.dy, now[2] + move.dz] == pytest.approx(
            list(design[move.point])
        )
    moved = {move.former for move in judged.moves}
    for former in squared.formers:
        out = any(check.verdict == "out" for check in squared.checks_on(former))
        assert (former in moved) == out


@pytest.mark.parametrize("kind", ["twisted", "bowed", "racked", "leaning"])
def test_a_whole_that_is_off_is_cured_as_a_whole(kind: str) -> None:
    """What the cure gives each former brings the frame near true, and no former that is within is moved."""
    rng = np.random.default_rng(8)
    plain = frame_on_board(rng, 7)
    truth = fault_of(rng, kind, stations(plain), 1.3)
    judged = judge_frame(read(plain, truth, places(plain, rng), rng))
    assert judged.named.name == kind
    assert judged.cure is not None
    after = truth.copy()
    at = {"dy": 1, "roll": 3, "lean": 4, "yaw": 5}
    for i, (_, given) in enumerate(judged.cure.formers):
        for name, amount in given.items():
            after[i, at[name]] += amount
    column = at[{"twisted": "roll", "bowed": "dy", "racked": "yaw", "leaning": "lean"}[kind]]
    assert np.abs(truth[:, column]).max() > 1.0
    assert np.abs(after[:, column]).max() < 0.6
    assert judged.moves == ()
    said = what_to_do(judged, "mm")
    assert len(said) == 2
    assert "Hold it so" in said[1]


def test_nothing_is_called_true_that_was_not_read() -> None:
    squared_few = judge_frame(
        box().but(
            board=Board(z=-60.0),
            squaring=Squaring(
                readings=(
                    reading(Offset, 1, 4.0, mark="F2.bc", sigma=0.05),
                    reading(Offset, 2, 4.0, mark="F2.tc", sigma=0.05),
                )
            ),
        )
    )
    said = " ".join(squared_lines(squared_few, "mm"))
    assert "true" not in said
    assert "not read yet" in said
    assert "alone" not in said


def test_a_blunder_is_named_and_set_aside() -> None:
    rng = np.random.default_rng(3)
    plain = frame_on_board(rng, 5)
    fuselage = read(plain, np.zeros((5, 7)), places(plain, rng), rng)
    assert fuselage.squaring is not None
    wrong = [r.but(value=r.value + 10) if r.id == "q7" else r for r in fuselage.squaring.figures]
    squared = square(fuselage.but(squaring=Squaring(readings=tuple(wrong))))
    assert [one.reading for one in squared.outliers] == ["q7"]
    said = doubt_sentence(squared, squared.outliers[0], "mm")
    words = reading_words(next(one for one in wrong if one.id == "q7"))
    assert said.lower().startswith(words.lower())
    assert "by +10." in said or "by +9." in said
    others = doubt_sentence(squared, Outlier("q7", 9.0, ("q8",)), "mm")
    assert others.startswith("One of these is wrong, take them again: ")
    assert reading_words(wrong[7]) in others


def test_without_a_reading_nothing_is_known() -> None:
    squared = squared_with()
    assert {check.verdict for check in squared.checks} == {"unsure"}
    assert moves_of(squared, None) == ()
    assert name_frame(squared, Squaring(), shape_of_frame(squared)).name == "unsure"
    assert len(squared.checks) == 5 * len(CHECKED)


def test_a_start_from_nearly_the_same_frame_ends_at_the_same_place() -> None:
    rng = np.random.default_rng(2)
    plain = frame_on_board(rng, 6)
    fuselage = read(plain, fault_of(rng, "bowed", stations(plain)), places(plain, rng), rng)
    first = square(fuselage)
    assert fuselage.squaring is not None
    changed = fuselage.but(
        squaring=Squaring(
            readings=tuple(
                r.but(value=r.value + 0.4) if r.id == "q3" else r for r in fuselage.squaring.figures
            )
        )
    )
    near, far = square(changed, near=first), square(changed)
    assert near.solution.unknowns == pytest.approx(far.solution.unknowns, abs=1e-4)


def test_phases_are_kept_apart() -> None:
    dry = reading(Height, 1, 21.5, mark="F1.bp", phase="dry")
    wet = reading(Height, 2, 23.5, mark="F1.bp", phase="wet")
    fuselage = box().but(board=Board(z=-60.0), squaring=Squaring(readings=(dry, wet)))
    assert [r.id for r in square(fuselage, "dry").readings] == ["q1"]
    assert [r.id for r in square(fuselage, "wet").readings] == ["q2"]
    assert len(square(fuselage).readings) == 2


@pytest.mark.parametrize(
    ("change", "place"),
    [
        ({"board": None}, "fuselage.board: is missing"),
        ({"readings": [{"id": "a", "kind": "height", "mark": "F9.tp", "value": 1.0}]},
         'fuselage.squaring.readings[0].mark: no mark "F9.tp"'),
        ({"readings": [{"id": "a", "kind": "gap", "from": "F1.tp", "to": "F2.tp", "axis": "w", "value": 1.0}]},
         "fuselage.squaring.readings[0]"),
        ({"readings": [{"id": "a", "kind": "incidence", "body": "wing", "value": 1.0}]},
         'fuselage.squaring.readings[0].body: no body "wing"'),
        ({"readings": [{"id": "a", "kind": "height", "mark": "F1.tp", "value": 1.0}] * 2},
         'fuselage.squaring.readings[1].id: "a" is used twice'),
        ({"tolerances": {"yaw": 0.0}}, "fuselage.squaring.tolerances"),
        ({"name": "board"}, 'fuselage.formers[0].id: "board" is the building board'),
    ],
)  # fmt: skip
def test_what_is_wrong_with_a_file_is_one_sentence_with_its_place(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], change: dict[str, object], place: str
) -> None:
    data = json.loads(text_of(Build(fuselage=box().but(board=Board(z=-60.0), squaring=Squaring()))))
    if "board" in change:
        del data["fuselage"]["board"]
    elif "name" in change:
        data["fuselage"]["formers"][0]["id"] = "board"
        data["fuselage"]["sections"] = []
    else:
        data["fuselage"]["squaring"] |= change
    (tmp_path / "a.json").write_text(json.dumps(data))
    assert run_command(["frame", str(tmp_path / "a.json")]) == 2
    out, err = capsys.readouterr()
    assert out == ""
    assert err.count("\n") == 1
    assert place in err


def test_a_gap_is_no_reading_of_the_airframe() -> None:
    text = '{"format": "hardkeel/1", "survey": {"marks": [{"id": "a", "body": "fuselage", "at": [0,0,0]}, {"id": "b", "body": "fuselage", "at": [1,0,0]}], "readings": [{"id": "r", "kind": "gap", "from": "a", "to": "b", "axis": "x", "value": 1}]}}'
    with pytest.raises(BadInput, match=r"survey\.readings\[0\]"):
        build_from_text(text.encode())


def test_squaring_comes_back_from_a_file_as_it_went_in() -> None:
    rng = np.random.default_rng(1)
    plain = frame_on_board(rng, 4)
    fuselage = read(plain, np.zeros((4, 7)), places(plain, rng), rng)
    build = Build(fuselage=fuselage)
    again = build_from_text(text_of(build).encode())
    assert again.fuselage == fuselage
    assert hash(again.fuselage) == hash(fuselage)
    assert isinstance(again.fuselage.squaring.readings[0], Height)  # type: ignore[union-attr]
    assert any(isinstance(r, Distance) for r in again.fuselage.squaring.readings)  # type: ignore[union-attr]
