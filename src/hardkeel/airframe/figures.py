"""A new build from a dozen figures: bodies, seats, marks and tools enough to true it today."""

from itertools import pairwise, zip_longest
from typing import Final, Literal, get_args

from pydantic import BaseModel, ConfigDict

from hardkeel.airframe.arranging import Arrangement, arranged
from hardkeel.airframe.bodies import bodies_of, marks_from, struts_of, surfaces_of
from hardkeel.airframe.kinds import CRUTCH, ON_BOARD, SHEET_BOX, STICK, FuselageKind, fuselage_from
from hardkeel.airframe.laying import laid_on, usual_laid
from hardkeel.airframe.shapes import Surface
from hardkeel.airframe.strutting import strutted
from hardkeel.airframe.tolerances import class_tolerances
from hardkeel.balance.model import Break, Wing
from hardkeel.base.errors import BadInput
from hardkeel.base.values import Finite, Positive
from hardkeel.fuselage.model import Engine, Fuselage
from hardkeel.project.model import FORMAT, Build, ModelClass
from hardkeel.survey.model import Body, Instrument, SeatKind, Survey
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
_SITS: Final = {"high": 0.55, "shoulder": 0.40, "mid": 0.08, "low": -0.36}
_TOP: Final = 0.53  # of the depth over the datum line: the fuselage's top at the wing
_STAB_SITS: Final = 0.30
_FIN_STANDS_MM: Final = 6.0  # over the stabilizer's middle: its sheet and the fillet strip
# Tails of sport models: a stabilizer that tapers a little, a fin that is swept so that its hinge is upright.
_STAB_TAPER: Final = 0.85
_STAB_SWEEP: Final = 0.10
_FIN_TAPER: Final = 0.60
_FIN_SWEEP: Final = 0.35


_FIN_BEYOND: Final = 0.5  # of its chord behind the wing, where a foreplane flies ahead
_REACH: Final = 0.05  # of the span: a motor on its mount, and the spinner's plate
_DISC: Final = 0.2  # of the span: the propeller of a sport model
_BOLTS: Final = 0.4  # of the depth, between the bolts
_OVER_BELLY_MM: Final = 4.0  # the lower wing of a biplane: its saddle's sheet over the lowest point
_STAGGER: Final = (
    0.05  # of the span, upper wing ahead of the lower: for the view down, and the struts' slope
)
_GAP: Final = (
    0.15  # of the span between two wings: about their chord, so that they lift nearly as two
)
_THINNEST_POST_MM: Final = 2.0
TailKind = Literal["low", "tee", "vee", "twin", "foreplane"]
WingKind = Literal["one", "tube", "two"]
WingPlace = Literal["high", "shoulder", "mid", "low", "parasol"]
FuselageName = Literal["sheet-box", "stick", "crutch", "board"]
FUSELAGES: Final[dict[FuselageName, FuselageKind]] = {
    "sheet-box": SHEET_BOX,
    "stick": STICK,
    "crutch": CRUTCH,
    "board": ON_BOARD,
}
_WAYS: Final[dict[TailKind, Arrangement]] = {"tee": "t", "vee": "v", "twin": "twin"}


class Figures(BaseModel):
    """What the builder types, mm and degrees; the defaults are a middling sport model.

    Attributes
    ----------
    tail : str
        How the tail is arranged; a ``foreplane`` flies ahead of the wing, with the fin behind it.
    wings : str
        One piece, two panels on a tube, or two wings one over the other.
    wing_place : str
        Where it sits on the fuselage.
    parasol : float
        How high a parasol's wing stands over the fuselage.
    breaks : tuple of (share, dihedral)
        Where panels meet, as a share of the half span, and the dihedral from there on.
    swept : tuple of float, optional
        How far aft each of those panels' leading edges runs over its length, mm; ``None`` or missing goes on straight.
    comes_off : bool
        What lies outside the first break is taken off.
    tail_arm : float
        Between the quarter chords of wing and stabilizer; of a foreplane forward.
    stab_span, stab_chord, stab_incidence : float
        Of stabilizer or foreplane; of a V over both halves along the wood.
    fuselage : str
        Which of the kinds it is built as.
    length, width, depth : float, optional
        Of the fuselage; without them in proportion.
    engine : bool
        Whether there is one, with `down` and `side` thrust; a foreplane's pushes.
    """

    model_config = ConfigDict(frozen=True)

    name: str = "My model"
    tail: TailKind = "low"
    wings: WingKind = "one"
    wing_place: WingPlace = "high"
    parasol: Positive = 40.0
    breaks: tuple[tuple[float, float], ...] = ()
    swept: tuple[Finite | None, ...] = ()
    comes_off: bool = False
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
    fuselage: FuselageName = "sheet-box"
    length: Positive | None = None
    width: Positive | None = None
    depth: Positive | None = None
    engine: bool = False
    down: Finite = 0.0
    side: Finite = 0.0
    model_class: ModelClass = "sport"
    tools: tuple[str, ...] = ("tape", "line", "stand", "gauge", "level")


ModelKind = Literal["low", "tee", "vee", "twin", "foreplane", "biplane"]
MODEL_KINDS: Final[tuple[ModelKind, ...]] = get_args(ModelKind)


def proposed(kind: ModelKind) -> Figures:
    """A middling model of a kind: what stands in the fields until the builder types his own.

    The V has the area of the stabilizer and fin that it stands for, over the cosines of its lean; the foreplane's wing
    is behind the middle and lifts at less incidence than the foreplane, so that this stalls first.
    """
    match kind:
        case "low":
            return Figures()
        case "tee":
            return Figures(tail="tee", wing_span=1600.0, wing_root=190.0, wing_tip=140.0, wing_le_x=230.0, tail_arm=680.0, breaks=((0.6, 9.0),))  # fmt: skip
        case "vee":
            return Figures(tail="vee", stab_span=560.0, stab_chord=120.0)
        case "twin":
            return Figures(tail="twin", fin_height=110.0, fin_chord=95.0)
        case "foreplane":
            return Figures(tail="foreplane", wing_le_x=560.0, wing_incidence=0.5, stab_incidence=3.0, tail_arm=560.0, stab_span=440.0, stab_chord=120.0, engine=True)  # fmt: skip
        case "biplane":
            return Figures(wings="two", wing_span=1000.0, wing_root=170.0, wing_tip=170.0, wing_le_x=180.0, wing_incidence=1.0, wing_dihedral=2.0, tail_arm=520.0, stab_span=360.0, stab_chord=110.0)  # fmt: skip


def build_from(figures: Figures, shared: Shared | None = USUAL_SHARED) -> Build:
    """Lay out a whole airframe around the figures.

    What is not typed (nose, depth, formers, where surfaces sit) is a guess in proportion, to be put right on the Lay
    out page; nothing in the survey depends on it but the pins in the fuselage and the width of the seats.

    Raises
    ------
    BadInput
        When figures contradict each other.
    """
    _check(figures)
    depth = figures.depth or max(_THINNEST_MM, _DEPTH_SHARE * figures.wing_span)
    tail = _tail(figures, depth)
    nose, end = _ends(figures, tail)
    body = fuselage_from(FUSELAGES[figures.fuselage], nose, end - nose, depth)
    if figures.width is not None:
        body = _as_wide(body, figures.width)
    if figures.engine:
        body = body.but(engine=_engine(figures, depth))
    build = Build(
        format=FORMAT,
        name=figures.name.strip() or "My model",
        phase="dry",
        model_class=figures.model_class,
        fuselage=body,
        wings=_wings(figures, body, depth),
        tail=tail,
    )
    bodies = _seated(build, figures)
    survey = Survey(
        bodies=bodies,
        marks=marks_from(build),
        readings=(),
        tolerances=class_tolerances(figures.model_class, bodies),
        instruments=tuple(tool for tool in TOOL_CHOICES if tool.id in figures.tools),
    )
    return build.but(survey=survey if shared is None else survey.but(shared=shared))


def _tail(figures: Figures, depth: float) -> tuple[TailSurface, ...]:
    quarter = figures.wing_le_x + figures.wing_root / 4
    ahead = figures.tail == "foreplane"
    stab_le = quarter + (-1 if ahead else 1) * figures.tail_arm - figures.stab_chord / 4
    stab_z = round(_STAB_SITS * depth, 1)
    lying = TailSurface(
        id="canard" if ahead else "stab",
        span=figures.stab_span,
        root_chord=figures.stab_chord,
        tip_chord=round(figures.stab_chord * _STAB_TAPER, 2),
        sweep_le=round(figures.stab_chord * _STAB_SWEEP, 2),
        le_x=stab_le,
        z=stab_z,
        incidence=figures.stab_incidence,
        seat_width=None if ahead else round(_TAIL_SEAT_SHARE * depth, 1),
    )
    end = stab_le + figures.stab_chord
    if ahead:  # the fin stands behind the wing, half of it beyond
        end = figures.wing_le_x + figures.wing_root + _FIN_BEYOND * figures.fin_chord
    fin = TailSurface(
        id="fin",
        span=2 * figures.fin_height,
        root_chord=figures.fin_chord,
        tip_chord=round(figures.fin_chord * _FIN_TAPER, 2),
        sweep_le=round(figures.fin_chord * _FIN_SWEEP, 2),
        le_x=end - figures.fin_chord,
        z=stab_z + _FIN_STANDS_MM,
        upright=True,
    )
    way = _WAYS.get(figures.tail)
    return arranged((lying, fin), way) if way is not None else (lying, fin)


def _ends(figures: Figures, tail: tuple[TailSurface, ...]) -> tuple[float, float]:
    """Stations of nose and tail."""
    rear = max((one.le_x or 0.0) + (one.root_chord or 0.0) for one in tail if not one.y)
    end = max(rear, figures.wing_le_x + figures.wing_root)
    front = min(figures.wing_le_x, *((one.le_x or 0.0) for one in tail))
    ahead = SHORTEST_NOSE_MM if front < figures.wing_le_x else NOSE_SHARE * figures.wing_span
    nose = front - max(ahead, SHORTEST_NOSE_MM)
    if figures.length is not None:
        nose = end - figures.length
        if nose >= front:
            raise BadInput("length", "is so short that wing or tail would stand before the nose")
    return nose, end


def _as_wide(body: Fuselage, width: float) -> Fuselage:
    """Every half-width in proportion, the widest half of what is wanted."""
    widest = 2 * max(former.half_width for former in body.formers)
    share = width / widest
    post = body.tail_post
    return body.but(
        formers=tuple(one.but(half_width=round(one.half_width * share, 1)) for one in body.formers),
        tail_post=post.but(half_width=max(round(post.half_width * share, 1), _THINNEST_POST_MM))
        if post is not None
        else None,
    )


def _engine(figures: Figures, depth: float) -> Engine:
    reach = _REACH * figures.wing_span
    return Engine(
        down=figures.down,
        side=figures.side,
        z=0.0,
        reach=round(-reach if figures.tail == "foreplane" else reach, 1),
        disc=round(_DISC * figures.wing_span, 0),
        bolts=(round(_BOLTS * depth, 0), round(_BOLTS * depth, 0)),
    )


def _wings(figures: Figures, body: Fuselage, depth: float) -> tuple[Wing, ...]:
    half = figures.wing_span / 2
    sits = _SITS.get(figures.wing_place, _SITS["high"]) * depth
    if figures.wing_place == "parasol":
        sits = _TOP * depth + figures.parasol
    wing = Wing(
        id="wing",
        le_x=figures.wing_le_x,
        z=round(sits, 1),
        span=figures.wing_span,
        root_chord=figures.wing_root,
        tip_chord=figures.wing_tip,
        sweep_le=(figures.wing_root - figures.wing_tip) / 2,
        dihedral=figures.wing_dihedral,
        incidence=figures.wing_incidence,
    )
    if figures.breaks:
        made = tuple(
            Break(
                y=round(share * half, 1),
                dihedral=up,
                sweep=swept,
                comes_off=figures.comes_off and number == 0,
            )
            for number, ((share, up), swept) in enumerate(
                zip_longest(figures.breaks, figures.swept[: len(figures.breaks)])
            )
        )
        wing = wing.but(breaks=made)
    if figures.wings != "two":
        return (wing,)
    belly = min(former.bottom for former in body.formers) + _OVER_BELLY_MM
    span = figures.wing_span
    upper = wing.but(
        id="upper_wing",
        le_x=round(wing.le_x - _STAGGER * span, 1),
        z=round(belly + _GAP * span, 1),
        dihedral=0.0,
        breaks=(),
    )
    return (wing.but(z=round(belly, 1)), upper)


def _seated(build: Build, figures: Figures) -> tuple[Body, ...]:
    """What the wing sits on, where that is no saddle."""
    bodies, kinds = bodies_of(build), dict[str, SeatKind]()
    if figures.wings == "tube":
        kinds["wing"] = "tube"
    if figures.wing_place == "parasol":
        kinds["wing"] = "cabane"
    shapes = {one.id: one for one in surfaces_of(build) if isinstance(one, Surface)}
    bodies = tuple(
        _held(one, shapes[one.id], kinds[one.id]) if one.id in kinds else one for one in bodies
    )
    if figures.wings != "two":
        return bodies
    upper = next(
        one for one in surfaces_of(build) if isinstance(one, Surface) and one.id == "upper_wing"
    )
    struts = struts_of(build, upper.id)
    return tuple(strutted(one, upper, struts) if one.id == upper.id else one for one in bodies)


def _held(body: Body, surface: Surface, kind: SeatKind) -> Body:
    """A surface that is described with its seat is held where that usually is."""
    laid = laid_on(body, surface, usual_laid(kind, surface).but(said=True))
    return laid.but(seat=laid.seat.but(kind=kind)) if laid.seat is not None else laid


def _check(figures: Figures) -> None:
    ahead = figures.tail == "foreplane"
    wing, other = (
        (figures.stab_chord, figures.wing_root)
        if ahead
        else (figures.wing_root, figures.stab_chord)
    )
    gap = wing / 4 + figures.tail_arm - other / 4 - wing
    if gap <= 0:
        raise BadInput("tail arm", "is so short that tail and wing would stand in each other")
    if figures.stab_span >= figures.wing_span:
        raise BadInput("stabilizer span", "is not smaller than the wing's")
    shares = [0.0, *(share for share, _ in figures.breaks), 1.0]
    if any(not a < b for a, b in pairwise(shares)):
        raise BadInput("breaks", "must follow each other from the middle to the tip")
    if figures.fin_chord > figures.tail_arm:
        raise BadInput("fin chord", "is longer than the tail arm")
