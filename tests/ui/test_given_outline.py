"""An outline off the sheet: its corners joined, what it changed shown, how high it stands asked."""

from collections.abc import Callable

import numpy as np
import pytest
from PyQt6.QtCore import QPointF
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import give_outline, stand_former
from hardkeel.edits.paper import add_plan
from hardkeel.fuselage.contours import contour_of
from hardkeel.fuselage.model import Former
from hardkeel.paper.model import KnownLength, Plan, Trace
from hardkeel.project.model import Build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.paper_page import PaperPage
from hardkeel.ui.stages.layout.scan_marks import ScanMark
from hardkeel.ui.stages.layout.scan_view import ScanView
from hardkeel.ui.theme import make_theme
from tests.stages_of import layout_of
from tests.ui.test_paper_desk import picture

CORNERS = ((100.0, 100.0), (160.0, 100.0), (160.0, 190.0), (130.0, 200.0), (100.0, 190.0))


def with_outline() -> Build:
    """The demo with a former's outline clicked at 1 px/mm, 60 mm wide and 100 high."""
    plan = Plan(
        id="former",
        image="plans/former.png",
        lengths=(
            KnownLength(a=(0.0, 300.0), b=(100.0, 300.0), length=100.0),
            KnownLength(a=(0.0, 300.0), b=(0.0, 200.0), length=100.0),
        ),
        traces=(Trace(id="clicked", kind="outline", pixels=CORNERS),),
    )
    return add_plan(demo_build(), plan)


def former_of(build: Build, name: str) -> Former:
    assert build.fuselage is not None
    found = build.fuselage.former(name)
    assert found is not None
    return found


@pytest.fixture
def page(make_window: Callable[[], MainWindow]) -> PaperPage:
    window = make_window()
    window.start(with_outline())
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    return layout_of(window).paper


def test_what_changed_is_shown_and_gone_with_an_undo(page: PaperPage) -> None:
    before = former_of(page.document.build, "F3")
    assert not page.given.isVisible()
    assert page.give_outline("F3")
    after = former_of(page.document.build, "F3")
    assert page.given.isVisible()
    said = page.given.says.text()
    assert said.startswith("F3: ")
    assert f"was {2 * before.half_width:.1f} mm" in said
    assert f"{after.top - after.bottom:.1f} mm high" in said
    page.document.stack.undo()
    assert not page.given.isVisible()


def test_how_high_its_foot_stands_is_asked_and_the_outline_goes_along(page: PaperPage) -> None:
    page.give_outline("F3")
    before = former_of(page.document.build, "F3")
    assert page.given.foot.value == pytest.approx(before.bottom)
    page.given.foot.line.setText("-44.5")
    page.given.foot.take()
    after = former_of(page.document.build, "F3")
    assert after.bottom == pytest.approx(-44.5)
    assert page.given.isVisible()
    moved = contour_of(after)
    still = contour_of(before)
    assert max(abs(a[0] - b[0]) for a, b in zip(moved, still, strict=True)) < 1e-9
    lifts = [a[1] - b[1] for a, b in zip(moved, still, strict=True)]
    assert max(lifts) == pytest.approx(min(lifts))
    assert lifts[0] == pytest.approx(after.bottom - before.bottom)


def test_a_former_stands_elsewhere_whole_and_comes_back() -> None:
    build = give_outline(demo_build(), "F4", [(-20.0, 0.0), (20.0, 0.0), (0.0, 50.0)])
    there = stand_former(build, "F4", -70.0)
    assert former_of(there, "F4").top == pytest.approx(-20.0)
    back = stand_former(there, "F4", former_of(build, "F4").bottom)
    was, now = former_of(build, "F4"), former_of(back, "F4")
    assert np.allclose(contour_of(now), contour_of(was))
    assert former_of(back, "F4").cutouts == was.cutouts


def test_corners_that_were_clicked_are_joined(qtbot: QtBot) -> None:
    view = ScanView(make_theme("light"))
    qtbot.addWidget(view)
    view.resize(500, 400)
    view.show_image(picture(255))
    view.show()
    between = [QPointF(*CORNERS[0]), QPointF(*CORNERS[1])]

    def darkest() -> int:
        at = view.on_widget((between[0].x() + between[1].x()) / 2, between[0].y())
        image = view.grab().toImage()
        near = [
            image.pixelColor(round(at.x()) + dx, round(at.y()) + dy).red()
            for dx in (-1, 0, 1)
            for dy in (-1, 0, 1)
        ]
        return min(near)

    bare = darkest()
    view.show_marks((ScanMark("outline", CORNERS, active=True),))
    assert darkest() < bare - 60
