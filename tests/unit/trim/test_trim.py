"""In the air: against a second way, textbook cases, and signs by thought experiment."""

import json
import math
from dataclasses import replace
from pathlib import Path
from typing import NamedTuple

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.airframe.flights import build_trim, craft_of, effects_of
from hardkeel.balance.model import Balance, Mass, Wing
from hardkeel.cli.commands import run_command
from hardkeel.cli.trim import trim_json
from hardkeel.demo.kettlewick import demo_build
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.messages.air import edge_sentence, effect_sentence, fuselage_note, trim_lines
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.tail.model import TailSurface
from hardkeel.trim.body import Body
from hardkeel.trim.flying import Trim, effect_of, flap_effectiveness, trim_of
from hardkeel.trim.model import Flight
from tests.trim_independent import Plane, flap


def build_of(**more: object) -> Build:
    return Build.model_validate(
        {
            "wings": (
                Wing(id="wing", le_x=200.0, span=1250.0, root_chord=210.0, tip_chord=170.0, sweep_le=25.0, incidence=2.0),
            ),
            "tail": (
                TailSurface(id="stab", span=440.0, root_chord=120.0, tip_chord=100.0, sweep_le=10.0, le_x=800.0, z=10.0),
                TailSurface(id="fin", span=260.0, root_chord=125.0, tip_chord=75.0, sweep_le=40.0, le_x=795.0, z=16.0, upright=True),
            ),
            "masses": (Mass(id="all", mass=1100.0, x=268.0),),
            **more,
        }
    )  # fmt: skip


def plane_of(trim: Trim) -> Plane:
    wing, stab, flight = trim.craft.wing, trim.craft.stab, trim.craft.flight
    assert wing is not None
    assert stab is not None
    assert wing.centre_x is not None
    assert stab.centre_x is not None
    return Plane(
        wing.area * 1e-6, wing.aspect_ratio, wing.mean_chord * 1e-3, wing.centre_x * 1e-3,
        stab.area * 1e-6, stab.aspect_ratio, stab.centre_x * 1e-3,
        flight.cm0, flight.zero_lift, flight.tail_zero_lift,
    )  # fmt: skip


@given(
    st.floats(700, 2000), st.floats(120, 300), st.floats(0.5, 1.0), st.floats(-20, 60),
    st.floats(300, 700), st.floats(80, 180), st.floats(400, 1200), st.floats(0.15, 0.6),
    st.floats(-5, 0), st.floats(-0.12, 0.02), st.floats(0.2, 1.0),
)  # fmt: skip
def test_random_airframes_agree_with_the_second_way(  # noqa: PLR0913, PLR0917  a row of figures
    span: float, chord: float, taper: float, sweep: float, tail: float, tail_chord: float, arm: float,
    at: float, zero_lift: float, cm0: float, lift: float,
) -> None:  # fmt: skip
    wing = Wing(
        id="wing", le_x=100.0, span=span, root_chord=chord, tip_chord=taper * chord, sweep_le=sweep
    )
    stab = TailSurface(
        id="stab",
        span=tail,
        root_chord=tail_chord,
        tip_chord=0.8 * tail_chord,
        le_x=100.0 + arm,
        z=0.0,
    )
    build = Build(
        wings=(wing,), tail=(stab,), balance=Balance(target_percent=100 * at),
        flight=Flight(lift_coefficient=lift, zero_lift=zero_lift, cm0=cm0),
    )  # fmt: skip
    trim = build_trim(build)
    other = plane_of(trim)
    assert trim.neutral_point == pytest.approx(other.neutral(), rel=1e-3, abs=1e-4)
    assert trim.decalage_to_trim == pytest.approx(other.trims(lift, at), rel=1e-3, abs=2e-3)


@given(st.floats(0.05, 1.0))
def test_flap_effectiveness_by_summing_the_integral(fraction: float) -> None:
    assert flap_effectiveness(fraction) == pytest.approx(flap(fraction), abs=2e-5)


def test_helmbold_by_hand_and_its_limits() -> None:
    trim = build_trim(build_of())
    wing = trim.craft.wing
    assert wing is not None
    area = 1250 * 190
    assert wing.area == pytest.approx(area)
    aspect = 1250**2 / area
    assert wing.lift_slope == pytest.approx(2 * math.pi * aspect / (2 + math.sqrt(aspect**2 + 4)))
    assert flap_effectiveness(1.0) == pytest.approx(1.0)


def test_speed_from_mass_and_the_other_way_round() -> None:
    trim = build_trim(build_of())
    area = 1250 * 190 * 1e-6
    assert trim.speed == pytest.approx(math.sqrt(2 * 1.1 * 9.81 / (1.225 * area * 0.5)))
    fixed = build_trim(build_of(flight=Flight(speed=12.0)))
    assert fixed.lift_coefficient == pytest.approx(2 * 1.1 * 9.81 / (1.225 * 144 * area))
    both = build_trim(build_of(flight=Flight(speed=12.0, lift_coefficient=0.7)))
    assert (both.speed, both.lift_coefficient) == (12.0, 0.7)
    weightless = build_trim(build_of(masses=()))
    assert weightless.speed is None
    assert weightless.lift_coefficient == 0.5


def test_what_is_not_there_is_null() -> None:
    bare = build_of(tail=(), masses=())
    told = trim_json(bare, None)
    assert (
        told["stab"]
        is told["fin"]
        is told["neutral_point_percent"]
        is told["decalage_to_trim"]
        is None
    )
    assert "effects" not in told
    assert told["wing"]["centre_x"] > 200
    unplaced = build_trim(build_of(tail=(TailSurface(id="stab", span=440.0, root_chord=120.0),)))
    assert unplaced.stab_arm is None
    assert unplaced.craft.stab is not None
    assert trim_lines(build_trim(Build())) == [
        "Wing, stabilizer and their places are not known yet."
    ]


# -- signs, by thought ---------------------------------------------------------------------------------


class Asked(NamedTuple):
    """What a check is."""

    id: str
    kind: str
    body: str


ASKED = {
    one.id: one
    for one in (
        Asked("decalage", "decalage", "stab"),
        Asked("wing_twist_difference", "twist_difference", "wing"),
        Asked("wing_offset", "offset", "wing"),
        Asked("stab_roll_to_wing", "roll_to_wing", "stab"),
        Asked("fin_yaw", "fin_yaw", "fin"),
        Asked("stab_yaw", "yaw", "stab"),
    )
}


def figure(check: str, error: float, name: str) -> float:
    effect = effect_of(build_trim(build_of()), ASKED[check], error, 0.1)
    assert effect is not None
    value = dict(effect.figures)[name]
    assert value is not None
    return value


def test_too_much_decalage_wants_down_elevator_and_flies_slower() -> None:
    assert figure("decalage", 0.5, "elevator") > 0  # trailing edge down holds the nose down
    assert figure("decalage", 0.5, "millimetres") > 0
    assert figure("decalage", 0.5, "trims_at") > 0.5  # slower: more lift coefficient


def test_a_starboard_half_with_more_incidence_rolls_to_port() -> None:
    assert figure("wing_twist_difference", 1.0, "roll_rate") < 0
    trim = build_trim(build_of())
    assert trim.speed is not None
    assert figure("wing_twist_difference", 1.0, "roll_rate") == pytest.approx(-trim.speed / 1.25)


def test_a_wing_to_starboard_lifts_to_port() -> None:
    assert figure("wing_offset", 3.0, "roll_rate") < 0


def test_a_fin_that_points_to_port_wants_rudder_to_port() -> None:
    assert figure("fin_yaw", 0.5, "rudder") > 0


def test_effects_are_alike_to_both_sides_and_sigma_is_the_slope() -> None:
    trim = build_trim(build_of())
    for check in (
        "decalage",
        "wing_twist_difference",
        "wing_offset",
        "stab_roll_to_wing",
        "fin_yaw",
    ):
        plus, minus = (
            effect_of(trim, ASKED[check], 0.3, 0.2),
            effect_of(trim, ASKED[check], -0.3, 0.2),
        )
        assert plus is not None
        assert minus is not None
        assert plus.first == pytest.approx(-minus.first)
        step = effect_of(trim, ASKED[check], 0.3001, 0.2)
        assert step is not None
        assert plus.sigma == pytest.approx(abs(step.first - plus.first) / 1e-4 * 0.2, rel=1e-4)
    assert effect_of(trim, ASKED["stab_yaw"], 0.5, 0.1) is None


def test_a_lifting_tail_balanced_far_aft_is_at_home() -> None:
    """Balance at 60 % with a large tail far behind: stable, and the tail lifts in trim."""
    big = TailSurface(id="stab", span=700.0, root_chord=150.0, tip_chord=130.0, le_x=1050.0, z=0.0)
    build = build_of(tail=(big,), masses=(), balance=Balance(target_percent=60.0))
    trim = build_trim(build)
    assert trim.margin is not None
    assert trim.margin > 0.05
    assert trim.tail_angle is not None
    assert trim.tail_angle > 0
    assert trim.decalage_to_trim is not None
    assert -3 < trim.decalage_to_trim < 4


def test_several_wings_add_up() -> None:
    one = build_of()
    wing = one.wings[0]
    two = one.but(wings=(wing, wing.but(id="upper_wing", span=1100.0)))
    craft = craft_of(two)
    assert craft.wing is not None
    assert craft.wing.area == pytest.approx(1250 * 190 + 1100 * 190)
    assert craft.wing.span == 1250.0


def test_an_unstable_one_keeps_no_lift() -> None:
    trim = build_trim(build_of(masses=(Mass(id="all", mass=1100.0, x=380.0),)))
    assert trim.margin is not None
    assert trim.margin < 0
    effect = effect_of(trim, ASKED["decalage"], 0.5, 0.1)
    assert effect is not None
    assert dict(effect.figures)["trims_at"] is None
    assert any("not stable" in line for line in trim_lines(trim))


# -- the command and the words ---------------------------------------------------------------------------


def test_the_demo_says_what_its_errors_do(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    build = demo_build()
    told = trim_json(build, build.phase)
    checks = judge_survey(build.surveyed, build.phase).checks
    assert [one["check"] for one in told["effects"]] == [
        one.check for one in effects_of(build_trim(build, told["decalage_now"]), checks)
    ]
    now = next(check.value for check in checks if check.id == "decalage")
    assert told["decalage_now"] == pytest.approx(now)
    path = tmp_path / "demo.json"
    path.write_text(
        json.dumps(
            {
                "format": "hardkeel/1",
                "wings": [{"id": "w", "le_x": 0, "span": 900, "root_chord": 150, "tip_chord": 120}],
            }
        )
    )
    assert run_command(["trim", str(path)]) == 0
    assert "fuselage is not reckoned" in capsys.readouterr().out
    path.write_text('{"format": "hardkeel/1"}')
    assert run_command(["trim", str(path), "--json"]) == 2
    assert "wings" in capsys.readouterr().err


def test_words_for_every_effect() -> None:
    trim = build_trim(build_of())
    said = {}
    for check, error in (
        ("decalage", -0.4),
        ("wing_twist_difference", 0.6),
        ("stab_roll_to_wing", 0.8),
        ("fin_yaw", 0.4),
    ):
        effect = effect_of(trim, ASKED[check], error, 0.05)
        assert effect is not None
        said[check] = effect_sentence(effect, "mm")
        assert edge_sentence(effect, "in").startswith("At the edge")
    assert "up elevator" in said["decalage"]
    assert "Rolls to port" in said["wing_twist_difference"]
    assert "of rudder to port" in said["fin_yaw"]
    assert trim_of(trim.craft) == trim


# -- the fuselage, and what hinges leave ------------------------------------------------------------------


def strip_sum(body: Body, chord: float, downwash: float) -> float:
    """H. Multhopp's strips (NACA TM 1036): π/2·∫ w²·dβ/dα dx, w²·L left out of it, for a spindle-shaped body.

    Ahead of the wing the air comes up by what a bound line at its quarter chord gives, behind it it is turned down.
    """
    x = np.linspace(0.0, body.length, 4001)
    share = x / body.length
    width = body.width * np.clip(4 * share * (1 - share), 0.0, 1.0) ** 0.5
    quarter = body.wing_at * body.length
    ahead, behind = quarter - 0.25 * chord, quarter + 0.75 * chord
    turned = np.zeros(len(x))
    front, rear = x < ahead, x > behind
    turned[front] = 1 + 0.5 * chord / (quarter - x[front])
    turned[rear] = (x[rear] - behind) / (body.length - behind) * (1 - downwash)
    return float(np.pi / 2 * np.trapezoid(width**2 * turned, x) / (body.width**2 * body.length))


@pytest.mark.parametrize("wing_at", [0.25, 0.3, 0.35, 0.4])
def test_the_fuselages_share_is_about_that_of_strips(wing_at: float) -> None:
    body = Body(80.0, 1000.0, wing_at)
    brute = strip_sum(body, 200.0, 0.4)
    assert 0.45 < body.factor / brute < 1.6


def test_the_fuselage_takes_margin_and_both_are_told() -> None:
    bare = build_of(masses=(Mass(id="all", mass=1100.0, x=290.0),))
    stations = tuple(
        Former(id=f"F{i}", station=300.0 * i, bottom=-40.0, top=40.0, half_width=half)
        for i, half in enumerate((25.0, 40.0, 30.0, 8.0))
    )
    drawn = bare.but(fuselage=Fuselage(formers=stations))
    without, reckoned = build_trim(bare), build_trim(drawn)
    assert without.body_takes is None
    assert without.margin_with_body is None
    assert reckoned.neutral_point == without.neutral_point  # the contract's own
    assert reckoned.body_takes is not None
    assert 0.005 < reckoned.body_takes < 0.15
    assert reckoned.margin is not None
    assert reckoned.margin_with_body == pytest.approx(reckoned.margin - reckoned.body_takes)
    told = trim_lines(reckoned)
    assert any("with the fuselage about" in line for line in told)
    assert fuselage_note(without).startswith("The fuselage is not reckoned")


def test_a_wider_body_takes_by_the_square() -> None:
    one, two = Body(60.0, 900.0, 0.3), Body(120.0, 900.0, 0.3)
    assert two.moves_neutral_point(2e5, 180.0, 5.0) == pytest.approx(
        4 * one.moves_neutral_point(2e5, 180.0, 5.0)
    )
    assert Body(60.0, 900.0, 0.5).factor > one.factor  # more of it ahead of the wing


@pytest.mark.parametrize(("margin", "word"), [(0.07, "lively"), (0.12, "steady"), (0.4, "heavy")])
def test_steady_begins_at_a_tenth_while_the_fuselage_is_not_reckoned(
    margin: float, word: str
) -> None:
    trim = replace(build_trim(build_of()), margin=margin)
    assert any(word in line for line in trim_lines(trim))


def test_a_real_hinge_wants_more_than_the_theory() -> None:
    effect = effect_of(build_trim(build_of()), ASKED["decalage"], 0.6, 0.05)
    assert effect is not None
    angle = effect.first
    said = effect_sentence(effect, "mm")
    assert "by thin-aerofoil theory" in said
    assert f"{angle / 0.8:.1f}° to {angle / 0.6:.1f}°" in said
    assert f"sealed {angle / 0.85:.1f}°" in said
