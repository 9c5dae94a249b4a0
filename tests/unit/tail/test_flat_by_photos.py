"""A tail surface on its board by photographs: corners' heights as they are, the board as reference, a fin too."""

import math

import numpy as np
import pytest

from hardkeel.airframe.flat_targets import flat_by_photos, flat_survey
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.tail import take_corners
from hardkeel.export.target_sheet import targets_pdf
from hardkeel.messages.targets import labelled, of_surface
from hardkeel.sight.codes import CodeSeen
from hardkeel.sight.targets import Taken
from hardkeel.tail.flatness import corner_places, flatness_of
from hardkeel.tail.model import TailSurface
from tests.unit.fuselage.test_frame_by_targets import FOCAL, SIZE, camera

# over the board, mm: the starboard tip's leading edge is up by two and a half
HEIGHTS = {
    "port_le": 6.0,
    "port_te": 6.0,
    "mid_le": 6.2,
    "mid_te": 6.2,
    "starboard_le": 8.5,
    "starboard_te": 6.0,
}


def stab() -> TailSurface:
    return demo_build().tail[0].but(flatness=())


def height(surface: TailSurface, x: float, y: float) -> float:
    """Of the wood at a place: straight from middle to tip, straight from leading to trailing edge."""
    places = corner_places(surface)
    side = "port" if y < 0 else "starboard"
    share = abs(y) / abs(places[f"{side}_le"][1])  # type: ignore[index]

    def along(end: str) -> tuple[float, float]:
        (x0, _), (x1, _) = places[f"mid_{end}"], places[f"{side}_{end}"]  # type: ignore[index]
        z0, z1 = HEIGHTS[f"mid_{end}"], HEIGHTS[f"{side}_{end}"]
        return x0 + share * (x1 - x0), z0 + share * (z1 - z0)

    (front, low), (rear, high) = along("le"), along("te")
    return low + (high - low) * (x - front) / (rear - front)


def shots(surface: TailSurface, seed: int) -> list[Taken]:
    rng = np.random.default_rng(seed)
    survey = flat_survey(surface)
    beside = {one.mark: rng.normal(0, (0.2, 0.2, 0.08)) for one in survey.targets}
    found = []
    for number, place in enumerate(((-500.0, -450.0, 620.0), (-500.0, 450.0, 620.0))):
        lens = camera(place, at=(60.0, 0.0, 0.0))
        codes = []
        for target in survey.targets:
            mark = survey.mark(target.mark)
            assert mark is not None
            x, y, z = mark.at
            if not target.mark.startswith("board"):
                z = height(surface, x, y)
            spot = np.array([x, y, z]) + beside[target.mark]
            u, v = lens.project(spot[None], SIZE)[0] + rng.normal(0, 0.08, 2)
            ring = ((u - 20, v - 20), (u + 20, v - 20), (u + 20, v + 20), (u - 20, v + 20))
            codes.append(CodeSeen(target.code, ring))
        found.append(Taken(f"{number}.jpg", f"{number}", SIZE, FOCAL * 1.02, tuple(codes)))
    return found


def test_corners_stand_as_high_as_they_do() -> None:
    surface = stab()
    pulls = []
    for seed in range(6):
        seen = flat_by_photos(surface, shots(surface, seed), "wet")
        assert len(seen.heights) == 6
        for one in seen.heights:
            assert one.phase == "wet"
            assert one.sigma is not None
            assert one.sigma < 0.35
            assert one.value == pytest.approx(HEIGHTS[one.at], abs=4.5 * one.sigma)
            pulls.append((one.value - HEIGHTS[one.at]) / one.sigma)
    assert float(np.sqrt(np.mean(np.square(pulls)))) < 1.3


def test_the_twist_follows_as_from_a_rule() -> None:
    surface = stab()
    build = demo_build()
    seen = flat_by_photos(surface, shots(surface, 2), "dry")
    build = take_corners(build, surface.id, seen.heights)
    build = take_corners(build, surface.id, seen.heights)  # once more: in their place
    kept = next(one for one in build.tail if one.id == surface.id)
    assert len([one for one in kept.flatness if one.phase == "dry"]) == 6
    flat = flatness_of(kept, "dry")
    assert flat is not None
    places = corner_places(surface)
    chord = places["starboard_te"][0] - places["starboard_le"][0]
    assert flat.twist.value == pytest.approx(math.degrees(2.5 / chord), abs=0.5)
    assert flat.twisted


def test_labels_have_words_and_a_sheet_and_a_fin_has_its_own() -> None:
    surface = stab()
    words = dict(labelled(flat_survey(surface), of_surface(upright=False)))
    assert "port tip, leading edge" in words.values()
    assert sum(one.startswith("the board at") for one in words.values()) == 6
    sheet = targets_pdf(flat_survey(surface), 12.0, words=of_surface(upright=False))
    assert sheet.startswith(b"%PDF")
    fin = next(one for one in demo_build().tail if one.upright)
    named = dict(labelled(flat_survey(fin), of_surface(upright=True))).values()
    assert len(named) == 4 + 4
    assert not any("starboard" in one for one in named)  # a fin has a top and a foot
    assert any(one.startswith("top") for one in named)


def test_one_picture_with_too_few_labels_says_nothing() -> None:
    surface = stab()
    shot = shots(surface, 1)[0]
    few = Taken("a.jpg", "a", SIZE, FOCAL, shot.codes[:4])
    seen = flat_by_photos(surface, [few], "dry")
    assert seen.heights == ()
    assert any(one.what == "few" for one in seen.sighted.told)
