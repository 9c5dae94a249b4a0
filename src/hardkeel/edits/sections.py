"""Pure edits of a former's section: box or round, how full it is, all formers alike."""

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.edits.fuselage import former_of, fuselage_of, replaced, with_fuselage
from hardkeel.edits.named import edit
from hardkeel.fuselage.model import Former, SectionShape
from hardkeel.project.model import Build


@edit
def set_round(build: Build, name: str, *, is_round: bool) -> Build:
    """Make a former's section round, an oval to begin with, or a box again; a drawn outline is given up.

    Raises
    ------
    BadInput
        When there is no such former.
    """
    shape = SectionShape() if is_round else None
    return replaced(build, former_of(fuselage_of(build), name).but(section=shape, outline=()))


@edit
def set_fullness(build: Build, /, name: str, **figures: float) -> Build:
    """Set a round section's exponents ``top`` and ``bottom``, or its ``widest`` height, mm.

    Raises
    ------
    BadInput
        When the former is not round, or it would be widest outside itself.
    """
    former = former_of(fuselage_of(build), name)
    if former.section is None:
        raise BadInput("", f"{name} is no round section")
    with faults_told():
        shape = SectionShape.model_validate({**former.section.model_dump(), **figures})
    if shape.widest is not None and not former.bottom < shape.widest < former.top:
        raise BadInput(f"{name}: widest line", "must lie between its bottom and its top")
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
