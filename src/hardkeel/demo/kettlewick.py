"""The Kettlewick 1280: an invented high-wing sport model, half way through its truing."""

from datetime import datetime, timedelta, timezone
from functools import cache
from typing import Any, Final

import numpy as np

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.demo.laid import with_order
from hardkeel.demo.tails import of_sticks
from hardkeel.demo.workshop import furnish
from hardkeel.edits import truing as edits
from hardkeel.fuselage.model import Fuselage
from hardkeel.logbook.entries import Entry, Session
from hardkeel.practice.hidden import Hidden, hidden_from
from hardkeel.project.model import Build
from hardkeel.schedule.model import BenchTime, Evening
from hardkeel.survey.model import FUSELAGE, Mark
from hardkeel.survey.readings import (
    ANGULAR,
    Distance,
    DistanceDifference,
    Height,
    Incidence,
    Offset,
    Phase,
    Reading,
    Tilt,
)

# The hidden truth: the stabilizer sits 0.85° low to port and a little askew, the rest is good work.
TRUTH: Final = {
    "wing": {
        "dx": 0.3,
        "dy": -0.2,
        "dz": 0.2,
        "roll": 0.05,
        "pitch": -0.06,
        "yaw": 0.03,
        "twist_port": 0.08,
        "twist_starboard": 0.02,
    },
    "stab": {
        "dx": -0.3,
        "dy": 0.3,
        "dz": 0.1,
        "roll": 0.95,
        "pitch": 0.08,
        "yaw": 0.24,
        "twist_port": 0.03,
        "twist_starboard": -0.04,
    },
    "fin": {"dx": 0.1, "dy": 0.2, "roll": 0.1, "yaw": 0.05},
    "bench": {"pitch": 0.35, "roll": -0.2, "z": 92.0},
}
_WET: Final = {"roll": 0.08, "pitch": 0.15}  # what the glue did to the wing when it was seated
_SEED: Final = 20
_START: Final = datetime(2026, 10, 3, 19, 5, tzinfo=timezone(timedelta(hours=1)))
_FIGURES: Final = Figures(
    name="Kettlewick 1280",
    wing_span=1280,
    wing_root=205,
    wing_tip=175,
    wing_le_x=185,
    wing_incidence=1.8,
    wing_dihedral=2.5,
    tail_arm=600,
    stab_span=440,
    stab_chord=120,
    fin_height=125,
    fin_chord=125,
    tools=("tape", "line", "stand", "gauge", "level", "laser"),
)
_EVENINGS: Final = tuple(
    Evening(start=start, minutes=minutes)
    for start, minutes in (
        ("2026-10-06T19:00", 120),
        ("2026-10-08T19:00", 120),
        ("2026-10-10T10:00", 180),
        ("2026-10-13T19:00", 120),
        ("2026-10-15T19:00", 120),
        ("2026-10-17T10:00", 180),
    )
)
_DECK: Final = (547.8, 21.8, 39.2)  # pins for photos, on the upper longerons at F5
_ANGLE_STEP: Final = 0.05  # what the gauges and the tape show, degrees and mm
_LENGTH_STEP: Final = 0.1
_MISREAD_MM: Final = 10.0  # a tape read off by one centimetre mark
_MISREAD: Final = ("nose_pin", "stab_tip_te_starboard")


@cache
@with_order
def demo_build() -> Build:
    """The demo as it opens: dry fit nearly measured, wing already wet."""
    # its stand-in gauges err each by itself, so nothing is supposed to be shared
    build = build_from(_FIGURES, shared=None)
    hidden = hidden_from(build.surveyed, TRUTH)
    build = build.but(
        log=_early_log(), sessions=_SESSIONS, stand_in=TRUTH, club="Fenmouth Marsh Model Flyers"
    )
    rng = np.random.default_rng(_SEED)
    build = _take(build, hidden, rng, "dry", _dry_readings(), _START)
    moved = {
        **TRUTH,
        "wing": {**TRUTH["wing"], **{k: TRUTH["wing"][k] + v for k, v in _WET.items()}},
    }
    wet = hidden_from(build.surveyed, moved)
    build = _take(build, wet, rng, "wet", _wet_readings(), _START + timedelta(days=1, minutes=40))
    build = build.but(bench=BenchTime(evenings=_EVENINGS, resources={"board": 1, "clamps": 2}))
    survey = build.surveyed
    x, y, z = _DECK
    pins = (
        Mark(id="deck_pin_port", body=FUSELAGE, at=(x, -y, z)),
        Mark(id="deck_pin_starboard", body=FUSELAGE, at=(x, y, z)),
    )
    build = build.but(survey=survey.but(marks=(*survey.marks, *pins)))
    return furnish(of_sticks(edits.set_phase(build, "dry")))


def demo_fuselage() -> Fuselage:
    """The demo's fuselage as drawn."""
    return build_from(_FIGURES).fuselage or Fuselage()


def _take(
    build: Build,
    hidden: Hidden,
    rng: np.random.Generator,
    phase: Phase,
    places: list[Reading],
    start: datetime,
) -> Build:
    for i, place in enumerate(places):
        value = hidden.measure(place, rng)
        if isinstance(place, Distance) and (place.from_, place.to) == _MISREAD and phase == "dry":
            value += _MISREAD_MM
        step = _ANGLE_STEP if place.kind in ANGULAR else _LENGTH_STEP
        taken = place.but(value=round(round(value / step) * step, 2), phase=phase)
        build = edits.take_reading(build, taken, start + timedelta(minutes=2 * i))
    return build


def _dry_readings() -> list[Reading]:
    common: dict[str, Any] = {"id": "?", "value": 0.0}

    def tape(start: str, end: str) -> Reading:
        return Distance(**common, from_=start, to=end, instrument="tape")

    def gauge(body: str, side: str, share: float) -> Reading:
        return Incidence(**common, body=body, side=side, span_fraction=share, instrument="gauge")  # type: ignore[arg-type]

    def level(start: str, end: str) -> Reading:
        return Tilt(**common, from_=start, to=end, instrument="level")

    readings: list[Reading] = [level("longeron_port", "longeron_starboard")]
    readings += [level(f"wing_tip_{e}_port", f"wing_tip_{e}_starboard") for e in ("le", "te")]
    readings += [
        gauge("wing", side, share) for side in ("port", "starboard") for share in (0.1, 0.5, 0.9)
    ]
    for corner in ("le", "te"):
        for side in ("port", "starboard"):
            readings.append(tape("tail_pin", f"wing_tip_{corner}_{side}"))
    readings.append(
        DistanceDifference(
            **common,
            from_="tail_pin",
            to=("wing_tip_te_port", "wing_tip_te_starboard"),
            instrument="line",
        )
    )
    readings += [
        gauge("stab", side, share) for side in ("port", "starboard") for share in (0.2, 0.8)
    ]
    readings += [tape("nose_pin", f"stab_tip_te_{side}") for side in ("port", "starboard")]
    readings += [tape("tail_pin", f"stab_tip_te_{side}") for side in ("port", "starboard")]
    readings += [
        tape(f"wing_tip_te_{side}", f"stab_tip_le_{side}") for side in ("port", "starboard")
    ]
    readings += [level(f"stab_tip_{e}_port", f"stab_tip_{e}_starboard") for e in ("le", "te")]
    readings += [
        Height(**common, mark=f"stab_tip_te_{side}", instrument="stand")
        for side in ("port", "starboard")
    ]
    readings += [
        Offset(**common, mark=mark, instrument="laser")
        for mark in ("wing_mid_le", "wing_mid_te", "stab_mid_le", "fin_top_te", "fin_foot_te")
    ]
    readings.append(Offset(**common, mark="fin_top_le", instrument="laser"))
    return readings


def _wet_readings() -> list[Reading]:
    common: dict[str, Any] = {"id": "?", "value": 0.0}
    return [
        Tilt(**common, from_="longeron_port", to="longeron_starboard", instrument="level"),
        Tilt(**common, from_="wing_tip_le_port", to="wing_tip_le_starboard", instrument="level"),
        Tilt(**common, from_="wing_tip_te_port", to="wing_tip_te_starboard", instrument="level"),
        Incidence(**common, body="wing", side="port", span_fraction=0.1, instrument="gauge"),
        Incidence(**common, body="wing", side="starboard", span_fraction=0.1, instrument="gauge"),
        Distance(**common, from_="tail_pin", to="wing_tip_te_port", instrument="tape"),
        Distance(**common, from_="tail_pin", to="wing_tip_te_starboard", instrument="tape"),
    ]


_SESSIONS: Final = (
    Session(day="2026-09-19", hours=3.5, note="sides and doublers"),
    Session(day="2026-09-20", hours=2.25, note="formers, dry"),
    Session(day="2026-09-26", hours=4.0, note="fuselage boxed"),
    Session(day="2026-10-02", hours=2.5, note="tail skeleton"),
    Session(day="2026-10-03", hours=1.75, note="dry fit on the board"),
)


def _early_log() -> tuple[Entry, ...]:
    notes = (
        (
            "2026-09-19T18:30:00+01:00",
            "note",
            "Doublers glued with slow epoxy under weights, one port, one starboard. Checked as a pair.",
        ),
        (
            "2026-09-20T17:10:00+01:00",
            "note",
            "F3 and F4 squared top and bottom. F5 was 1 mm proud to starboard, sanded.",
        ),
        (
            "2026-09-26T20:45:00+01:00",
            "change",
            "Made the skid plate 8 mm longer than the plan has it: a knot in the ply lay where its rear screw goes.",
        ),
        (
            "2026-10-02T19:55:00+01:00",
            "note",
            "Stabilizer dried flat overnight. No twist to the eye.",
        ),
    )
    return tuple(Entry(at=at, by="builder", kind=kind, text=text) for at, kind, text in notes)  # type: ignore[arg-type]
