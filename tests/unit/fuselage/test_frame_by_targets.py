"""A frame on its board by photographs of printed targets: what is off, what moved while it dried, which label lies wrong."""

import json
import math
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from hardkeel.airframe.frame_targets import frame_targets, laid_frame
from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import rename_former
from hardkeel.edits.squaring import drop_square_targets, lay_square_targets, take_square_photos
from hardkeel.export.frame_story import frame_story
from hardkeel.export.stationery import Paragraph, Styles, register_fonts
from hardkeel.export.target_sheet import targets_pdf
from hardkeel.fuselage.model import Board, Former, Fuselage, Squaring
from hardkeel.fuselage.squared_telling import squaring_json
from hardkeel.fuselage.squaring import check_squaring, movements, square
from hardkeel.messages.square import doubt_sentence
from hardkeel.messages.targets import labelled, of_frame
from hardkeel.project.model import Build
from hardkeel.sight.codes import CodeSeen
from hardkeel.sight.targets import Taken, sighted
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.cameras import Camera
from hardkeel.survey.model import Survey, Target
from hardkeel.survey.readings import Sight

SIZE = (4000, 3000)
FOCAL = 3200.0
NOW = datetime(2026, 10, 5, 19, 0, tzinfo=UTC)


def frame(**squaring: Any) -> Fuselage:
    formers = tuple(
        Former(id=f"F{i + 1}", station=100.0 * i, half_width=30.0 - 2 * i, top=45.0, bottom=-40.0)
        for i in range(5)
    )
    return Fuselage(
        side_thickness=3.0, formers=formers, board=Board(z=-70.0), squaring=Squaring(**squaring)
    )


def crooked(survey: Survey, off: dict[str, tuple[float, float, float]]) -> dict[str, np.ndarray]:
    """Where marks really are: each former turned about its foot's middle by roll and yaw, shifted by dy, mm and degrees."""
    found = {}
    for mark in survey.marks:
        at = np.array(mark.at)
        if mark.body in off:
            dy, roll, yaw = off[mark.body]
            body = survey.body(mark.body)
            assert body is not None
            pivot = np.array(body.origin)
            r, w = math.radians(roll), math.radians(yaw)
            about_x = np.array([[1, 0, 0], [0, math.cos(r), -math.sin(r)], [0, math.sin(r), math.cos(r)]])  # fmt: skip
            about_z = np.array([[math.cos(w), -math.sin(w), 0], [math.sin(w), math.cos(w), 0], [0, 0, 1]])  # fmt: skip
            at = pivot + about_z @ about_x @ (at - pivot) + (0.0, dy, 0.0)
        found[mark.id] = at
    return found


def camera(
    place: tuple[float, float, float], at: tuple[float, float, float] = (200.0, 0.0, 60.0)
) -> Camera:
    """At a place, looking at another; mm."""
    forward = (np.array(at) - place) / np.linalg.norm(np.array(at) - np.array(place))
    right = np.cross(forward, (0.0, 0.0, 1.0) if abs(forward[2]) < 0.95 else (1.0, 0.0, 0.0))
    right /= np.linalg.norm(right)
    return Camera(np.array(place), np.array([right, np.cross(forward, right), forward]), math.log(FOCAL), -0.01)  # fmt: skip


def taken(
    survey: Survey,
    where: dict[str, np.ndarray],
    place: tuple[float, float, float],
    name: str,
    rng: np.random.Generator,
    beside: dict[str, np.ndarray],
) -> Taken:
    """A picture of all targets that face it."""
    lens = camera(place)
    codes = []
    for target in survey.targets:
        spot = where[target.mark] + beside[target.mark]
        normal = np.array(survey.normal_of(target))
        way = lens.place - spot
        if way @ normal < 0.35 * np.linalg.norm(way):
            continue
        u, v = lens.project(spot[None], SIZE)[0] + rng.normal(0, 0.08, 2)
        if not (0 < u < SIZE[0] and 0 < v < SIZE[1]):
            continue
        corners = ((u - 20, v - 20), (u + 20, v - 20), (u + 20, v + 20), (u - 20, v + 20))
        codes.append(CodeSeen(target.code, corners))
    return Taken(name, f"photos/{name}", SIZE, FOCAL * 1.02, tuple(codes))


def shots(
    survey: Survey, off: dict[str, tuple[float, float, float]], seed: int, first: str = "a"
) -> list[Taken]:
    """Both from starboard, one before the frame and one behind it, 45 degrees up."""
    rng = np.random.default_rng(seed)
    where = crooked(survey, off)
    labels = np.random.default_rng(seed + 1000)
    beside = {one.mark: labels.normal(0, (0.2, 0.2, 0.1)) for one in survey.targets}
    return [
        taken(survey, where, (-200.0, 450.0, 600.0), f"{first}1.jpg", rng, beside),
        taken(survey, where, (600.0, 450.0, 600.0), f"{first}2.jpg", rng, beside),
    ]


def of(pictures: list[Taken], phase: Any = None) -> Build:
    build = lay_square_targets(Build(name="frame", fuselage=frame()))
    return take_square_photos(build, pictures, phase, NOW)


OFF = {"F2": (0.0, 1.5, 0.0), "F4": (1.2, 0.0, 1.8)}


def test_what_is_off_is_found_from_two_pictures() -> None:
    survey = laid_frame(frame())
    pulls = []
    for seed in range(6):
        fuselage = of(shots(survey, OFF, seed)).fuselage
        assert fuselage is not None
        squared = square(fuselage)
        for former in squared.formers:
            dy, roll, yaw = OFF.get(former, (0.0, 0.0, 0.0))
            for name, true in (("dy", dy), ("roll", roll), ("yaw", yaw)):
                value, sigma = squared.unknown(former, name)
                assert abs(value - true) < 4.5 * sigma, (former, name)
                assert sigma < {"dy": 0.3, "roll": 0.3, "yaw": 0.7}[name]
                pulls.append((value - true) / sigma)
    assert 0.6 < float(np.sqrt(np.mean(np.square(pulls)))) < 1.3


def test_what_moved_while_it_dried_is_named() -> None:
    survey = laid_frame(frame())
    wet = of(shots(survey, {}, 3), "wet")
    assert wet.fuselage is not None
    later = measured_again(wet, shots(survey, {"F3": (1.5, 0.0, 0.0)}, 3, "b"))
    assert later.fuselage is not None
    moved = movements(square(later.fuselage, "wet"), square(later.fuselage, "cured"))
    assert moved
    assert (moved[0].former, moved[0].kind) == ("F3", "dy")
    assert moved[0].amount == pytest.approx(1.5, abs=0.5)


def measured_again(build: Build, pictures: list[Taken]) -> Build:
    return take_square_photos(build, pictures, "cured", NOW)


def test_a_label_on_another_corner_is_told_and_not_used() -> None:
    survey = laid_frame(frame())
    a, b = (next(one.code for one in survey.targets if one.mark == mark) for mark in ("F1.tp", "F3.ts"))  # fmt: skip

    def swapped(shot: Taken) -> Taken:
        codes = tuple(
            CodeSeen({a: b, b: a}.get(one.code, one.code), one.corners) for one in shot.codes
        )
        return Taken(shot.name, shot.image, shot.size, shot.focal, codes)

    pictures = [swapped(one) for one in shots(survey, {}, 5)]
    seen = sighted(survey, pictures)
    assert {one.code for one in seen.told if one.what == "wrong"} == {a, b}
    fuselage = of(pictures).fuselage
    assert fuselage is not None
    value, sigma = square(fuselage).unknown("F1", "roll")
    assert abs(value) < 4.5 * sigma


def aside(one: CodeSeen) -> CodeSeen:
    a, b, c, d = ((u + 25.0, v) for u, v in one.corners)
    return CodeSeen(one.code, (a, b, c, d))


def test_one_that_has_come_loose_in_a_picture_is_set_aside_in_words() -> None:
    survey = laid_frame(frame())
    pictures = shots(survey, {}, 8)
    code = next(one.code for one in survey.targets if one.mark == "F2.ts")
    moved = tuple(aside(one) if one.code == code else one for one in pictures[0].codes)
    pictures[0] = Taken("a1.jpg", "photos/a1.jpg", SIZE, FOCAL, moved)
    fuselage = of(pictures).fuselage
    assert fuselage is not None
    squared = square(fuselage)
    assert squared.outliers
    said = doubt_sentence(squared, squared.outliers[0], "mm")
    assert "he target on F2 top starboard" in said


def test_the_record_tells_of_a_frame_that_no_hand_has_read() -> None:
    build = of(shots(laid_frame(frame()), OFF, 1))
    register_fonts()
    story = frame_story(build, "mm", Styles())
    texts = [one.text for one in story if isinstance(one, Paragraph)]
    assert any(text.startswith("2 photographs of targets: ") for text in texts)
    assert "Square" in texts
    assert "Readings of the frame" not in texts


def test_the_file_keeps_all_of_it_and_the_json_tells_it() -> None:
    build = of(shots(laid_frame(frame()), OFF, 1))
    again = build_from_text(text_of(build))
    assert again.fuselage == build.fuselage
    assert again.fuselage is not None
    told: Any = json.loads(json.dumps(squaring_json(again.fuselage)))
    assert [one["used"] for one in told["photos"]] == [True, True]
    assert told["photos"][0]["place"] == pytest.approx([-200.0, 450.0, 600.0], abs=60)
    assert sum(one["used"] for one in told["readings"]) >= 25
    renamed = rename_former(again, "F2", "bulkhead")
    assert renamed.fuselage is not None
    marks = {one.mark for one in renamed.fuselage.squaring.targets}  # type: ignore[union-attr]
    assert "bulkhead.tp" in marks
    check_squaring(renamed.fuselage)
    bare = drop_square_targets(again)
    assert bare.fuselage is not None
    assert bare.fuselage.squaring == Squaring(shared=again.fuselage.squaring.shared)  # type: ignore[union-attr]


def test_targets_for_a_frame_have_words_and_a_sheet() -> None:
    survey = laid_frame(frame())
    words = dict(labelled(survey, of_frame()))
    assert words[0].startswith("the board at x 0")
    assert "F3 top port" in words.values()
    assert targets_pdf(survey, 12.0, words=of_frame()).startswith(b"%PDF")
    assert len(frame_targets(frame())) == 6 + 15


@pytest.mark.parametrize(
    ("targets", "said"),
    [
        ((Target(code=1, mark="F9.tp"),), r"fuselage\.squaring\.targets\[0\]\.mark: no mark"),
        ((Target(code=1, mark="F1.tp"), Target(code=1, mark="F2.tp")), "1 is used twice"),
        ((Target(code=1, mark="board.x.y"),), "no mark"),
    ],
)
def test_targets_that_point_at_nothing_are_refused(targets: Any, said: str) -> None:
    with pytest.raises(BadInput, match=said):
        check_squaring(frame(targets=targets))


def test_a_sighting_of_no_photo_is_refused_with_its_place() -> None:
    wrong = Sight(id="s", photo="p1", mark="F1.tp", value=(3.0, 4.0))
    with pytest.raises(BadInput, match=r'readings\[0\]\.photo: no photo "p1"'):
        check_squaring(frame(readings=(wrong,)))


def test_the_board_alone_is_the_reference(tmp_path: Path) -> None:
    """Fewer than three of its points, or three in a line, and the photo is not used."""
    survey = laid_frame(frame())
    few = survey.but(
        targets=tuple(
            one
            for one in survey.targets
            if not one.mark.startswith("board.") or ".-" not in one.mark
        )
    )
    build = of(shots(few, {}, 2))
    assert build.fuselage is not None
    told: Any = squaring_json(build.fuselage)
    assert [one["used"] for one in told["photos"]] == [False, False]
