"""Off a sheet: hinge line and ribs of a surface, and a section that is drawn by itself."""

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import off_the_desk
from hardkeel.edits import paper as paper_edits
from hardkeel.edits import tail as edits
from hardkeel.messages.tail import surface_read_words
from hardkeel.paper.model import KnownLength, Plan, Trace
from hardkeel.project.model import Build
from hardkeel.tail.lofting import section_named
from hardkeel.tail.sections import read_section
from hardkeel.tail.tracing import section_text

HALF = np.array([(0, 0), (14, 150), (30, 195), (60, 200), (90, 180), (112, 0)], dtype=float)
RIBS = np.array([(50.0, y) for y in (0.0, 40.0, 80.5, 121.0, 160.0)])


def hinge_at(share: float) -> np.ndarray:
    """A hinge line at a constant share of the chord, from the root to three quarters of the half."""
    return np.array([(share * 112, 0.0), (14 + share * (93.67 - 14), 150.0)])


def on_desk(sideways: bool, *, ribs: np.ndarray = RIBS, hinge: np.ndarray | None = None) -> Build:
    """The half on a sheet at four pixels a millimetre, its hinge line and ribs clicked."""
    line = hinge_at(0.62) if hinge is None else hinge

    def pixels(points: np.ndarray) -> tuple[tuple[float, float], ...]:
        turned = np.column_stack([points[:, 1], -points[:, 0]]) if sideways else points
        return tuple((float(900 + 4 * x), float(900 - 4 * y)) for x, y in turned)

    traces = (
        Trace(id="outline", kind="outline", pixels=pixels(HALF), followed="round"),
        Trace(id="hinge", kind="hinge", pixels=pixels(line), followed="open"),
        Trace(id="ribs", kind="ribs", pixels=pixels(ribs)),
    )
    lengths = (
        KnownLength(a=(0.0, 0.0), b=(400.0, 0.0), length=100.0, along="x"),
        KnownLength(a=(0.0, 0.0), b=(0.0, 400.0), length=100.0, along="y"),
    )
    plan = Plan(id="tail", image="plans/t.png", lengths=lengths, traces=traces)
    return demo_build().but(plans=(plan,))


@pytest.mark.parametrize("sideways", [False, True])
def test_a_surface_comes_off_the_desk_with_its_hinge_line_and_ribs(sideways: bool) -> None:
    made = off_the_desk.surface_from_desk(on_desk(sideways), "stab", "tail")
    surface = edits.surface_of(made, "stab")
    assert surface.span == pytest.approx(400.0, abs=0.01)
    assert surface.hinge_at_chord == pytest.approx(0.62, abs=0.002)
    assert surface.ribs == pytest.approx((0.0, 40.0, 80.5, 121.0, 160.0), abs=0.01)
    assert made.plans[0].traces == ()  # the next surface's clicks begin anew


def test_a_hinge_line_that_runs_off_its_share_is_told() -> None:
    slanting = np.array([(0.60 * 112, 0.0), (14 + 0.66 * (93.67 - 14), 150.0)])
    read = off_the_desk.read_surface(on_desk(sideways=True, hinge=slanting), "stab", "tail")
    assert read.hinge is not None
    told = surface_read_words(read.lying, read.hinge)
    assert "60% and 66%" in told
    assert "63% was taken" in told
    assert "leading edge was taken to be up" in told
    straight = off_the_desk.read_surface(on_desk(sideways=False), "stab", "tail")
    assert surface_read_words(straight.lying, straight.hinge) == ""


def test_what_lies_beside_the_surface_is_told() -> None:
    far = np.array([(50.0, 40.0), (50.0, 260.0)])
    with pytest.raises(BadInput, match="260 mm lies beyond the tip"):
        off_the_desk.surface_from_desk(on_desk(sideways=False, ribs=far), "stab", "tail")
    beside = np.array([(160.0, 0.0), (170.0, 150.0)])
    with pytest.raises(BadInput, match="hinge line does not lie on this surface"):
        off_the_desk.surface_from_desk(on_desk(sideways=False, hinge=beside), "stab", "tail")
    with pytest.raises(BadInput, match="no plan"):
        paper_edits.plan_named(demo_build(), "lost")


def ring_of(chord: float, turn: float, *, mirrored: bool) -> tuple[tuple[float, float], ...]:
    """A section that comes with the app, drawn at a size, a turn, and looking either way."""
    section = section_named("0012", {}, "")
    x = (1 - np.cos(np.linspace(0, np.pi, 40))) / 2
    upper, lower = section.heights(x)
    points = np.concatenate(
        [np.column_stack([x, 1.2 * upper]), np.column_stack([x, 0.8 * lower])[::-1][1:-1]]
    )
    if mirrored:
        points = points * (-1, 1)
    cos, sin = np.cos(turn), np.sin(turn)
    points = chord * points @ np.array([[cos, sin], [-sin, cos]]) + (40.0, 70.0)
    return tuple((float(a), float(b)) for a, b in points)


@pytest.mark.parametrize("mirrored", [False, True])
@pytest.mark.parametrize("turn", [0.0, 0.06, -0.1])
def test_a_section_is_read_off_its_outline(turn: float, mirrored: bool) -> None:
    text = section_text(ring_of(180.0, turn, mirrored=mirrored), "made up")
    got, want = read_section(text, "made up"), section_named("0012", {}, "")
    at = np.linspace(0.02, 0.98, 25)
    upper, lower = got.heights(at)
    true_upper, true_lower = want.heights(at)
    assert upper == pytest.approx(1.2 * true_upper, abs=0.004)
    assert lower == pytest.approx(0.8 * true_lower, abs=0.004)


def test_a_former_is_no_section() -> None:
    with pytest.raises(BadInput, match="no section"):
        section_text(((0, 0), (60, 0), (60, 80), (0, 80)), "box")
