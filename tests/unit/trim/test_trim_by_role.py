"""Trim by role: V, foreplane, dihedral and several fins against plates added up one after another."""

import math
from typing import Any, NamedTuple

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.airframe.flights import build_trim
from hardkeel.balance.model import Balance, Wing
from hardkeel.cli.trim import trim_json
from hardkeel.project.model import Build
from hardkeel.tail.model import TailSurface
from hardkeel.trim.flying import Effect, effect_of, flap_effectiveness, side_stiffness
from hardkeel.trim.model import Flight
from tests.roles_independent import Trimmed

Json = dict[str, Any]


class Asked(NamedTuple):
    """What a check is."""

    id: str
    kind: str
    body: str


WING: Json = {"id": "wing", "le_x": 300.0, "span": 1400.0, "root_chord": 210.0, "tip_chord": 170.0, "sweep_le": 20.0}  # fmt: skip


def lying(name: str, x: float, **more: Any) -> Json:
    """A lying tail surface."""
    return {
        "id": name,
        "le_x": x,
        "z": 0.0,
        "span": 460.0,
        "root_chord": 130.0,
        "tip_chord": 100.0,
        "sweep_le": 15.0,
        **more,
    }


def fin(name: str, x: float, **more: Any) -> Json:
    """A fin; `span` is twice its height."""
    return {"id": name, "le_x": x, "z": 0.0, "span": 300.0, "root_chord": 130.0, "tip_chord": 80.0, "sweep_le": 40.0, "upright": True, **more}  # fmt: skip


TAILS: dict[str, list[Json]] = {
    "conventional": [lying("stab", 1000.0), fin("fin", 1010.0)],
    "dihedral": [lying("stab", 1000.0, dihedral=12.0), fin("fin", 1010.0)],
    "own name": [fin("post", 1010.0, role="fin"), lying("plane", 1000.0, role="stabilizer")],
    "two fins": [lying("stab", 1000.0), fin("fin_a", 1010.0), fin("fin_b", 1010.0, span=260.0)],
    "vee": [lying("vee", 1000.0, dihedral=35.0, span=620.0)],
    "vee and fin": [lying("rear", 1000.0, dihedral=30.0, role="vee"), fin("fin", 1020.0)],
    "foreplane": [lying("canard", -150.0), fin("fin", 620.0)],
    "foreplane, two fins": [
        lying("nose plane", -150.0, role="foreplane", dihedral=8.0),
        fin("fin_a", 560.0),
        fin("fin_b", 560.0),
    ],
}


def build_of(tails: list[Json], h: float, **flight: float) -> Build:
    """A build of these surfaces, balanced at a share of the chord."""
    return Build(
        wings=(Wing.model_validate(WING),),
        tail=tuple(TailSurface.model_validate(one) for one in tails),
        balance=Balance(target_percent=100 * h),
        flight=Flight(**flight),
    )


def effect(build: Build, check: Asked, error: float) -> Effect:
    """What a check's error does."""
    found = effect_of(build_trim(build), check, error, 0.1)
    assert found is not None
    return found


@pytest.mark.parametrize("name", TAILS)
@given(
    h=st.floats(-0.2, 0.5),
    lift=st.floats(0.2, 1.0),
    zero=st.floats(-4, 0),
    cm0=st.floats(-0.1, 0.02),
    tail_zero=st.floats(-3, 3),
)
def test_neutral_point_and_decalage_are_those_of_plates(
    name: str, h: float, lift: float, zero: float, cm0: float, tail_zero: float
) -> None:
    flight = {
        "lift_coefficient": lift,
        "zero_lift": zero,
        "cm0": cm0,
        "tail_zero_lift": tail_zero,
    }
    other = Trimmed(WING, TAILS[name], h, **flight)
    trim = build_trim(build_of(TAILS[name], h, **flight))
    assert trim.neutral_point == pytest.approx(other.neutral(), abs=1e-4)
    assert trim.decalage_to_trim == pytest.approx(other.decalage(), abs=1e-4)
    if trim.margin is None or trim.margin < 0.02:
        return  # it keeps no lift coefficient
    told = effect(build_of(TAILS[name], h, **flight), Asked("decalage", "decalage", ""), 0.4)
    # a decalage other than that which trims, by the same equations: the straight line is exact
    assert dict(told.figures)["trims_at"] == pytest.approx(other.trims_at(0.4), abs=2e-4)


@pytest.mark.parametrize("name", TAILS)
@given(
    h=st.floats(0.0, 0.4), tilt=st.floats(-2, 2), tail_zero=st.floats(-3, 3), cm0=st.floats(-0.1, 0)
)
def test_a_rolled_tail_slips_as_plates_do(
    name: str, h: float, tilt: float, tail_zero: float, cm0: float
) -> None:
    flight = {"tail_zero_lift": tail_zero, "cm0": cm0, "lift_coefficient": 0.6}
    other = Trimmed(WING, TAILS[name], h, **flight)
    build = build_of(TAILS[name], h, **flight)
    trim = build_trim(build)
    stiffness = side_stiffness(trim)
    assert stiffness == pytest.approx(other.stiffness(), rel=1e-9)
    stab = trim.craft.stab
    assert stab is not None
    kind = "vee_tilt" if stab.role == "vee" else "roll_to_wing"
    found = effect_of(trim, Asked("x", kind, stab.id), tilt, 0.1)
    if other.stiffness() <= 0:
        assert found is None
        return
    assert found is not None
    assert found.first == pytest.approx(other.slip(tilt), abs=2e-3 + 2e-3 * abs(other.slip(tilt)))


def test_what_trims_and_all_fins_are_told() -> None:
    told = trim_json(build_of(TAILS["two fins"], 0.3), None)
    assert (told["stab"]["id"], told["stab"]["role"]) == ("stab", "stabilizer")
    assert [one["id"] for one in told["fins"]] == ["fin_a", "fin_b"]
    assert told["fin"]["id"] == "fin_a"
    vee = trim_json(build_of(TAILS["vee"], 0.3), None)["stab"]
    assert vee["role"] == "vee"
    assert vee["area"] == pytest.approx(620 * 115)
    flat = trim_json(build_of([lying("stab", 1000.0, span=620.0)], 0.3), None)["stab"]
    assert vee["volume"] == pytest.approx(flat["volume"] * math.cos(math.radians(35)) ** 2)
    fore = trim_json(build_of(TAILS["foreplane"], 0.0), None)
    assert fore["stab"]["volume"] < 0
    assert fore["decalage_now"] == pytest.approx(0.0)


def test_a_foreplane_s_decalage_is_its_own_less_the_wings() -> None:
    tails = [lying("canard", -150.0, incidence=3.0), fin("fin", 620.0)]
    build = build_of(tails, -0.05).but(
        wings=(Wing.model_validate({**WING, "incidence": 1.0}),),
    )
    assert build_trim(build).craft.decalage == pytest.approx(2.0)
    more = effect(build, Asked("decalage", "decalage", "canard"), 0.5)
    assert dict(more.figures)["elevator"] == pytest.approx(-0.5 / flap_effectiveness(0.3))


def test_a_vees_elevator_goes_by_the_cosine_and_unlike_halves_are_a_rudder() -> None:
    build = build_of(TAILS["vee"], 0.3)
    told = dict(effect(build, Asked("decalage", "decalage", "vee_starboard"), 0.6).figures)
    angle = 0.6 * math.cos(math.radians(35)) / flap_effectiveness(0.3)
    assert told["elevator"] == pytest.approx(angle)
    # starboard half more nose-up: its force points up and, by its lean, to port; the tail goes to port
    slip = effect(build, Asked("x", "vee_incidence_difference", "vee_starboard"), 1.0).first
    assert slip < 0
    # by hand: with no fin the levers are the same, so that only the areas' shares are left
    gamma = math.radians(35)
    assert slip == pytest.approx(
        -0.5 * math.sin(gamma) * math.cos(gamma) / math.sin(gamma) ** 2, rel=1e-9
    )


def test_only_the_main_body_of_a_role_has_effects() -> None:
    trim = build_trim(build_of(TAILS["two fins"], 0.3))
    assert effect_of(trim, Asked("fin_b_yaw", "fin_yaw", "fin_b"), 0.5, 0.1) is None
    assert effect_of(trim, Asked("fin_a_yaw", "fin_yaw", "fin_a"), 0.5, 0.1) is not None
    assert effect_of(trim, Asked("u", "twist_difference", "upper_wing"), 0.5, 0.1) is None
