"""Three airframes of other shapes: a glider with its stabilizer on the fin, a pusher with a foreplane, a V; all made up.

What was read of each was read of a crooked one, with the errors that tools have; the same on every machine.
"""

from functools import cache
from typing import Final

import numpy as np

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.balance.model import Balance, Mass
from hardkeel.demo.laid import with_order
from hardkeel.edits import framing
from hardkeel.edits.tail import set_built, set_figures
from hardkeel.practice.hidden import hidden_from
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.planning import plan
from hardkeel.survey.proposing import EVERY_TOOL
from hardkeel.survey.readings import sigma_of
from hardkeel.trim.model import Flight

GLIDER, PUSHER, VEE = "Bracken 1800", "Yarrow 1150", "Tansy 1400"
_BENCH: Final = {"pitch": 0.3, "roll": -0.2, "z": 82.0}
# What each turns out to be when it is first put together, mm and degrees.
_GLIDER: Final = {
    "wing": {"dx": 0.2, "dy": -0.3, "roll": 0.1, "pitch": 0.1, "yaw": 0.05},
    "fin": {"dx": 0.1, "roll": 1.8, "yaw": 0.1},
    "stab": {"dx": -0.2, "dz": 0.2, "roll": 0.2, "pitch": -0.1},
    "bench": _BENCH,
}
_PUSHER: Final = {
    "wing": {"dx": 0.2, "dy": 0.3, "roll": -0.1, "pitch": 0.1},
    "canard": {"dx": 0.1, "pitch": -0.9, "roll": 0.1},
    "fin": {"yaw": 0.1},
    "thrust": {"yaw": 0.1, "pitch": -0.1},
    "bench": _BENCH,
}
_VEE: Final = {
    "wing": {"roll": 0.1, "pitch": -0.1},
    "vee_port": {"roll": 0.2, "pitch": 0.1},
    "vee_starboard": {"roll": 2.2, "pitch": -0.2},
    "thrust": {"pitch": 1.1, "yaw": 0.1},
    "bench": _BENCH,
}


def _read(build: Build, truth: dict[str, dict[str, float]], share: float, seed: int) -> Build:
    """As much of the plan as was read of a model that stands so; more than once over where the share is more than 1."""
    survey = build.surveyed.but(instruments=EVERY_TOOL)
    rng = np.random.default_rng(seed)
    hidden = hidden_from(survey, truth)
    bare = judge_survey(survey, "dry")
    wanted = plan(bare.net, bare.solution, bare.rules)
    readings = tuple(
        one.but(
            id=f"r{i}",
            value=round(hidden.show(one) + float(rng.normal(0.0, sigma_of(one))), 2),
            phase="dry",
            taken=f"2026-11-{20 + i // 20}T19:{i % 60:02d}:00+00:00",
        )
        for i, one in enumerate((*wanted, *wanted)[: round(share * len(wanted))])
    )
    return build.but(survey=survey.but(readings=readings), stand_in=truth)


@cache
@with_order
def bracken() -> Build:
    """A glider with polyhedral wings and its stabilizer on the fin, all of it read: the fin leans."""
    figures = proposed("tee").model_copy(
        update={
            "name": GLIDER,
            "wing_span": 1800.0,
            "wing_dihedral": 2.0,
            "breaks": ((0.55, 8.0),),
            "fuselage": "stick",
        }
    )
    build = framing.frame_as_usual(build_from(figures))
    build = set_built(set_built(build, "stab", "ribbed"), "fin", "stick")
    return _read(build, _GLIDER, 2.0, 4)


@cache
@with_order
def yarrow() -> Build:
    """A pusher whose foreplane stands too low at its leading edge: what that does in the air."""
    build = framing.frame_as_usual(
        build_from(
            proposed("foreplane").model_copy(
                update={
                    "name": PUSHER,
                    "wing_span": 1150.0,
                    "wing_incidence": 0.0,
                    "stab_span": 500.0,
                    "stab_chord": 130.0,
                    "stab_incidence": 5.0,
                    "side": 1.0,
                    "down": -1.0,
                }
            )
        )
    )
    build = set_built(set_built(build, "canard", "foam"), "fin", "stick")
    build = build.but(
        masses=(
            Mass(id="airframe", mass=520.0, x=396.0),
            Mass(id="motor", mass=95.0, x=780.0, weighed=True),
        ),
        balance=Balance(target_percent=-57.0),
        flight=Flight(lift_coefficient=0.4, cm0=-0.02),
    )
    return _read(build, _PUSHER, 1.5, 7)


@cache
@with_order
def tansy() -> Build:
    """A V whose starboard half stands too steep, its engine a little up."""
    figures = Figures(
        name=VEE,
        tail="vee",
        wings="tube",
        wing_place="shoulder",
        wing_span=1400.0,
        wing_le_x=210.0,
        tail_arm=620.0,
        stab_span=600.0,
        stab_chord=125.0,
        fuselage="crutch",
        engine=True,
        down=2.0,
        side=1.5,
    )
    build = framing.frame_as_usual(build_from(figures))
    build = set_figures(set_built(build, "vee", "foam"), "vee", skin=0.8)
    return _read(build, _VEE, 1.6, 5)
