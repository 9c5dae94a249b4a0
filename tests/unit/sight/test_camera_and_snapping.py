"""The stand-in camera's picture, and marks found in it."""

import math
from datetime import UTC, datetime
from functools import lru_cache

import numpy as np
import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.sight import add_photo, take_sighting
from hardkeel.fuselage.hull import hull_of
from hardkeel.geometry.rotation import Array
from hardkeel.messages.sight import next_words
from hardkeel.messages.verdicts import format_doubt
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.photographing import camera_for, picture_of, seen_from
from hardkeel.sight.asking import next_picture, open_checks, to_click, worth_a_pin
from hardkeel.sight.pictures import Pixels
from hardkeel.sight.snapping import snap
from hardkeel.sight.viewpoints import Place
from hardkeel.survey.cameras import Camera
from hardkeel.survey.judging import judge_survey

NOON = datetime(2026, 10, 6, 12, tzinfo=UTC)
SIZE = (1600, 1200)
# found by their colour, or by edges that meet at a clear angle before a plain ground
PINS = ("nose_pin", "tail_pin", "deck_pin_port", "deck_pin_starboard", "wing_mid_le", "stab_mid_te")
CORNERS = ("wing_tip_te_port", "stab_tip_te_port", "stab_tip_te_starboard")


@lru_cache(maxsize=2)
def taken(place: Place) -> tuple[Pixels, Camera, dict[str, Array]]:
    build = demo_build()
    hidden = hidden_from(build.surveyed, build.hidden or {})
    rng = np.random.default_rng(3)
    camera = camera_for(hidden, place, rng, SIZE)
    pixels = picture_of(hidden, build.fuselage, camera, rng, SIZE)
    return pixels, camera, seen_from(hidden, build.fuselage, camera)


def at_of(mark: str, place: Place = "behind") -> Array:
    _, camera, seen = taken(place)
    found: Array = camera.project(seen[mark][None], SIZE)[0]
    return found


@pytest.mark.parametrize("mark", [*PINS, *CORNERS])
def test_a_click_near_a_mark_is_snapped_to_it(mark: str) -> None:
    """To 0.7 pixels of where it truly lies, from wherever near it the click was."""
    pixels, _, _ = taken("behind")
    true = at_of(mark)
    rng = np.random.default_rng(1)
    for _ in range(6):
        click = true + rng.normal(size=2)
        found = snap(pixels, (float(click[0]), float(click[1])))
        assert found is not None
        assert math.dist(found.at, true) < 0.7
        assert found.kind == ("pin" if mark in PINS else "corner")


def test_where_there_is_nothing_nothing_is_found() -> None:
    pixels, _, _ = taken("behind")
    assert snap(pixels, (800.0, 60.0)) is None  # the wall
    assert snap(pixels, (1.0, 1.0)) is None
    assert snap(pixels, (-50.0, 5000.0)) is None


def test_the_picture_shows_the_planks_where_the_camera_sees_them() -> None:
    pixels, _, seen = taken("behind")
    assert pixels.shape == (SIZE[1], SIZE[0], 3)
    middle = (at_of("wing_tip_te_port") + at_of("wing_mid_le")) / 2
    r, _, b = pixels[round(middle[1]), round(middle[0])].astype(int)
    assert r - b > 40  # wood
    assert "nose_foot" not in seen  # beneath the hull
    assert {"stab_tip_te_port", "fin_top_te"} <= set(seen)
    _, _, above = taken("above")
    assert "nose_foot" not in above
    assert "longeron_port" in above


def test_the_order_of_clicks_fixes_the_camera_first_and_then_tells_most() -> None:
    build = demo_build()
    walls = hull_of(build.fuselage)
    build = add_photo(build, "photos/p.jpg", SIZE, 1300.0, NOON)
    judged = judge_survey(build.surveyed, "dry")
    first = to_click(judged, "p1", walls=walls)
    body = {mark.id: mark.body for mark in build.surveyed.marks}
    assert [body[mark] for mark in first[:3]] == ["fuselage"] * 3
    assert body[first[4]] != "fuselage"
    assert "nose_foot" not in first[:10]
    _, _, seen = taken("behind")
    for mark in [mark for mark in first if mark in seen][:6]:
        u, v = at_of(mark)
        build = take_sighting(build, "p1", mark, (float(u), float(v)), NOON)
    judged = judge_survey(build.surveyed, "dry")
    assert "p1" in judged.solution.cameras
    left = to_click(judged, "p1", {"fin_top_le"}, walls)
    assert "fin_top_le" not in left
    assert set(left[-3:]) >= {"longeron_port", "longeron_starboard"}  # beneath the wing
    gains = []
    for mark in (left[0], left[8]):
        u, v = at_of(mark)
        more = judge_survey(
            take_sighting(build, "p1", mark, (float(u), float(v)), NOON).surveyed, "dry"
        )
        gains.append(sum(math.log(c.sigma) for c in more.checks))
    assert gains[0] < gains[1]


def test_the_next_picture_sharpens_what_is_least_known_as_it_says() -> None:
    build = demo_build()
    walls = hull_of(build.fuselage)
    judged = judge_survey(build.surveyed, "dry")
    worst = open_checks(judged)[0]
    wanted = next_picture(judged, walls)
    assert wanted is not None
    assert wanted.check == worst.id
    assert wanted.now == worst.sigma
    assert wanted.then < 0.5 * wanted.now
    assert dict(wanted.promised)[wanted.check] == wanted.then
    check = judged.check(wanted.check)
    assert check is not None
    doubt = format_doubt(check, "mm").removeprefix("±")  # as the checks beside it tell theirs
    assert f"± {doubt} becomes ±" in next_words(build.surveyed, judged, wanted, "mm")
    pins = worth_a_pin(judged, wanted)
    assert 1 <= len(pins) <= 3
    assert set(pins) <= set(wanted.view.marks)


def test_the_demos_picture_gives_what_its_other_readings_say() -> None:
    """Clicked where it is snapped, the stabilizer is out by the photo alone as by tape and level."""
    build = demo_build()
    by_others = judge_survey(build.surveyed, "dry").check("stab_roll_to_wing")
    bare = build.but(survey=build.surveyed.but(readings=()))
    bare = add_photo(bare, "photos/p.jpg", SIZE, 0.8125 * SIZE[0], NOON)
    pixels, camera, seen = taken("behind")
    rng = np.random.default_rng(5)
    for mark, place in seen.items():
        click = camera.project(place[None], SIZE)[0] + rng.normal(size=2)
        found = snap(pixels, (float(click[0]), float(click[1])))
        near = found is not None and math.dist(found.at, click) < 2.5
        at = found.at if found is not None and near else (float(click[0]), float(click[1]))
        bare = take_sighting(
            bare, "p1", mark, at, NOON, sigma=found.sigma if found and near else None
        )
    by_photo = judge_survey(bare.surveyed, "dry").check("stab_roll_to_wing")
    assert by_photo is not None
    assert by_others is not None
    assert by_photo.verdict == "out"
    spread = math.hypot(by_photo.sigma, by_others.sigma)
    assert abs(by_photo.value - by_others.value) < 3 * spread
    assert by_photo.value == pytest.approx(0.90, abs=4 * by_photo.sigma)  # as it was made crooked
