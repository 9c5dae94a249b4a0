"""Plans beside the window: a sound plan at once, then the search for a sooner one, which can be left off."""

from collections.abc import Callable
from typing import Final

from PyQt6.QtCore import QObject, QTimer

from hardkeel.base.errors import HardKeelError
from hardkeel.schedule.planning import LIMIT_S
from hardkeel.schedule.tonight import Tonight, plan_tonight
from hardkeel.schedule.what_if import Otherwise, WhatIf, plan_otherwise, what_ifs
from hardkeel.ui.document.document import Change, Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.stages.bench.calendar_controller import CalendarController
from hardkeel.ui.stages.bench.stage import BenchStage
from hardkeel.ui.stages.bench.tonight_page import TonightPage
from hardkeel.ui.stages.bench.weeks_page import WeeksPage

_QUICK_S: Final = 0.3
_REST_MS: Final = 400  # before the long search: the next tick may come at once
_PARTS: Final = frozenset({"steps", "bench", "glue", "ledger", "survey", "fuselage", "tail"})


class _Flag:
    """Lets a job in its thread know that it may leave off."""

    def __init__(self) -> None:
        self.up = False

    def __call__(self) -> bool:
        return self.up

    def raise_it(self) -> None:
        """Leave off."""
        self.up = True


class PlanController(QObject):
    """Holds the plan of the evening that is seen."""

    def __init__(self, document: Document, page: BenchStage, jobs: Jobs) -> None:
        super().__init__(page)
        self._document, self._stage, self._jobs = document, page, jobs
        self.limit = LIMIT_S
        self._flag = _Flag()
        self._tonight: TonightPage | None = None
        self._weeks: WeeksPage | None = None
        self._stale = True
        self._searching = False
        self._wonder: Otherwise | None = None
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(_REST_MS)
        self._rest.timeout.connect(self._search)
        page.made.connect(self._on_made)
        page.closed.connect(self.leave_off)
        document.build_changed.connect(self._on_changed)
        document.build_opened.connect(self._begin)

    def _on_made(self, key: str, page: object) -> None:
        if key == "tonight" and isinstance(page, TonightPage):
            self._tonight = page
            CalendarController(self._document, page)
            page.asked.connect(self._begin)
            page.minute_passed.connect(self._on_minute)
            page.seen.connect(self._on_seen)
            page.left_off.connect(self.leave_off)
            page.wondered.connect(self._on_wondered)
            self._begin()
        if key == "weeks" and isinstance(page, WeeksPage):
            self._weeks = page
            self._stage.page("tonight")  # it knows how long tonight is
            if self._tonight is not None and self._tonight.plan is not None:
                page.show_plan(self._tonight.plan)

    def _on_seen(self) -> None:
        if self._stale:
            self._begin()

    def _on_minute(self) -> None:
        """The plan moves with the clock; it is not searched for anew for that."""
        page = self._tonight
        if page is None or self._rest.isActive() or self._searching:
            return
        steps, _ = page.steps_now()
        if steps:
            work = self._work(page, _QUICK_S, _Flag())
            self._start("plan", work, self._on_moved)

    def _on_moved(self, found: object) -> None:
        if isinstance(found, Tonight):
            self._show(found)

    def _on_changed(self, change: Change) -> None:
        if change.touches(_PARTS):
            self._wonder = None
            self._stale = True
            pages = (self._tonight, self._weeks)
            if any(page is not None and page.isVisible() for page in pages):
                self._begin()

    def leave_off(self) -> None:
        """The plan that is there is good enough."""
        self._flag.up = True
        self._searching = False
        self._rest.stop()
        if self._tonight is not None:
            self._tonight.show_looking(looking=False)

    def _begin(self) -> None:
        page = self._tonight
        if page is None:
            return
        self._stale = self._searching = False
        self._rest.stop()
        self._flag.up = True
        self._flag = _Flag()
        steps, trouble = page.steps_now()
        if not steps:
            page.show_nothing(trouble)
            return
        work = self._work(page, _QUICK_S, self._flag)
        self._start("plan", work, self._on_quick)

    def _work(self, page: TonightPage, limit: float, flag: _Flag) -> Callable[[], Tonight]:
        steps, _ = page.steps_now()
        bench, now, minutes = self._document.build.bench, page.now, page.minutes
        kept = {one.step.id: one.start for one in page.plan.steps} if page.plan is not None else {}
        return lambda: plan_tonight(steps, bench, now, minutes, limit, stopped=flag, kept=kept)

    def _start(
        self, kind: str, work: Callable[[], Tonight], done: Callable[[object], object]
    ) -> None:
        self._jobs.start(
            self._document.session, kind, work, done, self._on_failed, stop=self._flag.raise_it
        )

    def _on_quick(self, found: object) -> None:
        if not isinstance(found, Tonight) or self._tonight is None:
            return
        self._show(found)
        if not found.plan.proven and not self._flag.up:
            self._tonight.show_looking(looking=True)
            self._rest.start()
        else:
            self._help()

    def _search(self) -> None:
        if self._tonight is not None and not self._flag.up:
            self._searching = True
            work = self._work(self._tonight, self.limit, self._flag)
            self._start("plan", work, self._on_searched)

    def _on_searched(self, found: object) -> None:
        self._searching = False
        if isinstance(found, Tonight) and self._tonight is not None:
            self._show(found)
            self._tonight.show_looking(looking=False)
            self._help()

    def _show(self, found: Tonight) -> None:
        if self._tonight is not None:
            self._tonight.show_tonight(found)
        if self._weeks is not None:
            self._weeks.show_plan(found.plan)
        self._on_wondered(self._wonder)  # what hangs over the evenings hangs over the new plan

    def _on_wondered(self, one: Otherwise | None) -> None:
        """Plan it otherwise, while it hangs over the evenings; the last asked is the one that is answered."""
        page = self._tonight
        self._wonder = one
        if page is None or one is None:
            return
        steps, _ = page.steps_now()
        bench, now, minutes = self._document.build.bench, page.now, page.minutes
        self._jobs.start(
            self._document.session,
            "wonder",
            lambda: plan_otherwise(steps, bench, one, now, minutes, limit=_QUICK_S),
            lambda found: self._on_wonder(one, found),
            lambda _fault: None,
        )

    def _on_wonder(self, one: Otherwise, found: object) -> None:
        if isinstance(found, WhatIf) and self._tonight is not None and one == self._wonder:
            self._tonight.show_wonder(one, found)

    def _help(self) -> None:
        """What would help, once the plan itself is there."""
        page = self._tonight
        if page is None or self._flag.up:
            return
        steps, _ = page.steps_now()
        bench, now, minutes, flag = self._document.build.bench, page.now, page.minutes, self._flag
        self._jobs.start(
            self._document.session,
            "what if",
            lambda: what_ifs(steps, bench, now, minutes, flag),
            self._on_help,
            lambda _fault: None,
        )

    def _on_help(self, found: object) -> None:
        if isinstance(found, tuple) and self._tonight is not None:
            self._tonight.show_what_ifs(found)
            if self._weeks is not None and self._tonight.plan is not None:
                self._weeks.show_what_ifs(self._tonight.plan, found)

    def _on_failed(self, fault: HardKeelError) -> None:
        self._searching = False
        if self._tonight is not None:
            self._tonight.show_nothing(str(fault))
