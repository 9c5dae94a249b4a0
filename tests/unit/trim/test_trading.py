"""Decalage, balance and lift against one another, and the edits that keep a choice."""

import pytest

from hardkeel.airframe.flights import build_trim, craft_of, flight_of
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.flying import build_to, set_flight, set_tail_section_from, set_wing_section
from hardkeel.project.model import Build
from hardkeel.trim.model import Flight
from hardkeel.trim.trading import decalage_for, flown_at, lift_for, trading_curve


@pytest.mark.parametrize("balance", [0.2, 0.3, 0.45])
@pytest.mark.parametrize("lift", [0.2, 0.5, 0.9])
def test_the_lift_of_a_decalage_is_the_one_it_trims_at(balance: float, lift: float) -> None:
    craft = craft_of(demo_build())
    decalage = decalage_for(craft, balance, lift)
    assert decalage is not None
    assert lift_for(craft, balance, decalage) == pytest.approx(lift, abs=1e-9)


def test_more_lift_wants_more_decalage_where_it_is_stable_and_less_beyond_the_neutral_point() -> (
    None
):
    craft = craft_of(demo_build())
    neutral = flown_at(craft, 0.3, 0.5).neutral_point
    assert neutral is not None
    for balance, sign in ((neutral - 0.15, 1), (neutral + 0.1, -1)):
        slow, fast = decalage_for(craft, balance, 0.8), decalage_for(craft, balance, 0.4)
        assert slow is not None
        assert fast is not None
        assert (slow - fast) * sign > 0


def test_balance_further_aft_wants_less_decalage() -> None:
    curve = trading_curve(craft_of(demo_build()), 0.5, [0.2, 0.3, 0.4, 0.5, 0.6])
    assert [y for _, y in curve] == sorted((y for _, y in curve), reverse=True)


def test_at_the_neutral_point_no_lift_belongs_to_a_decalage() -> None:
    craft = craft_of(demo_build())
    neutral = flown_at(craft, 0.3, 0.5).neutral_point
    assert neutral is not None
    assert lift_for(craft, neutral, 1.0) is None


def test_what_is_kept_trims_as_it_was_chosen() -> None:
    build = demo_build()
    wanted = decalage_for(craft_of(build), 0.4, 0.6)
    assert wanted is not None
    kept = build_to(build, 0.4, wanted, 0.6)
    assert kept.flight is not None
    assert kept.flight.lift_coefficient == 0.6
    stab = next(one for one in kept.tail if one.id == "stab")
    assert kept.wings[0].incidence - stab.incidence == pytest.approx(wanted, abs=0.005)
    body = kept.surveyed.body("stab")
    assert body is not None
    assert body.incidence == stab.incidence  # the survey follows
    assert kept.balance is not None
    assert kept.balance.target_percent == pytest.approx(40.0)


def test_a_section_gives_its_own_figures_unless_they_are_typed() -> None:
    build = set_wing_section(demo_build(), "4412")
    assert flight_of(build).zero_lift == pytest.approx(-4.15, abs=0.1)
    assert flight_of(build).cm0 == pytest.approx(-0.106, abs=0.002)
    typed = set_flight(build, zero_lift=-3.0)
    assert flight_of(typed).zero_lift == -3.0
    assert flight_of(typed).cm0 == pytest.approx(-0.106, abs=0.002)
    again = set_flight(typed, zero_lift=None)
    assert flight_of(again).zero_lift == pytest.approx(-4.15, abs=0.1)
    without = set_wing_section(build, "")
    assert flight_of(without).zero_lift == Flight().zero_lift
    before, after = build_trim(demo_build()).decalage_to_trim, build_trim(build).decalage_to_trim
    assert before is not None
    assert after is not None
    assert after < before  # more camber wants less geometric angle


def test_what_the_flight_does_not_know_stays_in_it() -> None:
    flight = Flight.model_validate({"zero_lift": -3.0, "pilot_note": "gentle"})
    build = demo_build().but(flight=flight)
    for changed in (set_wing_section(build, "0012"), set_flight(build, zero_lift=None)):
        assert changed.flight is not None
        assert (changed.flight.model_extra or {}).get("pilot_note") == "gentle"


def test_an_unknown_section_or_no_wing_is_refused() -> None:
    with pytest.raises(BadInput, match="no section"):
        set_wing_section(demo_build(), "nothing-like-it")
    with pytest.raises(BadInput, match="no wing"):
        set_wing_section(Build(), "0012")
    with pytest.raises(BadInput, match="must be there"):
        build_to(Build(), 0.3, 1.0, 0.5)
    plain = demo_build()
    bare = plain.but(tail=tuple(one.but(root_profile=None) for one in plain.tail))
    with pytest.raises(BadInput, match="no section yet"):
        set_tail_section_from(bare, "stab")


def test_a_lifting_tail_takes_its_angle_from_its_section() -> None:
    plain = demo_build()
    tail = tuple(one.but(root_profile="lifting") if one.id == "stab" else one for one in plain.tail)
    flight = set_tail_section_from(plain.but(tail=tail), "stab").flight
    assert flight is not None
    assert flight.tail_zero_lift < -1.0
