"""Following a sheet's ink beside the window: one click on a line, one more further along, or a pull."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final, cast

import numpy as np
from PyQt6.QtCore import QObject

from hardkeel.base.errors import GivenUp, HardKeelError
from hardkeel.base.late import late
from hardkeel.base.values import Point2
from hardkeel.edits import paper as paper_edits
from hardkeel.messages import paper as say
from hardkeel.paper.model import Plan, Trace, TraceKind
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.layout.paper_page import PaperPage

if TYPE_CHECKING:
    from hardkeel.paper import following, ink_following, outline_shapes
    from hardkeel.paper import ink as inks

    Work = Callable[[inks.Ink, Callable[[int, int], None]], following.Traced | None]
else:
    following, inks = late("hardkeel.paper.following"), late("hardkeel.paper.ink")
    outline_shapes = late("hardkeel.paper.outline_shapes")

_ON_IT_MM: Final = 0.8  # a click so near to what was followed adds nothing
_BESIDE_MM: Final = 3.0  # beyond a line's end, fore or aft, a click goes on with it


@dataclass(frozen=True, slots=True)
class _Wish:
    """What is to be followed, and what the answer becomes."""

    plan_id: str
    kind: TraceKind
    click: Point2
    instead_of: str | None = None


class InkController(QObject):
    """Carries out what is clicked on the paper desk's lines; lives as long as the page."""

    def __init__(self, document: Document, page: LayoutPage, jobs: Jobs) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs = document, page, jobs
        self._ink: tuple[object, inks.Ink] | None = None
        self._half_at: float | None = None  # plan x of the centre line that the last half stands on
        self._last: Point2 | None = None  # middle of the outline given last
        self._busy = False  # with an outline
        self._waiting: list[Point2] = []  # clicked on outlines meanwhile
        page.made.connect(self._on_made)
        document.build_opened.connect(self._forget)

    @property
    def _paper(self) -> PaperPage:
        return self._page.paper

    def _on_made(self, key: str, _page: object) -> None:
        if key == "paper":
            self._paper.line_clicked.connect(self._on_line_clicked)
            self._paper.sheet.pulled.connect(self._on_pulled)
            self._paper.plans.plan_picked.connect(lambda _name: self._forget())

    def _forget(self) -> None:
        self._ink, self._last, self._half_at, self._busy = None, None, None, False
        self._waiting.clear()

    # -- what is wanted --------------------------------------------------------------------------

    def _on_line_clicked(self, tool: str, u: float, v: float) -> None:
        plan = self._paper.plan
        if plan is None or not self._paper.sheet.has_image:
            return
        kind, click = cast("TraceKind", tool), (u, v)
        if kind == "outline" and self._busy:
            self._waiting.append(click)  # its turn comes: no former may get another one's outline
            return
        mine = [trace for trace in plan.traces if trace.kind == kind and trace.followed]
        near = _ON_IT_MM * self._paper.sheet.px_per_mm
        if any(following.on_it(_traced(trace), click, near) for trace in mine):
            return
        if kind == "outline":
            self._follow_outline(plan, mine, click)
        elif kind == "hinge":
            share = self._paper.sheet.share
            spot, instead = _by(click, share), mine[0].id if mine else None
            self._begin(
                _Wish(plan.id, kind, click, instead),
                lambda ink, step: following.follow_straight(ink, spot, step),
            )
        else:
            self._follow_line(plan, mine, kind, click)

    def _follow_outline(self, plan: Plan, mine: list[Trace], click: Point2) -> None:
        """A whole outline that lies there is the former's, and the next one's turn; one that ended goes on."""
        wish = _Wish(plan.id, "outline", click)
        whole = bool(mine) and (mine[0].followed == "round" or self._paper.picks.half.isChecked())
        if mine and not whole:
            self._go_on(_Wish(plan.id, "outline", click, mine[0].id), mine[0], None)
            return
        former = self._paper.picks.former
        if mine and former:
            self._last = _middle(mine[0].pixels)
            self._half_at = self._centre_of(mine[0]) if self._paper.picks.half.isChecked() else None
            if not self._paper.give_outline(former):
                return
        elif mine:
            wish = _Wish(plan.id, "outline", click, mine[0].id)
        self._follow(wish, None)

    def _follow_line(self, plan: Plan, mine: list[Trace], kind: TraceKind, click: Point2) -> None:
        """A line from nose to tail: gone on with beyond its end; another one in its place, or the other side."""
        heading = following.heading_for(kind, self._axis())
        for trace in mine:
            if self._beyond(trace, click):
                self._go_on(_Wish(plan.id, kind, click, trace.id), trace, heading)
                return
        most = 2 if kind == "plan-side" else 1
        near = min(mine, key=lambda t: abs(_middle(t.pixels)[1] - click[1]), default=None)
        instead = near.id if near is not None and len(mine) >= most else None
        self._follow(_Wish(plan.id, kind, click, instead), heading)

    def _follow(self, wish: _Wish, heading: "ink_following.Heading | None") -> None:
        share = self._paper.sheet.share
        click = _by(wish.click, share)
        self._begin(wish, lambda ink, step: following.follow(ink, click, heading, step))

    def _go_on(self, wish: _Wish, trace: Trace, heading: "ink_following.Heading | None") -> None:
        share = self._paper.sheet.share
        click, traced = _by(wish.click, share), _traced(trace, share)
        self._begin(wish, lambda ink, step: following.follow_on(ink, traced, click, heading, step))

    def _on_pulled(self, u: float, v: float, to_u: float, to_v: float) -> None:
        """A followed line was taken at a place and let go at another."""
        plan, share = self._paper.plan, self._paper.sheet.share
        near = 2 * _BESIDE_MM * self._paper.sheet.px_per_mm
        traces = plan.traces if plan is not None else ()
        there = [t for t in traces if t.followed and following.on_it(_traced(t), (u, v), near)]
        if plan is None or not there:
            return
        traced, grabbed, to = _traced(there[0], share), _by((u, v), share), _by((to_u, to_v), share)
        self._begin(
            _Wish(plan.id, there[0].kind, (to_u, to_v), there[0].id),
            lambda ink, _step: following.draw_over(ink, traced, grabbed, to),
        )

    # -- doing it --------------------------------------------------------------------------------

    def _begin(
        self,
        wish: _Wish,
        work: "Work",
    ) -> None:
        paper, progress = self._paper, Progress()
        grey, share = paper.sheet.greys(), paper.sheet.share
        key = (self._document.session, wish.plan_id, grey.shape, round(paper.sheet.px_per_mm, 6))
        kept = self._ink[1] if self._ink is not None and self._ink[0] == key else None
        per_mm = paper.sheet.px_per_mm * share
        paper.tell(say.FOLLOWING)

        def run() -> object:
            ink = kept if kept is not None else inks.Ink(grey, per_mm)
            return ink, work(ink, progress.step)

        def done(made: object) -> None:
            self._take(wish, key, cast("tuple[inks.Ink, following.Traced | None]", made))
            self._next(wish)

        def failed(why: HardKeelError) -> None:
            paper.tell("" if isinstance(why, GivenUp) else str(why))
            self._next(wish)

        self._busy = self._busy or wish.kind == "outline"
        self._jobs.start(
            self._document.session,
            f"ink of {wish.kind}",
            run,
            done,
            failed,
            stop=progress.stop,
        )

    def _next(self, wish: _Wish) -> None:
        """Turn to the outline that was clicked meanwhile."""
        if wish.kind != "outline":
            return
        self._busy = False
        if self._waiting:
            self._on_line_clicked("outline", *self._waiting.pop(0))

    def _take(
        self, wish: _Wish, key: object, made: "tuple[inks.Ink, following.Traced | None]"
    ) -> None:
        paper = self._paper
        ink, traced = made
        self._ink = (key, ink)
        plan = paper.plan
        if plan is None or plan.id != wish.plan_id:
            return
        if traced is None:
            paper.click_along(wish.kind, wish.click)
            paper.tell(say.NO_INK)
            return
        points = tuple(_by(point, 1 / paper.sheet.share) for point in traced.points)
        if wish.kind == "outline" and self._half_at is not None:
            traced = self._cut(following.Traced(points, closed=traced.closed), wish.click)
            points = traced.points
        instead = wish.instead_of if any(t.id == wish.instead_of for t in plan.traces) else None
        done = paper.apply(
            say.follow_edit(say.DESK_TOOLS[wish.kind][0]),
            paper_edits.put_followed.of(
                plan.id, wish.kind, points, closed=traced.closed, instead_of=instead
            ),
        )
        if not done or wish.kind != "outline":
            return
        if paper.doubt:
            paper.tell(paper.doubt)
            paper.doubt = ""
        if not traced.closed and not paper.picks.half.isChecked():
            paper.tell(say.LINE_GOES_ON)
        elif not paper.picks.formers.count():
            paper.tell(say.NOBODY_TO_GET_IT)
        elif self._last is not None:
            middle = _middle(points)
            paper.sheet.bring_into_view(
                2 * middle[0] - self._last[0], 2 * middle[1] - self._last[1]
            )

    def _centre_of(self, trace: Trace) -> float | None:
        """Where on the plan the centre line of a half lies; ``None`` where it closes by itself or nothing is to scale."""
        fit = self._paper.calibration()
        if fit is None or trace.followed != "open":
            return None
        return outline_shapes.open_half(fit.to_plan(np.array(trace.pixels)))

    def _cut(self, traced: "following.Traced", click: Point2) -> "following.Traced":
        """Cut where it meets the centre line that the last half stood on, where it stands near it."""
        fit = self._paper.calibration()
        if fit is None or self._half_at is None:
            return traced
        (_, y), wide = (
            fit.to_plan(np.array([click]))[0],
            np.ptp(fit.to_plan(np.array(traced.points))[:, 0]),
        )
        if abs(fit.to_plan(np.array([click]))[0][0] - self._half_at) > wide:
            return traced
        one, other = fit.to_pixel(np.array([[self._half_at, y], [self._half_at, y + 50.0]]))
        return following.cut_at(traced, click, tuple(one.tolist()), tuple(other.tolist()))

    # -- where things are ------------------------------------------------------------------------

    def _axis(self) -> float:
        """How the datum line lies in the scan, radians; v grows downwards."""
        fit = self._paper.calibration()
        if fit is None:
            return 0.0
        (u0, v0), (u1, v1) = fit.to_pixel(np.array([[0.0, 0.0], [100.0, 0.0]]))
        return math.atan2(v1 - v0, u1 - u0)

    def _beyond(self, trace: Trace, click: Point2) -> bool:
        """Whether a click lies fore or aft of where a line ended."""
        along = np.array([math.cos(self._axis()), math.sin(self._axis())])
        at = np.array(trace.pixels) @ along
        here = float(np.array(click) @ along)
        near = _ON_IT_MM * self._paper.sheet.px_per_mm
        return bool(here < at.min() - near or here > at.max() + near)


def _traced(trace: Trace, share: float = 1.0) -> "following.Traced":
    """What was followed, in pixels of the image, which has `share` of the clicks' pixels."""
    return following.Traced(
        tuple(_by(p, share) for p in trace.pixels), closed=trace.followed == "round"
    )


def _by(point: Point2, share: float) -> Point2:
    return point[0] * share, point[1] * share


def _middle(points: Sequence[Point2]) -> Point2:
    low, high = np.min(points, axis=0), np.max(points, axis=0)
    return float(low[0] + high[0]) / 2, float(low[1] + high[1]) / 2
