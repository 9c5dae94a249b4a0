"""Nose and tail pulled in: against figures by hand and curvature by differences."""

import numpy as np
import pytest

from hardkeel.airframe.framing import limits_of, stiffness_of
from hardkeel.airframe.orders.frame import STAGE, frame_steps
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.steps import plan_steps
from hardkeel.fuselage.bending_forces import SPRINGS_BACK
from hardkeel.fuselage.closing import closings_of, straight_part
from hardkeel.fuselage.flexing import solid
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages.pulling import pulling_lines, sprung_sentence
from hardkeel.project.model import Build
from tests.frames import box

MODULUS = solid({"balsa-medium": 3.0})


def tapered(*half_widths: float) -> Fuselage:
    """The box of 400 mm with other half-widths."""
    plain = box()
    formers = tuple(
        former.but(half_width=half) for former, half in zip(plain.formers, half_widths, strict=True)
    )
    return plain.but(formers=formers)


def most_strained(fuselage: Fuselage, low: float, high: float) -> float:
    """Outer fibre of the sheet side in percent, by the loft's second difference."""
    x = np.linspace(low, high, 4001)
    y = loft_of(fuselage).half_width.value(x)
    slope = np.gradient(y, x)
    bend = np.abs(np.gradient(slope, x))[2:-2] / (1 + slope[2:-2] ** 2) ** 1.5
    return float(bend.max() * fuselage.side_thickness / 2 * 100)


def test_a_straight_box_has_nothing_to_pull_in() -> None:
    assert closings_of(box(), {}, MODULUS) == ()
    assert [former.id for former in straight_part(box())] == ["F1", "F2", "F3", "F4", "F5"]


def test_an_end_comes_in_from_the_widest_former() -> None:
    fuselage = tapered(18.0, 30.0, 30.0, 27.5, 10.0)
    assert [former.id for former in straight_part(fuselage)] == ["F2", "F3", "F4"]
    nose, tail = closings_of(fuselage, {}, MODULUS)
    assert (nose.end, nose.stop, nose.inward, nose.width) == ("nose", "F1", 12.0, 30.0)
    assert (tail.end, tail.stop, tail.inward, tail.width) == ("tail", "F5", 20.0, 14.0)
    assert nose.force is not None
    assert nose.force > 0
    assert nose.soaked == () == nose.breaking  # nothing is known of the wood


def test_only_the_end_that_bends_too_tightly_is_soaked() -> None:
    fuselage = tapered(12.0, 30.0, 30.0, 30.0, 24.0)
    at_nose, at_tail = most_strained(fuselage, 0, 100), most_strained(fuselage, 300, 400)
    assert at_nose > at_tail
    between = (at_nose + at_tail) / 2
    for dry, soaked, wanted in (
        (between, 2 * at_nose, (("side",), (), (), ())),
        (0.9 * at_tail, 2 * at_nose, (("side",), (), ("side",), ())),
        (0.9 * at_tail, between, ((), ("side",), ("side",), ())),
        (1.02 * at_nose, 2 * at_nose, ((), (), (), ())),
    ):
        nose, tail = closings_of(fuselage, {"balsa-medium": (dry, soaked)}, MODULUS)
        assert (nose.soaked, nose.breaking, tail.soaked, tail.breaking) == wanted


def test_what_springs_back_is_told_less_expected_or_more() -> None:
    nose = closings_of(tapered(18.0, 30.0, 30.0, 30.0, 30.0), {}, MODULUS)[0]
    low, high = SPRINGS_BACK["soaked"]
    assert nose.springs_to == pytest.approx((30 + 24 * low, 30 + 24 * high))
    assert [nose.sprung(width) for width in (30.0, 35.0, 39.0)] == ["less", "expected", "more"]
    assert "soak it once more" in sprung_sentence(nose, 39.0, "mm")
    assert "33.6 mm to 38.4 mm expected" in sprung_sentence(nose, 35.0, "mm")
    assert "″" in sprung_sentence(nose, 35.0, "in")
    assert "mm" not in sprung_sentence(nose, 35.0, "in")


def test_what_holds_it_grows_with_the_pull() -> None:
    fuselage = tapered(18.0, 30.0, 30.0, 30.0, 30.0)
    told = []
    for modulus in (0.001, 1.0, 6.0, 80.0):
        nose = closings_of(fuselage, {}, solid({"balsa-medium": modulus}))[0]
        told.append(" ".join(pulling_lines(nose, fuselage, "mm")))
    for text, holder in zip(
        told, ("tape does", "rubber band", "clamp over", "threaded rod"), strict=True
    ):
        assert holder in text


def test_a_soaked_end_gets_a_night_in_the_clamps_before_it_is_pulled() -> None:
    build = Build(fuselage=tapered(6.0, 30.0, 30.0, 30.0, 26.0).but(side_thickness=5.0))
    closings = closings_of(build.fuselage, limits_of(build), stiffness_of(build))  # type: ignore[arg-type]
    assert closings[0].soaked == ("side",)
    assert closings[1].soaked == ()
    steps = {step.id: step for step in plan_steps(build, frame_steps(build), STAGE).steps}
    soak = steps["soak nose"]
    assert "soak tail" not in steps
    assert soak.cure_minutes >= 8 * 60
    assert soak.hazards == ("steam",)
    assert "soak nose" in steps["nose"].after
    assert steps["nose"].needs_cure


def test_no_end_is_soaked_where_all_goes_dry() -> None:
    build = set_station(Build(fuselage=box()), "F1", half_width=28.0)
    assert not any(step.id.startswith("soak") for step in frame_steps(build))
