"""Clicks beside lines on simulated scans: where they settle, and where they rightly do not."""

import math

import numpy as np
import pytest

from hardkeel.paper.line_snapping import Settled, Unsettled, snap_to_line, window_px
from tests.draws import draws
from tests.inked import Drawing, away_from, scanned
from tests.scans import PAPERS, Paper, Scan, meeting_of, scan_of


def across(found: Settled | Unsettled, scan: Scan) -> float | None:
    """Where a click came to lie across the line, mm from it; ``None`` where it stayed."""
    if not isinstance(found, Settled):
        return None
    right, down = found.right / scan.px_per_mm, found.down / scan.px_per_mm
    return right * math.cos(scan.way) + down * math.sin(scan.way) - scan.gap


@pytest.mark.parametrize("dpi", [100, 200, 300, 600])
@pytest.mark.parametrize("paper", PAPERS)
def test_clicks_up_to_eight_tenths_beside_settle_within_a_tenth(paper: Paper, dpi: int) -> None:
    """95 % of them, lines of 0.2 to 0.8 mm, any way on the sheet."""
    rng = np.random.default_rng(dpi + len(paper))
    good, rounds = 0, 20
    for _ in range(rounds):
        width = float(rng.choice([0.2, 0.35, 0.5, 0.8]))
        scan = scan_of(rng, dpi, width, paper, float(rng.uniform(-0.8, 0.8)))
        left = across(snap_to_line(scan.grey, scan.click, scan.px_per_mm), scan)
        good += left is not None and abs(left) <= 0.1
    assert good >= 0.95 * rounds


def test_a_click_is_only_moved_across_its_line() -> None:
    rng = np.random.default_rng(3)
    scan = scan_of(rng, 300, 0.35, "white", 0.5)
    found = snap_to_line(scan.grey, scan.click, scan.px_per_mm)
    assert isinstance(found, Settled)
    assert found.normal is not None
    along = -found.right * math.sin(scan.way) + found.down * math.cos(scan.way)
    assert abs(along) / scan.px_per_mm < 0.05


@pytest.mark.parametrize("gap", [1.0, 1.3, 1.8, 2.5])
def test_of_two_lines_the_nearer_is_taken_or_none(gap: float) -> None:
    rng = np.random.default_rng(int(gap * 10))
    taken, between = 0, 0
    for _ in range(draws(14, 40)):
        dpi, width = int(rng.choice([150, 200, 300, 600])), float(rng.choice([0.2, 0.35, 0.5]))
        off = -float(rng.uniform(0, min(gap / 2, 0.8)))
        scan = scan_of(rng, dpi, width, "white", off, beside=gap)
        found = snap_to_line(scan.grey, scan.click, scan.px_per_mm)
        left = across(found, scan)
        taken += left is not None and abs(left) <= 0.1
        between += found == "between"
        assert left is None or abs(left) <= 0.1, (dpi, width, off)
    assert taken >= draws(9, 28)
    assert taken + between == draws(14, 40)


def test_midway_between_two_lines_nothing_is_taken_and_it_says_so() -> None:
    rng = np.random.default_rng(5)
    scan = scan_of(rng, 300, 0.35, "white", -0.6, beside=1.2)
    assert snap_to_line(scan.grey, scan.click, scan.px_per_mm) == "between"


@pytest.mark.parametrize("paper", ["white", "uneven", "pencil", "blueprint", "jpeg"])
def test_on_bare_paper_nothing_settles(paper: Paper) -> None:
    rng = np.random.default_rng(6)
    for dpi in (100, 300):
        scan = scan_of(rng, dpi, 0.35, paper, 3.9)
        assert snap_to_line(scan.grey, scan.click, scan.px_per_mm) == "nothing"


@pytest.mark.parametrize(("arms", "worst"), [("cross", 0.1), ("tee", 0.15)])
@pytest.mark.parametrize("dpi", [150, 300, 600])
def test_a_meeting_of_lines_is_found_both_ways(arms: str, worst: float, dpi: int) -> None:
    rng = np.random.default_rng(dpi)
    left = []
    for _ in range(draws(8, 20)):
        way, far = rng.uniform(0, 2 * math.pi), rng.uniform(0, 0.6)
        at = (far * math.cos(way), far * math.sin(way))
        scan = meeting_of(rng, dpi, float(rng.choice([0.2, 0.35, 0.5])), arms, at)  # type: ignore[arg-type]
        found = snap_to_line(scan.grey, scan.click, scan.px_per_mm)
        assert isinstance(found, Settled)
        left.append(
            math.hypot(found.right / scan.px_per_mm - at[0], found.down / scan.px_per_mm - at[1])
        )
    assert np.quantile(left, 0.9) <= worst


def test_at_the_edge_of_the_scan_a_line_still_counts() -> None:
    rng = np.random.default_rng(7)
    scan = scan_of(rng, 300, 0.35, "white", 0.4)
    size = scan.grey.shape[0] // 2
    cut = scan.grey[size - 8 :, :]  # the click is 8 pixels from the upper edge
    found = snap_to_line(cut, (scan.click[0], scan.click[1] - (size - 8)), scan.px_per_mm)
    left = across(found, scan)
    assert left is None or abs(left) < 0.12
    assert snap_to_line(np.full((3, 3), 200), (1.5, 1.5), 6.0) == "nothing"
    assert window_px(6.0, 0.9) >= 16


@pytest.mark.parametrize("angle", [40, 55, 70])
@pytest.mark.parametrize("dpi", [150, 300])
def test_a_click_at_a_windscreens_foot_stays_on_its_lines(dpi: int, angle: int) -> None:
    """Beside a corner a line's foot would lie beyond where it ends: up to two thirds of a millimetre off all ink."""
    rng = np.random.default_rng(5)
    scale = dpi / 25.4
    foot, way = np.array([20.0, 20.0]), math.radians(angle)
    line = np.array([(2.0, 20.9), foot, foot + 30 * np.array([math.cos(way), -math.sin(way)])])
    drawn = Drawing((40, 40))
    drawn.line(line)
    grey = scanned(drawn, dpi)
    for _ in range(40):
        click = foot + rng.normal(size=2) * 0.5
        found = snap_to_line(grey, tuple(click * scale), scale, 1.2)
        if not isinstance(found, Settled):
            continue
        place = click + np.array([found.right, found.down]) / scale
        assert away_from(place[None], line, closed=False)[0] < 0.35
