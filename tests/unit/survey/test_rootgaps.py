"""Gaps at the roots: geometry by brute turning of a face, cures by thought experiment."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.edits.seats import set_gap
from hardkeel.edits.truing import correction_done
from hardkeel.geometry.rotation import turns
from hardkeel.messages.gaps import gaps_words
from hardkeel.project.model import Build
from hardkeel.survey.model import Body, GapPlace, GapRead, PanelSide, Seat
from hardkeel.survey.rootgaps import PLACE_SHARE, PLACES, RootGaps, root_gaps
from tests.airframes import exactly, plain_survey
from tests.unit.survey.test_instruments import NOW

CHORD = 200.0


def panel(side: PanelSide, **gaps: float) -> Body:
    read = tuple(GapRead(side=side, at=at, mm=gaps[at]) for at in PLACES if at in gaps)
    return Body(id="wing", pivot=(0, 0, 0), chord=CHORD, seat=Seat(kind="tube", gaps=read))


def swung(side: PanelSide, degrees: float, off: float) -> dict[str, float]:
    """Gaps of a root face whose panel's tip is swung forward by so much, its nearest corner `off` mm away."""
    sign = 1.0 if side == "starboard" else -1.0
    turn = turns([(0.0, 0.0, sign * degrees)])[0][0]
    outward = {at: sign * float((turn @ (PLACE_SHARE[at] * CHORD, 0.0, 0.0))[1]) for at in PLACES}
    nearest = min(outward.values())
    return {at: off + mm - nearest for at, mm in outward.items()}


def only(body: Body, **wrong: float) -> RootGaps:
    """Its cure on an airframe that is known exactly, true but for these unknowns."""
    judged = exactly({f"wing.{name}": value for name, value in wrong.items()})
    (found,) = root_gaps(body, judged.check("wing_yaw"))
    return found


@given(st.sampled_from(("port", "starboard")), st.floats(-3, 3), st.floats(0, 4))
def test_the_wedge_is_the_angle_by_which_the_panel_is_swung(
    side: PanelSide, degrees: float, off: float
) -> None:
    (found,) = root_gaps(panel(side, **swung(side, degrees, off)), None)
    assert found.wedge == pytest.approx(degrees, abs=0.01)
    assert found.push == pytest.approx(off, abs=1e-9)


def test_even_gaps_are_pushed_in_and_nothing_is_left() -> None:
    found = only(panel("port", le=0.8, spar=0.8, te=0.9))
    assert (found.cure, found.push) == ("push", 0.8)
    assert gaps_words(found, "mm") == "Port: push it in 0.8 mm, and it is closed."
    assert only(panel("port", le=0.1, te=0.0)).cure == "none"


@pytest.mark.parametrize(
    ("side", "forward", "yaw", "cure"),
    [
        # the starboard tip stands forward and the wing's yaw says so: swinging it aft mends both
        ("starboard", 1.2, 0.6, "swing"),
        ("starboard", 1.2, -0.6, "fill"),
        ("port", 1.2, -0.6, "swing"),
        ("port", 1.2, 0.6, "fill"),
        ("port", -1.2, 0.6, "swing"),
        ("port", 1.2, 0.0, "fill"),
    ],
)
def test_a_panel_is_swung_only_where_that_squares_the_wing(
    side: PanelSide, forward: float, yaw: float, cure: str
) -> None:
    found = only(panel(side, **swung(side, forward, 0.5)), yaw=yaw)
    assert found.cure == cure
    assert (max(found.left.values()) == 0) is (cure == "swing")


def test_nothing_is_closed_or_filled_before_squareness_is_known() -> None:
    read = panel("port", le=0.2, te=2.0)
    (found,) = root_gaps(read, None)
    assert found.cure == "ask"
    assert "Measure how square it stands" in gaps_words(found, "mm")


def test_what_is_left_is_covered_or_filled_and_packed_with_hard_wood_at_the_spar() -> None:
    found = only(panel("starboard", le=0.4, spar=1.1, te=2.6))
    assert found.cure == "fill"
    assert found.left == pytest.approx({"le": 0.0, "spar": 0.7, "te": 2.2})
    assert found.packing == pytest.approx(0.7)
    words = gaps_words(found, "mm")
    assert words.startswith(
        "Starboard: do not swing it, it would leave square. Push it in 0.4 mm, then "
    )
    assert words.endswith(
        "hard wood at the spar, 0.7 mm; a wedge of sheet at the trailing edge, 2.2 mm."
    )
    slight = only(panel("starboard", le=0.0, spar=0.1, te=0.3))
    assert gaps_words(slight, "mm").endswith("let the covering bridge what is left.")


def test_a_gap_is_written_down_changed_struck_out_and_gone_once_the_seat_was_worked_on() -> None:
    build = set_gap(Build(survey=plain_survey()), "wing", "port", "te", 1.2)
    build = set_gap(set_gap(build, "wing", "port", "te", 1.4), "wing", "port", "le", 0.3)

    def held(one: Build) -> dict[GapPlace, float]:
        body = one.surveyed.body("wing")
        assert body is not None
        assert body.seat is not None
        return {gap.at: gap.mm for gap in body.seat.gaps}

    assert held(build) == {"te": 1.4, "le": 0.3}
    assert held(set_gap(build, "wing", "port", "le", None)) == {"te": 1.4}
    assert held(correction_done(build, "wing", None, (), NOW)) == {}
    assert held(correction_done(build, "stab", None, (), NOW)) == {"te": 1.4, "le": 0.3}
    for body, mm in (("fin", 1.0), ("wing", -1.0)):
        with pytest.raises(BadInput):
            set_gap(build, body, "port", "te", mm)
