"""A new build from a dozen figures: bodies, seats, marks and tools enough to true it today."""

from itertools import pairwise
from typing import Final

from pydantic import BaseModel, ConfigDict

from hardkeel.base.errors import BadInput
from hardkeel.project.build import FORMAT, Build, Former, Fuselage, ModelClass, TailPost, Wing
from hardkeel.project.shapes import (
    Fin,
    Surface,
    fin_body,
    fin_marks,
    surface_body,
    surface_marks,
)
from hardkeel.survey.checking import TOLERANCES
from hardkeel.survey.model import FUSELAGE, Body, Finite, Instrument, Mark, Positive, Survey

# How much of the default tolerance a class allows.  Half a degree of incidence or roll is trimmed out
# unnoticed on a slow trainer; a precision model is flown through manoeuvres in which a trimmed-out
# error comes back with every change of speed, so it gets little more than good tools can prove.
CLASS_FACTOR: Final[dict[ModelClass, float]] = {"trainer": 1.5, "sport": 1.0, "precision": 0.6}

TOOL_CHOICES: Final[tuple[Instrument, ...]] = (
    Instrument(id="tape", kind="tape", label="tape"),
    Instrument(id="line", kind="line", label="line with a sliding mark"),
    Instrument(id="stand", kind="height-stand", label="height stand"),
    Instrument(id="gauge", kind="incidence-gauge", label="incidence gauge"),
    Instrument(id="level", kind="level", label="level"),
    Instrument(id="laser", kind="laser", label="centreline laser"),
    Instrument(id="square", kind="square", label="square"),
    Instrument(id="eye", kind="eye", label="the eye from the nose"),
)
_NOSE_SHARE: Final = (
    0.16  # of the wing span ahead of the leading edge, as usual for a tractor model
)
_DEPTH_SHARE: Final = 0.068  # fuselage depth at the wing, of the span


class Figures(BaseModel):
    """What the builder types, mm and degrees; the defaults are a middling sport model."""

    model_config = ConfigDict(frozen=True)

    name: str = "My model"
    wing_span: Positive = 1200.0
    wing_root: Positive = 200.0
    wing_tip: Positive = 180.0
    wing_le_x: Finite = 190.0
    wing_incidence: Finite = 1.5
    wing_dihedral: Finite = 3.0
    tail_arm: Positive = 560.0
    stab_span: Positive = 420.0
    stab_chord: Positive = 115.0
    stab_incidence: Finite = 0.0
    fin_height: Positive = 150.0
    fin_chord: Positive = 120.0
    model_class: ModelClass = "sport"
    tools: tuple[str, ...] = ("tape", "line", "stand", "gauge", "level")


def build_from(figures: Figures) -> Build:
    """Lay out a whole airframe around the figures.

    The tail arm runs from the wing's quarter chord to the stabilizer's, at the roots.  Nose, depth
    and formers are guesses in proportion, to be put right on the Lay out page; nothing in the
    survey depends on them but the two pins in the fuselage.

    Raises
    ------
    BadInput
        When figures contradict each other.
    """
    _check(figures)
    depth = max(30.0, _DEPTH_SHARE * figures.wing_span)
    stab_le = figures.wing_le_x + figures.wing_root / 4 + figures.tail_arm - figures.stab_chord / 4
    wing_z, stab_z = round(0.55 * depth, 1), round(0.3 * depth, 1)
    tail_end = stab_le + figures.stab_chord
    wing = Surface(
        "wing",
        figures.wing_le_x,
        wing_z,
        figures.wing_span,
        figures.wing_root,
        figures.wing_tip,
        sweep=(figures.wing_root - figures.wing_tip) / 2,
        dihedral=figures.wing_dihedral,
        incidence=figures.wing_incidence,
        seat_width=round(0.55 * depth, 1),
    )
    stab = Surface(
        "stab",
        stab_le,
        stab_z,
        figures.stab_span,
        figures.stab_chord,
        figures.stab_chord * 0.85,
        sweep=figures.stab_chord * 0.1,
        incidence=figures.stab_incidence,
        seat_width=round(0.25 * depth, 1),
    )
    fin = Fin(
        tail_end - figures.fin_chord,
        stab_z + 6,
        figures.fin_height,
        figures.fin_chord,
        figures.fin_chord * 0.6,
        figures.fin_chord * 0.35,
    )
    fuselage = _fuselage(figures, depth, tail_end)
    pins = fuselage_pins(fuselage, stab_le - 0.25 * figures.tail_arm)
    survey = Survey(
        bodies=(Body(id=FUSELAGE), surface_body(wing), surface_body(stab), fin_body(fin)),
        marks=(
            *pins,
            *surface_marks(wing, "wing"),
            *surface_marks(stab, "stabilizer"),
            *fin_marks(fin),
        ),
        readings=(),
        tolerances=class_tolerances(figures.model_class),
        instruments=tuple(tool for tool in TOOL_CHOICES if tool.id in figures.tools),
    )
    shape = Wing(
        id="wing",
        le_x=wing.le_x,
        z=wing.z,
        span=wing.span,
        root_chord=wing.root,
        tip_chord=wing.tip,
        sweep_le=wing.sweep,
        dihedral=wing.dihedral,
        incidence=wing.incidence,
    )
    return Build(
        format=FORMAT,
        name=figures.name.strip() or "My model",
        phase="dry",
        model_class=figures.model_class,
        fuselage=fuselage,
        wings=(shape,),
        survey=survey,
    )


def class_tolerances(model_class: ModelClass) -> dict[str, float] | None:
    """Tolerances of a class, by check id; ``None`` where the defaults stand."""
    factor = CLASS_FACTOR[model_class]
    if factor == 1.0:
        return None
    surfaces = ("incidence", "yaw", "roll", "offset", "twist_difference")
    ids = [f"{body}_{kind}" for body in ("wing", "stab") for kind in surfaces]
    ids += ["decalage", "stab_roll_to_wing", "fin_yaw", "fin_lean_to_stab"]

    def default(check: str) -> float:
        kind = check.removeprefix("wing_").removeprefix("stab_")
        return TOLERANCES.get(check, TOLERANCES.get(kind, 0.5))

    return {check: round(default(check) * factor, 3) for check in ids}


def fuselage_pins(fuselage: Fuselage, tail_x: float) -> tuple[Mark, ...]:
    """Marks that tie readings to the fuselage.

    Two pins on the top centre line to swing a line from, one under the nose, and the two upper
    longerons at the widest former: without something that has width nobody could tell a wing that
    is not level from a fuselage that leans.
    """

    def top_at(x: float) -> float:
        stations = [(f.station, f.top) for f in fuselage.formers]
        if fuselage.tail_post is not None:
            stations.append((fuselage.tail_post.station, fuselage.tail_post.top))
        for (x0, z0), (x1, z1) in pairwise(stations):
            if x0 <= x <= x1:
                return z0 + (z1 - z0) * (x - x0) / (x1 - x0)
        return stations[0][1] if x < stations[0][0] else stations[-1][1]

    nose_x = fuselage.formers[0].station + 10
    places = {"nose_pin": nose_x, "tail_pin": tail_x}
    pins = [
        Mark(
            id=name,
            body=FUSELAGE,
            at=(round(x, 1), 0.0, round(top_at(x), 1)),
            label=name.replace("_", " "),
        )
        for name, x in places.items()
    ]
    nose = fuselage.formers[0]
    foot = Mark(
        id="nose_foot", body=FUSELAGE, at=(nose.station, 0.0, nose.bottom), label="nose underside"
    )
    widest = max(fuselage.formers, key=lambda former: former.half_width)
    sides = [
        Mark(
            id=f"longeron_{side}",
            body=FUSELAGE,
            at=(widest.station, sign * widest.half_width, widest.top),
            label=f"{widest.id} upper longeron {side}",
        )
        for side, sign in (("port", -1), ("starboard", 1))
    ]
    return (*pins, foot, *sides)


def _fuselage(figures: Figures, depth: float, tail_end: float) -> Fuselage:
    nose = figures.wing_le_x - max(_NOSE_SHARE * figures.wing_span, 60.0)
    # station (share of the length), bottom, top and half-width as shares of the depth
    shares = (
        (0.0, -0.30, 0.25, 0.22),
        (0.10, -0.40, 0.40, 0.30),
        (0.20, -0.45, 0.53, 0.32),
        (0.42, -0.42, 0.53, 0.32),
        (0.60, -0.28, 0.45, 0.25),
        (0.78, -0.12, 0.37, 0.17),
        (0.92, 0.02, 0.31, 0.10),
    )
    length = tail_end - nose
    formers = tuple(
        Former(
            id=f"F{i}",
            station=round(nose + share * length, 1),
            bottom=round(low * depth, 1),
            top=round(high * depth, 1),
            half_width=round(half * depth, 1),
        )
        for i, (share, low, high, half) in enumerate(shares, start=1)
    )
    post = TailPost(
        station=round(tail_end, 1),
        bottom=round(0.08 * depth, 1),
        top=round(0.28 * depth, 1),
        half_width=round(0.05 * depth, 1),
    )
    return Fuselage(formers=formers, tail_post=post)


def _check(figures: Figures) -> None:
    gap = figures.wing_root / 4 + figures.tail_arm - figures.stab_chord / 4 - figures.wing_root
    if gap <= 0:
        raise BadInput("tail arm", "is so short that the stabilizer would stand in the wing")
    if figures.stab_span >= figures.wing_span:
        raise BadInput("stabilizer span", "is not smaller than the wing's")
    if figures.fin_chord > figures.tail_arm:
        raise BadInput("fin chord", "is longer than the tail arm")
