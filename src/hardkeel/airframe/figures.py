"""A new build from a dozen figures: bodies, seats, marks and tools enough to true it today."""

from typing import Final

from pydantic import BaseModel, ConfigDict

from hardkeel.airframe.bodies import bodies_of, marks_from
from hardkeel.airframe.kinds import SHEET_BOX, FuselageKind, fuselage_from
from hardkeel.airframe.tolerances import class_tolerances
from hardkeel.balance.model import Wing
from hardkeel.base.errors import BadInput
from hardkeel.base.values import Finite, Positive
from hardkeel.project.model import FORMAT, Build, ModelClass
from hardkeel.survey.model import Instrument, Survey
from hardkeel.survey.priors import USUAL_SHARED, Shared
from hardkeel.survey.proposing import EVERY_TOOL
from hardkeel.tail.model import TailSurface

TOOL_CHOICES: Final[tuple[Instrument, ...]] = (
    *EVERY_TOOL,
    Instrument(id="square", kind="square"),
    Instrument(id="trammel", kind="trammel"),
    Instrument(id="stands", kind="stand-pair"),
    Instrument(id="digital", kind="digital-level"),
    Instrument(id="water", kind="water-level"),
    Instrument(id="eye", kind="eye"),
)
NOSE_SHARE: Final = 0.16  # of the wing span ahead of the leading edge, as usual for a tractor model
_TAIL_SEAT_SHARE: Final = 0.25  # of the depth: a stabilizer sits on a platform
SHORTEST_NOSE_MM: Final = 60.0
_DEPTH_SHARE: Final = 0.068  # fuselage depth at the wing, of the span
_THINNEST_MM: Final = 30.0  # depth: a receiver and a servo side by side want as much
# Where surfaces sit, as shares of the depth over the datum line: a wing in a saddle a little over the
# middle, a stabilizer on a platform below it, so that neither stands in the other's wake on the bench.
_WING_SITS: Final = 0.55
_STAB_SITS: Final = 0.30
_FIN_STANDS_MM: Final = 6.0  # over the stabilizer's middle: its sheet and the fillet strip
# Tails of sport models: a stabilizer that tapers a little, a fin that is swept so that its hinge is upright.
_STAB_TAPER: Final = 0.85
_STAB_SWEEP: Final = 0.10
_FIN_TAPER: Final = 0.60
_FIN_SWEEP: Final = 0.35


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


def build_from(
    figures: Figures, kind: FuselageKind = SHEET_BOX, shared: Shared | None = USUAL_SHARED
) -> Build:
    """Lay out a whole airframe around the figures.

    The tail arm runs from the wing's quarter chord to the stabilizer's, at the roots.  Nose, depth
    and formers are guesses in proportion, to be put right on the Lay out page; nothing in the
    survey depends on them but the pins in the fuselage and the width of the seats.

    Raises
    ------
    BadInput
        When figures contradict each other.
    """
    _check(figures)
    depth = max(_THINNEST_MM, _DEPTH_SHARE * figures.wing_span)
    stab_le = figures.wing_le_x + figures.wing_root / 4 + figures.tail_arm - figures.stab_chord / 4
    wing_z, stab_z = round(_WING_SITS * depth, 1), round(_STAB_SITS * depth, 1)
    tail_end = stab_le + figures.stab_chord
    wing = Wing(
        id="wing",
        le_x=figures.wing_le_x,
        z=wing_z,
        span=figures.wing_span,
        root_chord=figures.wing_root,
        tip_chord=figures.wing_tip,
        sweep_le=(figures.wing_root - figures.wing_tip) / 2,
        dihedral=figures.wing_dihedral,
        incidence=figures.wing_incidence,
    )
    stab = TailSurface(
        id="stab",
        span=figures.stab_span,
        root_chord=figures.stab_chord,
        tip_chord=round(figures.stab_chord * _STAB_TAPER, 2),
        sweep_le=round(figures.stab_chord * _STAB_SWEEP, 2),
        le_x=stab_le,
        z=stab_z,
        incidence=figures.stab_incidence,
        seat_width=round(_TAIL_SEAT_SHARE * depth, 1),
    )
    fin = TailSurface(
        id="fin",
        span=2 * figures.fin_height,
        root_chord=figures.fin_chord,
        tip_chord=round(figures.fin_chord * _FIN_TAPER, 2),
        sweep_le=round(figures.fin_chord * _FIN_SWEEP, 2),
        le_x=tail_end - figures.fin_chord,
        z=stab_z + _FIN_STANDS_MM,
        upright=True,
    )
    nose = figures.wing_le_x - max(NOSE_SHARE * figures.wing_span, SHORTEST_NOSE_MM)
    build = Build(
        format=FORMAT,
        name=figures.name.strip() or "My model",
        phase="dry",
        model_class=figures.model_class,
        fuselage=fuselage_from(kind, nose, tail_end - nose, depth),
        wings=(wing,),
        tail=(stab, fin),
    )
    survey = Survey(
        bodies=bodies_of(build),
        marks=marks_from(build),
        readings=(),
        tolerances=class_tolerances(figures.model_class, bodies_of(build)),
        instruments=tuple(tool for tool in TOOL_CHOICES if tool.id in figures.tools),
    )
    return build.but(survey=survey if shared is None else survey.but(shared=shared))


def _check(figures: Figures) -> None:
    gap = figures.wing_root / 4 + figures.tail_arm - figures.stab_chord / 4 - figures.wing_root
    if gap <= 0:
        raise BadInput("tail arm", "is so short that the stabilizer would stand in the wing")
    if figures.stab_span >= figures.wing_span:
        raise BadInput("stabilizer span", "is not smaller than the wing's")
    if figures.fin_chord > figures.tail_arm:
        raise BadInput("fin chord", "is longer than the tail arm")
