"""Placing a sheet by what another one shows too, beside the window."""

from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import QObject

from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.edits import paper as paper_edits
from hardkeel.messages import layout as say
from hardkeel.messages.faults import told
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.line_snapping import USUAL_PX_PER_MM
from hardkeel.paper.model import KnownPoint, Plan
from hardkeel.paper.picking import zero_of
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.scans import image_from
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.layout.scan_copies import ScanCopies, greys

if TYPE_CHECKING:
    from hardkeel.paper import ink, joining
else:
    ink, joining = late("hardkeel.paper.ink"), late("hardkeel.paper.joining")


class JoinController(QObject):
    """Carries out the wish that a sheet goes on from another; lives as long as the page."""

    def __init__(self, document: Document, page: LayoutPage, jobs: Jobs) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs = document, page, jobs
        page.made.connect(self._on_made)

    def _on_made(self, key: str, _page: object) -> None:
        if key == "paper":
            self._page.paper.plans.join_wanted.connect(self.join)

    def join(self, other: str) -> None:
        """Place the sheet on the desk by what it has in common with another."""
        paper, images = self._page.paper, self._document.session.images
        plan = paper.plan
        known = next((one for one in self._document.build.plans if one.id == other), None)
        if plan is None or known is None:
            return
        try:
            fit = calibrate(known)
            zero = zero_of(known, fit)
        except BadInput:
            paper.tell(say.NO_DATUM_THERE)
            return
        data = [images.read(one.image) for one in (known, plan)]
        if data[0] is None or data[1] is None:
            paper.tell(say.scan_is_gone(known.image if data[0] is None else plan.image))
            return
        first, second = data[0], data[1]
        per_mm = 1 / (fit.scale_x * fit.scale_y) ** 0.5
        paper.tell(say.LOOKING_FOR_OVERLAP)

        def work() -> tuple[KnownPoint, ...]:
            one, two = (ScanCopies(*image_from(some)) for some in (first, second))
            # both come off the same glass: of as many dots, or as each says
            other_per_mm = per_mm * two.dots_per_metre / max(one.dots_per_metre, 1)
            found = joining.same_places(
                ink.Ink(greys(one.image), per_mm * one.share),
                ink.Ink(greys(two.image), (other_per_mm or USUAL_PX_PER_MM) * two.share),
            )
            spots = fit.to_plan(np.array([same.one for same in found]) / one.share) - zero
            return tuple(
                KnownPoint(
                    pixel=(same.other[0] / two.share, same.other[1] / two.share),
                    plan=(float(x), float(y)),
                    of=known.id,
                )
                for same, (x, y) in zip(found, spots, strict=True)
            )

        self._jobs.start(
            self._document.session,
            "sheets joined",
            work,
            lambda points: self._take(plan, known.id, points),
            lambda why: paper.tell(
                told(why, paper.unit) if isinstance(why, BadInput) else str(why)
            ),
        )

    def _take(self, plan: Plan, other: str, points: object) -> None:
        paper = self._page.paper
        if not isinstance(points, tuple):
            return
        if paper.apply(say.place_edit(plan.id), paper_edits.place_by.of(plan.id, points)):
            kept = len(paper.plan.points) - len(points) if paper.plan is not None else 0
            own = sum(point.of is None for point in plan.points)
            paper.tell(say.placed_by(len(points), other, own - kept))
