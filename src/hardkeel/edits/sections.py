"""Pure edits of a former's section: box or round, how full it is, all formers alike."""

from typing import Final, Literal

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.edits.fuselage import former_of, fuselage_of, replaced, with_fuselage
from hardkeel.edits.named import edit
from hardkeel.fuselage.contours import rise_of
from hardkeel.fuselage.model import Former, SectionShape
from hardkeel.project.model import Build

Shape = Literal["box", "round", "flat-sides"]
_DECK_SHARE: Final = 0.3  # of its height, where flat sides begin to carry a deck


@edit
def set_shape(build: Build, name: str, shape: Shape) -> Build:
    """Make a former's section round, an oval to begin with, flat-sided with a round deck, or a box again.

    A drawn outline is given up.

    Raises
    ------
    BadInput
        When there is no such former.
    """
    former = former_of(fuselage_of(build), name)
    tall = former.top - former.bottom
    deck = round(min(former.half_width, _DECK_SHARE * tall), 1)
    made = {
        "box": None,
        "round": SectionShape(),
        "flat-sides": SectionShape(kind="flat-sides", deck=deck),
    }[shape]
    return replaced(build, former.but(section=made, outline=()))


@edit
def set_ring(build: Build, name: str, diameter: float) -> Build:
    """Make a former a round ring of a diameter, mm, about the middle of its height: a spinner's, a cowl's.

    Raises
    ------
    BadInput
        When there is no such former, or the diameter is none.
    """
    former = former_of(fuselage_of(build), name)
    if diameter <= 0:
        raise BadInput(f"{name}: diameter", "must be more than nothing")
    middle, half = (former.bottom + former.top) / 2, diameter / 2
    ring = former.but(
        half_width=half,
        bottom=middle - half,
        top=middle + half,
        section=SectionShape(),
        outline=(),
        corner=0.0,
    )
    return replaced(build, ring)


@edit
def set_fullness(build: Build, /, name: str, **figures: float) -> Build:
    """Set a round section's exponents ``top`` and ``bottom``, or its ``widest`` height; rises of flat sides, mm.

    Parameters
    ----------
    figures
        Of flat sides ``deck`` and ``belly``, or their radii ``deck_radius`` and ``belly_radius``.

    Raises
    ------
    BadInput
        When the former is not round, it would be widest outside itself, or deck and belly leave no side.
    """
    former = former_of(fuselage_of(build), name)
    if former.section is None:
        raise BadInput("", f"{name} is no round section")
    for key in [key for key in figures if key.endswith("_radius")]:
        rise = rise_of(former.half_width, figures.pop(key))
        figures[key.removesuffix("_radius")] = round(rise, 2)
    with faults_told():
        shape = SectionShape.model_validate({**former.section.model_dump(), **figures})
    if shape.widest is not None and not former.bottom < shape.widest < former.top:
        raise BadInput(f"{name}: widest line", "must lie between its bottom and its top")
    if shape.kind == "flat-sides" and shape.deck + shape.belly > former.top - former.bottom:
        raise BadInput(f"{name}: deck and belly", "are together higher than the former")
    return replaced(build, former.but(section=shape))


@edit
def shape_all_like(build: Build, name: str) -> Build:
    """Give every former the section shape of one of them, widest at the same share of its height.

    Raises
    ------
    BadInput
        When there is no such former.
    """
    fuselage = fuselage_of(build)
    like = former_of(fuselage, name)
    shape = like.section
    share = None
    if shape is not None and shape.widest is not None:
        share = (shape.widest - like.bottom) / (like.top - like.bottom)

    def shaped(former: Former) -> Former:
        if shape is None:
            return former.but(section=None, outline=())
        widest = (
            None
            if share is None
            else round(former.bottom + share * (former.top - former.bottom), 2)
        )
        return former.but(section=shape.but(widest=widest), outline=())

    formers = tuple(like if one.id == name else shaped(one) for one in fuselage.formers)
    return with_fuselage(build, fuselage.but(formers=formers))
