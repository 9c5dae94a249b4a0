"""Following a line's ink, held against drawings whose places are known exactly."""

import math
from itertools import pairwise

import numpy as np
import pytest
from shapely import Polygon

from hardkeel.paper.following import (
    Traced,
    cut_at,
    draw_over,
    follow,
    follow_on,
    follow_straight,
    on_it,
)
from hardkeel.paper.ink import Ink
from hardkeel.paper.ink_following import Heading
from hardkeel.paper.outline_shapes import mirrored_at
from tests.inked import Drawing, Ring, away_from, rounded_box, scanned, superellipse

RINGS = {
    "oval": superellipse(60, 60, 30, 40),
    "boxy oval": superellipse(60, 60, 28, 40, 3.2),
    "box": rounded_box(60, 60, 30, 36),
    "rounded box": rounded_box(60, 60, 30, 36, 6),
    "bevelled": np.array(
        [(30, 30), (36, 24), (84, 24), (90, 30), (90, 90), (70, 96), (50, 96), (30, 90.0)]
    ),
}
ALONG = Heading(0.0, math.radians(76))


def crowded(ring: Ring) -> Drawing:
    """An outline with all that crosses one on a plan: axes, stringers, dimensions, lettering, a line askew."""
    drawn = Drawing((120, 120))
    drawn.ring(ring)
    drawn.line([(60, 5), (60, 115)], 0.2)
    drawn.line([(5, 62), (115, 62)], 0.2)
    drawn.line([(20, 108), (100, 108)], 0.18)
    for x in (ring[:, 0].min(), ring[:, 0].max()):
        drawn.line([(x, 64), (x, 112)], 0.18)
    drawn.line([(30, 10), (105, 100)], 0.15)
    drawn.words(70, float(ring[:, 1].min()) - 0.2)
    for k in range(3):
        drawn.line([(5, 40 + 9 * k), (115, 40 + 9 * k)], 0.25)
    return drawn


def dense(ring: Ring) -> Ring:
    ends = np.concatenate([ring, ring[:1]])
    share = np.linspace(0, 1, 20, endpoint=False)[:, None]
    return np.concatenate([a + (b - a) * share for a, b in pairwise(ends)])


@pytest.mark.parametrize("name", RINGS)
@pytest.mark.parametrize("dpi", [150, 300])
def test_one_click_follows_an_outline_all_round(name: str, dpi: int) -> None:
    ring, scale = RINGS[name], dpi / 25.4
    ink = Ink(scanned(crowded(ring), dpi, shade=40), scale)
    for k in (0, len(ring) // 3, (2 * len(ring)) // 3):
        click = ring[k] * 0.4 + ring[(k + 1) % len(ring)] * 0.6
        found = follow(ink, tuple(click * scale), None)
        assert found is not None
        assert found.closed
        points = np.array(found.points) / scale
        limit = 0.12
        assert np.quantile(away_from(dense(points), ring), 0.95) < limit
        around = np.concatenate([points, points[:1]])
        back = away_from(dense(ring), around, closed=False)
        assert np.quantile(back, 0.95) < limit
        assert back.max() < 0.4


def side(*, fold: float = 0.0) -> tuple[Drawing, Ring, Ring]:
    """A cabin's side view: the top with its windscreen, the bottom, formers, datum; a white fold at 200."""
    back = [(150.0 + x, 28 + (x / 150) ** 2 * 20) for x in range(2, 151, 2)]
    top = np.array([(20, 60), (80, 55), (105, 30), (150, 28), *back], dtype=float)
    bottom = np.array([(x, 80 + 8 * math.sin((x - 20) / 280 * 3.1)) for x in range(20, 301, 4)])
    drawn = Drawing((320, 120))
    if fold:
        for line in (top, bottom):
            fine = np.column_stack(
                [np.linspace(20, 300, 2801), np.interp(np.linspace(20, 300, 2801), *line.T)]
            )
            fine = np.unique(np.concatenate([fine, line]), axis=0)
            drawn.line(fine[fine[:, 0] < 200])
            drawn.line(fine[fine[:, 0] > 200 + fold])
    else:
        drawn.line(top)
        drawn.line(bottom)
    drawn.line([(20, 60), (20, 80)])
    drawn.line([(300, top[-1, 1]), (300, bottom[-1, 1])])
    drawn.line([(5, 66), (315, 66)], 0.2)
    for x in (50, 80, 105, 150, 240):
        drawn.line([(x, 20), (x, 95)], 0.2)
    return drawn, top, bottom


@pytest.mark.parametrize("fold", [0.0, 1.0])
@pytest.mark.parametrize("at", [30, 93, 180, 260])
def test_a_fuselages_line_is_followed_from_nose_to_tail(fold: float, at: int) -> None:
    drawn, top, bottom = side(fold=fold)
    scale = 200 / 25.4
    ink = Ink(scanned(drawn, 200), scale)
    for line in (top, bottom):
        click = (at * scale, float(np.interp(at, *line.T)) * scale)
        found = follow(ink, click, ALONG)
        assert found is not None
        assert not found.closed
        points = np.array(found.points) / scale
        assert points[:, 0].min() == pytest.approx(20, abs=0.5)
        assert points[:, 0].max() == pytest.approx(300, abs=0.5)
        assert np.quantile(away_from(points, line, closed=False), 0.95) < 0.15
        foot = np.array([[80.0, 55.0]])
        if line is top:  # the corner at the windscreen's foot is kept
            assert away_from(foot, points, closed=False)[0] < 0.12


def test_a_hinge_line_is_not_followed_round_the_corner_onto_the_outline() -> None:
    drawn = Drawing((240, 130))
    drawn.ring(np.array([(20, 20), (220, 30), (215, 100), (20, 110.0)]))
    drawn.line([(20, 82), (216, 78)], 0.3)
    for x in (60, 100, 140, 180):
        drawn.line([(x, 24), (x, 106)], 0.25)
    scale = 200 / 25.4
    found = follow_straight(
        Ink(scanned(drawn, 200), scale), (120 * scale, (82 - 4 * 100 / 196) * scale)
    )
    assert found is not None
    points = np.array(found.points) / scale
    assert away_from(points, np.array([(20, 82), (216, 78.0)]), closed=False).max() < 0.3
    assert np.ptp(points[:, 0]) > 185


def test_where_there_is_no_line_nothing_is_followed() -> None:
    ink = Ink(scanned(side()[0], 150), 150 / 25.4)
    assert follow(ink, (1500.0, 650.0), None) is None
    assert follow(ink, (-5.0, 3.0), None) is None


def test_a_line_that_ended_is_gone_on_with_from_a_click_further_along() -> None:
    ring = superellipse(60, 60, 30, 40)
    drawn = Drawing((120, 120))
    drawn.line(ring[20:340])
    drawn.line(ring[352:700])
    scale = 200 / 25.4
    ink = Ink(scanned(drawn, 200), scale)
    begun = follow(ink, tuple(ring[180] * scale), None)
    assert begun is not None
    assert not begun.closed
    on = follow_on(ink, begun, tuple(ring[520] * scale))
    points = np.array(on.points) / scale
    assert np.quantile(away_from(points, ring), 0.95) < 0.15
    assert away_from(ring[30:690], points, closed=False).max() < 0.6


def test_a_line_that_went_astray_is_pulled_back_onto_its_ink() -> None:
    ring, scale = superellipse(60, 60, 30, 40), 200 / 25.4
    ink = Ink(scanned(crowded(ring), 200), scale)
    right = follow(ink, tuple(ring[100] * scale), None)
    assert right is not None
    points = np.array(right.points) / scale
    bulge = np.exp(-(((points[:, 1] - 55) / 5) ** 2)) * (points[:, 0] > 60) * 7
    wrong = Traced(
        tuple(
            (float(x), float(y)) for x, y in (points + np.column_stack([bulge, 0 * bulge])) * scale
        ),
        closed=True,
    )
    assert away_from(np.array(wrong.points) / scale, ring).max() > 6
    grabbed = (97.0 * scale, 55.0 * scale)
    made = draw_over(
        ink,
        wrong,
        grabbed,
        tuple(ring[np.argmin(np.abs(ring[:180, 1] - 55)) if ring[0, 0] > 60 else 0] * scale),
    )
    off = away_from(np.array(made.points) / scale, ring)
    assert np.quantile(off, 0.95) < 0.3
    assert off.max() < 1.5
    assert made.closed


def test_a_click_on_a_followed_line_is_told_from_one_beside_it() -> None:
    traced = Traced(((0.0, 0.0), (100.0, 0.0), (100.0, 50.0)), closed=True)
    assert on_it(traced, (50.0, 2.0), 3.0)
    assert on_it(traced, (50.0, 25.0), 3.0)  # the side that closes it
    assert not on_it(traced, (20.0, 40.0), 3.0)


def test_halves_of_two_formers_that_run_into_each_other_are_cut_at_their_centre_line() -> None:
    """Fore formers on the left, aft ones on the right of one centre line, both as high: the ink goes on across it."""
    left, right = superellipse(60, 60, 30, 40), superellipse(60, 60, 22, 40, 2.4)
    drawn = Drawing((120, 120))
    drawn.line(left[180:541], 0.35)
    drawn.line(np.concatenate([right[540:], right[:181]]), 0.35)
    drawn.line([(60, 5), (60, 115)], 0.2)
    scale = 200 / 25.4
    ink = Ink(scanned(drawn, 200), scale)
    click = (float(left[360, 0] * scale), float(left[360, 1] * scale))
    found = follow(ink, click, None)
    assert found is not None
    cut = cut_at(found, click, (60 * scale, 0.0), (60 * scale, 100.0))
    points = np.array(cut.points) / scale
    assert not cut.closed
    assert points[:, 0].max() < 60.1
    assert np.quantile(away_from(points, left), 0.95) < 0.12
    assert points[[0, -1], 0] == pytest.approx([60, 60], abs=0.01)
    whole = mirrored_at(points, 60.0)
    assert np.quantile(away_from(whole, left), 0.95) < 0.12


def test_a_stub_along_the_centre_line_is_none_of_a_half() -> None:
    half = superellipse(0, 0, 20, 30)[270:451:6] * (-1, 1)
    half = half[half[:, 0] > 0.5]
    stubbed = np.concatenate(
        [[(0.05, half[0, 1] - 4), (-0.04, half[0, 1])], half, [(0.0, half[-1, 1])]]
    )
    made = mirrored_at(stubbed, 0.0)
    assert np.ptp(made[:, 1]) == pytest.approx(np.ptp(half[:, 1]), abs=0.3)
    assert Polygon(made).is_valid
