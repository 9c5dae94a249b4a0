"""Does a whole build hang together?  What no single value can know, section by section."""

from typing import TYPE_CHECKING

from hardkeel.balance.balancing import check_balance
from hardkeel.balance.model import Balance, Wing
from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.base.values import unique_ids
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.project.model import Build
from hardkeel.schedule.ordering import check_steps
from hardkeel.schedule.tasks import check_evenings
from hardkeel.survey.soundness import check_survey

if TYPE_CHECKING:
    from hardkeel.fuselage import squaring
else:  # it brings the whole adjustment with it
    squaring = late("hardkeel.fuselage.squaring")


def _check_breaks(wing: Wing, place: str) -> None:
    """Raise where a wing's breaks do not follow each other from the middle to the tip."""
    inner = 0.0
    for i, one in enumerate(wing.breaks):
        if not inner < one.y < wing.span / 2:
            raise BadInput(
                f"{place}[{i}].y", "must lie outside the one before it, and inside the tip"
            )
        inner = one.y


def check_build(build: Build) -> None:
    """Raise on the first thing that does not fit.

    Raises
    ------
    BadInput
        Naming the place in the file's own terms.
    """
    if build.survey is not None:
        check_survey(build.survey)
    if build.fuselage is not None:
        check_fuselage(build.fuselage)
        if build.fuselage.squaring is not None:
            squaring.check_squaring(build.fuselage)
    unique_ids("wings", (wing.id for wing in build.wings))
    for i, wing in enumerate(build.wings):
        _check_breaks(wing, f"wings[{i}].breaks")
    unique_ids("tail", (surface.id for surface in build.tail))
    unique_ids("audit", (sheet.id for sheet in build.audit))
    unique_ids("plans", (plan.id for plan in build.plans))
    if build.steps:
        check_steps(build.steps)
    if build.bench is not None and build.bench.evenings:
        check_evenings(build.bench)
    check_balance(build.masses, build.balance or Balance())
