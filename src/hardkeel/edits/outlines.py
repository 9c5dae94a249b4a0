"""Pure edit: an outline that was taken from a part, for a former or a tail surface."""

from collections.abc import Sequence

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.edits.fuselage import give_outline
from hardkeel.edits.named import edit
from hardkeel.edits.tail import set_outline
from hardkeel.project.model import Build


@edit
def give_taken(build: Build, name: str, ring: Sequence[Point2]) -> Build:
    """Give a former or a tail surface an outline as it lay on the mat, mm.

    A former stands as it lay, its top to the mat's; a tail surface, a half or the whole, lies with what is ahead up,
    turned by no more than its straight root tells.

    Raises
    ------
    BadInput
        When there is neither of this name, or the outline is none of its kind.
    """
    if any(one.id == name for one in build.tail):
        # x aft and y out, as a drawing has it: what was up on the mat is ahead
        return set_outline(build, name, tuple((-y, x) for x, y in ring))
    formers = build.fuselage.formers if build.fuselage is not None else ()
    if all(one.id != name for one in formers):
        raise BadInput("outline", f'no former and no tail surface "{name}"')
    return give_outline(build, name, ring)
