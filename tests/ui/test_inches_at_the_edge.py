"""Inches wherever they are chosen: what is typed, what is refused, and what stays typed when the unit is changed."""

import pytest
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.base.units import parse_angle, parse_length
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.surfaces import set_wing
from hardkeel.edits.tail import set_figures
from hardkeel.messages.airframe import CUT_OUT_LIKE, read_cutouts
from hardkeel.messages.faults import told
from hardkeel.ui.widgets.fields import QuantityEdit


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("1'-6\"", 457.2),
        ("1' 6\"", 457.2),
        ("1'-6 1/2\"", 469.9),
        ("5 thou", 0.127),
        ("40 mil", 1.016),
        ("½", 12.7),
        ('1½"', 38.1),
    ],
)
def test_lengths_as_they_are_written(text: str, mm: float) -> None:
    assert parse_length(text).mm == pytest.approx(mm)


@pytest.mark.parametrize(
    ("text", "degrees"),
    [
        ("2°15'30\"", 2.258333),
        ("-1°30'", -1.5),
        ("½°", 0.5),
        ("2½", 2.5),
        ("2 1/2°", 2.5),
        ("1/4", 0.25),
        ("−0.3", -0.3),
        ("2.1 deg", 2.1),
    ],
)
def test_angles_as_they_are_written(text: str, degrees: float) -> None:
    assert parse_angle(text) == pytest.approx(degrees, abs=1e-6)


@pytest.mark.parametrize("text", ["", "°", "1/0", "2 3", "1/2/3", "abc", "200"])
def test_what_is_no_angle_is_refused(text: str) -> None:
    with pytest.raises(BadInput):
        parse_angle(text)


def fault_of(edit: object) -> BadInput:
    with pytest.raises(BadInput) as found:
        edit()  # type: ignore[operator]
    return found.value


def test_what_is_refused_is_told_in_words_and_in_the_builders_unit() -> None:
    build = demo_build()
    hinge = fault_of(lambda: set_figures(build, "stab", hinge_at_chord=1.2))
    assert told(hinge, "in") == "the hinge's share of the chord must be less than 1, not 1.2"
    span = fault_of(lambda: set_figures(build, "stab", span=-76.2))
    assert told(span, "in") == "span must be more than 0.000″, not −3.000″"
    assert told(span, "mm") == "span must be more than 0.0 mm, not −76.2 mm"
    tip = fault_of(lambda: set_wing(build, "wing", tip_chord=1e9))
    assert "787.402″" in told(tip, "in")
    where = BadInput("fuselage.formers[2].half_width", "must be at most 20000, not 152399.99")
    assert told(where, "in") == "former 3: half-width must be at most 787.402″, not 6000.000″"
    assert told(BadInput("", "6.0 mm are wanted"), "in") == "0.236″ are wanted"
    file = BadInput("bad.dat", "holds 2 points; a section needs 5")
    assert told(file) == "bad.dat: holds 2 points; a section needs 5"


def test_the_example_of_a_cut_out_cuts_what_it_shows() -> None:
    for unit, like in CUT_OUT_LIKE.items():
        battery, tank = read_cutouts(like, unit)
        assert 38 < battery.width < 43
        assert 28 < tank.width < 32
    with pytest.raises(BadInput, match='1-5/8"'):
        read_cutouts("battery nonsense", "in")


def test_a_figure_that_is_typed_goes_on_meaning_what_it_meant(qtbot: QtBot) -> None:
    field = QuantityEdit()
    qtbot.addWidget(field)
    qtbot.keyClicks(field.line, "12")
    assert field.value == 12.0
    field.set_kind(angular=False, unit="in")
    assert field.value == 12.0
    assert field.line.text() == "12 mm"
    field.set_value(25.4)
    field.set_kind(angular=False, unit="mm")  # shown, not typed: the page shows it anew
    qtbot.keyClicks(field.line, "")
    whole = QuantityEdit(unit="in")
    qtbot.addWidget(whole)
    qtbot.keyClicks(whole.line, '1/2"')
    whole.set_kind(angular=False, unit="mm")
    assert whole.value == pytest.approx(12.7)
    assert whole.line.text() == '1/2"'
