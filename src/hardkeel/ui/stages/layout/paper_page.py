"""The paper desk: a scan calibrated by what is known on it, and the lines picked off it."""

from typing import Final, get_args

import numpy as np
from PyQt6.QtCore import QPointF, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QStackedWidget, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.base.units import LengthUnit, parse_length, parse_place
from hardkeel.base.values import Point2
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits import off_the_desk
from hardkeel.edits import paper as paper_edits
from hardkeel.edits import picks as pick_edits
from hardkeel.edits import truing as truing_edits
from hardkeel.edits.named import in_turn
from hardkeel.edits.picks import Ends
from hardkeel.fuselage.model import Former
from hardkeel.messages import layout as say
from hardkeel.messages.faults import told
from hardkeel.messages.paper import (
    DESK_TOOLS,
    FOLLOWED_TOOLS,
    gets_edit,
    outline_doubt,
    sheet_name,
    sigma_words,
    stood_edit,
    takers_of,
)
from hardkeel.messages.tail import surface_read_words
from hardkeel.paper.calibrating import Calibration, calibrate
from hardkeel.paper.line_snapping import USUAL_PX_PER_MM
from hardkeel.paper.model import Direction, KnownLength, KnownPoint, Plan, TraceKind
from hardkeel.paper.picking import (
    Picked,
    direction_between,
    looks_half,
    picked_outline,
    picked_stations,
)
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.layout.empty_paper import EmptyPaper
from hardkeel.ui.stages.layout.fit_card import FitCard
from hardkeel.ui.stages.layout.given_card import GivenCard
from hardkeel.ui.stages.layout.picks_card import PicksCard
from hardkeel.ui.stages.layout.plans_card import PlansCard
from hardkeel.ui.stages.layout.scan_copies import ScanCopies
from hardkeel.ui.stages.layout.scan_marks import scan_marks
from hardkeel.ui.stages.layout.scan_view import ScanView
from hardkeel.ui.stages.layout.taking_dialog import TakingDialog
from hardkeel.ui.stages.layout.tools_card import ToolsCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card_column import CardColumn

_CLICKS: Final = {"length": 2, "point": 1}  # how many a tool asks for before a figure is typed
_TRACES: Final = get_args(TraceKind)


class PaperPage(SubPage):
    """The desk.

    Signals
    -------
    scan_wanted, sample_wanted : (nothing)
        Open a scan; lay the made-up page here.
    taken : (nothing)
        The picks became the airframe's figures.
    left_as_they_were : str
        Names of formers that were not picked.
    line_clicked : str, float, float
        A kind of line and where on it: its ink is to be followed.
    """

    scan_wanted = pyqtSignal()
    sample_wanted = pyqtSignal()
    taken = pyqtSignal()
    left_as_they_were = pyqtSignal(str)
    line_clicked = pyqtSignal(str, float, float)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._plan_id, self._shown_image = "", ""
        self._tool = "length"
        self._clicks: list[tuple[float, float]] = []
        self._dpi: float | None = None
        self.doubt = ""  # of the outline that was given last
        self.sheet = ScanView(theme)
        self.tools = ToolsCard()
        self.fit = FitCard()
        self.picks = PicksCard()
        self.given = GivenCard(theme, unit)
        self.plans = PlansCard()
        self.empty = EmptyPaper()
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        cards = CardColumn(
            (self.told, self.tools, self.given, self.fit, self.picks, self.plans), self.theme
        )
        desk = QWidget()
        side = QHBoxLayout(desk)
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(0)
        side.addWidget(self.sheet, 1)
        side.addWidget(cards)
        self._stack = QStackedWidget()
        self._stack.addWidget(desk)
        self._stack.addWidget(self.empty)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(self._stack)
        self.themed = (self.sheet, self.given.drawing, cards)
        self.lead_tab(cards)

    def _connect(self) -> None:
        self.sheet.clicked.connect(self._on_clicked)
        self.sheet.nudged.connect(self._on_nudged)
        self.sheet.taken_back.connect(self._on_taken_back)
        self.sheet.between.connect(lambda: self.tell(say.TWO_LINES_NEAR))
        self.tools.tool_picked.connect(self.use)
        self.tools.entered.connect(self._on_entered)
        self.tools.settling_set.connect(self._on_settling_set)
        self.tools.following_set.connect(lambda _on: self.refresh())
        self.fit.photo_set.connect(self._on_photo_set)
        self.fit.carry_wanted.connect(self._on_carry)
        self.picks.take_pressed.connect(self._on_take)
        self.picks.outline_given.connect(self._on_outline_given)
        self.plans.plan_picked.connect(self.show_plan)
        self.given.stood.connect(self._on_stood)
        self.plans.scan_wanted.connect(self.scan_wanted)
        self.plans.crease_wanted.connect(self._on_crease)
        self.empty.scan_wanted.connect(self.scan_wanted)
        self.empty.sample_wanted.connect(self.sample_wanted)
        self.document.build_opened.connect(self._on_another_build)
        self.refresh_lazily()

    # -- showing ---------------------------------------------------------------------------------

    @property
    def plan(self) -> Plan | None:
        """The plan on the desk."""
        return next((p for p in self.document.build.plans if p.id == self._plan_id), None)

    @property
    def image_wanted(self) -> str:
        """Name of the image that ought to lie here and does not yet; empty where all is well."""
        plan = self.plan
        return plan.image if plan is not None and plan.image != self._shown_image else ""

    def show_plan(self, plan_id: str) -> None:
        """Lay another plan on the desk."""
        self._plan_id = plan_id
        plan = self.plan
        if plan is not None and not (plan.lengths or plan.points or plan.labels):
            self._tool = "length"  # a sheet of which nothing is known begins with its scale
        self.picks.forget_ends()
        self._clicks = []
        self.refresh()
        self.stirred.emit()

    def show_scan(self, name: str, copies: ScanCopies) -> None:
        """Show the scan of that name."""
        self._shown_image = name
        dots = copies.dots_per_metre * 0.0254 / max(copies.share, 1e-9)
        self._dpi = dots if 50 < dots < 2500 else None  # noqa: PLR2004  what scanners write
        self.sheet.show_scan(copies)
        plan = self.plan
        if plan is not None:  # only the image tells how many of its dots are an inch
            self.fit.show_fit(plan, self._dpi, self.unit)
        self._show_scale()

    def _show_scale(self) -> None:
        """Tell the sheet how many of its pixels are a millimetre, as well as that is known."""
        fit = self.calibration()
        if fit is not None and fit.scale_x > 0 and fit.scale_y > 0:
            self.sheet.px_per_mm = (1 / (fit.scale_x * fit.scale_y)) ** 0.5
        else:
            self.sheet.px_per_mm = self._dpi / 25.4 if self._dpi else USUAL_PX_PER_MM

    def _on_another_build(self) -> None:
        """Nothing of the last build's scans is this one's, be they called alike or not."""
        self._plan_id = self._shown_image = ""
        self._clicks, self._dpi = [], None
        self.sheet.clear()

    def use(self, tool: str) -> None:
        """Take a tool in hand."""
        self._tool = tool
        self._clicks = []
        self.refresh()
        self.sheet.setFocus()

    def calibration(self) -> Calibration | None:
        """The map of the plan on the desk, as far as it is known."""
        if self.plan is None:
            return None
        try:
            return calibrate(self.plan)
        except BadInput:
            return None

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.sheet.setFocus()

    def refresh(self) -> None:
        """Show the document as it is now."""
        plans = self.document.build.plans
        if self.plan is None:
            self._plan_id = plans[-1].id if plans else ""
        plan = self.plan
        self._stack.setCurrentIndex(0 if plan is not None else 1)
        if plan is None:
            return
        fuselage = self.document.build.fuselage
        build = self.document.build
        takers = takers_of(
            [former.id for former in fuselage.formers] if fuselage is not None else [],
            [surface.id for surface in build.tail],
            winged=bool(build.wings),
        )
        others = [one.id for one in plans if one.id != plan.id and one.image != plan.image]
        self.plans.show_plans([one.id for one in plans], plan.id, others[-1] if others else "")
        self.tools.show_tool(self._tool, entering=len(self._clicks) == _CLICKS.get(self._tool))
        self.fit.show_fit(plan, self._dpi, self.unit)
        rows = self._picked(plan)
        self.picks.show_ends(pick_edits.ends_with(fuselage, rows))
        self.picks.show_picks(plan, rows, takers, self.unit)
        self._show_half(plan)
        self._show_scale()
        self.given.hide_unless(self._former(self.given.former))
        self.sheet.show_marks(scan_marks(plan, self._tool, self._clicks, self.unit))
        if self.image_wanted:
            self.stirred.emit()

    def _show_half(self, plan: Plan) -> None:
        """Whether the outline that lies traced is half of one, as far as it shows."""
        traced = next((t for t in plan.traces if t.kind == "outline" and t.pixels), None)
        fit = self.calibration()
        half = fit is not None and looks_half(plan, fit, self._half_width())
        self.picks.show_half(
            traced if traced is not None and traced.followed else None, likely=half
        )

    def _half_width(self) -> float | None:
        """Of the former that gets the outline."""
        fuselage = self.document.build.fuselage
        formers = fuselage.formers if fuselage is not None else ()
        return next((f.half_width for f in formers if f.id == self.picks.former), None)

    def _picked(self, plan: Plan) -> tuple[Picked, ...]:
        try:
            return picked_stations(plan, calibrate(plan))
        except BadInput:
            return ()

    # -- doing -----------------------------------------------------------------------------------

    def _on_clicked(self, u: float, v: float) -> None:
        plan = self.plan
        if plan is None:
            return
        spot = (u, v)
        if self._tool in FOLLOWED_TOOLS and self.tools.follow_ink.isChecked():
            self.line_clicked.emit(self._tool, u, v)
        elif self._tool in _TRACES:
            self.click_along(self._tool, spot)  # type: ignore[arg-type]
        elif self._tool == "origin":
            self.apply(say.CLICK_DATUM, paper_edits.put_plan.of(plan.but(origin=spot)))
        else:
            wanted = _CLICKS[self._tool]
            self._clicks = (
                [*self._clicks[: wanted - 1], spot] if len(self._clicks) < wanted else [spot]
            )
            self.refresh()

    def click_along(self, kind: TraceKind, spot: Point2) -> None:
        """Note one more point along a line."""
        plan = self.plan
        if plan is None:
            return
        self.apply(say.click_edit(DESK_TOOLS[kind][0]), paper_edits.pick.of(plan, kind, spot))
        if kind == "stations":
            self._fly_on()

    def _fly_on(self) -> None:
        """Bring the place of the next station into view, a bay further on."""
        plan = self.plan
        clicks = [p for t in plan.traces if t.kind == "stations" for p in t.pixels] if plan else []
        if len(clicks) > 1:
            (u0, v0), (u1, v1) = clicks[-2:]
            self.sheet.bring_into_view(2 * u1 - u0, 2 * v1 - v0)

    def _on_nudged(self, du: float, dv: float) -> None:
        plan = self.plan
        if plan is None:
            return
        if self._clicks:
            u, v = self._clicks[-1]
            self._clicks[-1] = (u + du, v + dv)
            self.refresh()
        elif self._tool in _TRACES:
            kind: TraceKind = self._tool  # type: ignore[assignment]
            self.apply(
                say.NUDGE_CLICK,
                paper_edits.move_last_pick.of(plan, kind, du, dv),
                nudge=f"{kind} {plan.id}",
            )
        elif self._tool == "origin" and plan.origin is not None:
            u, v = plan.origin
            moved = plan.but(origin=(u + du, v + dv))
            self.apply(
                say.NUDGE_DATUM,
                paper_edits.put_plan.of(moved),
                nudge=f"datum {plan.id}",
            )

    def _on_taken_back(self) -> None:
        plan = self.plan
        if self._clicks:
            self._clicks.pop()
            self.refresh()
        elif plan is not None and self._tool in _TRACES:
            kind: TraceKind = self._tool  # type: ignore[assignment]
            self.apply(say.TAKE_CLICK_BACK, paper_edits.drop_last_pick.of(plan, kind))

    def _on_entered(self, text: str) -> None:
        plan = self.plan
        if plan is None:
            return
        try:
            if self._tool == "length":
                done = self._take_length(plan, parse_length(text, self.unit).mm)
            else:
                done = self._take_point(plan, text)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if done:
            self._clicks = []
            self.tools.entry.clear()
            self.refresh()
            self.sheet.setFocus()

    def _take_length(self, plan: Plan, length: float) -> bool:
        if length <= 0:
            raise BadInput("", say.LENGTH_TOO_SMALL)
        a, b = self._clicks
        along = self._direction(plan, a, b)
        with faults_told():
            known = KnownLength(a=a, b=b, length=length, along=along)
        return self.apply(say.NOTE_KNOWN_LENGTH, paper_edits.add_length.of(plan, known))

    def _direction(self, plan: Plan, a: Point2, b: Point2) -> Direction | None:
        """Which way a length runs on the plan; of a photo only where its perspective is known by its labels."""
        if not plan.photo:
            return direction_between(a, b)
        fit = self.calibration()
        if fit is None or not plan.labels or plan.points:
            return None
        (x0, y0), (x1, y1) = fit.to_plan(np.array([a, b])).tolist()
        return direction_between((x0, y0), (x1, y1))

    def _take_point(self, plan: Plan, text: str) -> bool:
        known = pick_edits.point_named(self.document.build.fuselage, self._clicks[0], text)
        if known is None:
            with faults_told():
                known = KnownPoint(pixel=self._clicks[0], plan=parse_place(text, self.unit))
        return self.apply(say.NOTE_KNOWN_POINT, paper_edits.add_known_point.of(plan, known))

    def _on_carry(self) -> None:
        """What the known lengths say of the print is judged on its own bench."""
        plan = self.plan
        if plan is None or self._dpi is None:
            return
        if self.apply(say.CARRY_EDIT, paper_edits.carry_lengths.of(plan.id, self._dpi)):
            self.place_wanted.emit("audit")

    def _on_photo_set(self, on: bool) -> None:  # noqa: FBT001  the signal's own argument
        plan = self.plan
        if plan is not None:
            self.apply(
                say.TREAT_IT_AS_PHOTO if on else say.TREAT_IT_AS_SCAN,
                paper_edits.put_plan.of(plan.but(photo=on)),
            )

    def _on_settling_set(self, on: bool) -> None:  # noqa: FBT001  the signal's own argument
        self.sheet.settles = on
        self.sheet.update()

    def _on_crease(self) -> None:
        plan = self.plan
        if plan is not None and self.apply(
            say.beyond_crease_edit(plan.id), paper_edits.lay_again.of(plan.id)
        ):
            self.show_plan(self.document.build.plans[-1].id)

    def _on_take(self) -> None:
        plan = self.plan
        if plan is None:
            return
        rows, ends = self._picked(plan), self.picks.last_is
        fuselage = self.document.build.fuselage
        if fuselage is None or not fuselage.formers:
            self._take(rows, ends)
            return
        try:
            found = pick_edits.takings(self.document.build, rows, ends=ends)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        good_to = sigma_words(rows, self.unit)
        asked = TakingDialog(found, self.theme, self.unit, good_to, self)
        asked.accepted.connect(lambda: self._take(rows, ends))
        asked.open()

    def _take(self, rows: tuple[Picked, ...], ends: Ends) -> None:
        left = pick_edits.unpicked(self.document.build.fuselage, rows)
        taken = pick_edits.take_picks.of(rows, ends=ends)
        plan = self.plan
        if plan is not None and not self.document.build.name.strip():
            # a model gets its name with its first figures: as its sheet is called, to be put right
            taken = in_turn.of(taken, truing_edits.rename.of(sheet_name(plan.id)))
        if self.apply(say.TAKE_PLANS_FIGURES, taken):
            self.taken.emit()
            if left:
                self.left_as_they_were.emit(", ".join(left))

    def _on_outline_given(self, key: str) -> None:
        sort, _, name = key.partition(" ")
        plan = self.plan
        if sort == "former" or plan is None:
            self.give_outline(name)
            return
        said = gets_edit(self.picks.formers.currentText())
        if sort != "surface":
            whose = name if sort == "section" else ""
            self.apply(said, off_the_desk.section_from_desk.of(whose, plan.id))
            return
        try:
            read = off_the_desk.read_surface(self.document.build, name, plan.id)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if self.apply(said, off_the_desk.surface_from_desk.of(name, plan.id)):
            self.tell(surface_read_words(read.lying, read.hinge))

    def give_outline(self, name: str) -> bool:
        """Give a former the outline that lies traced; whether it got it."""
        plan = self.plan
        if plan is None:
            return False
        try:
            ring = picked_outline(
                plan, calibrate(plan), half=self.picks.is_half, half_width=self._half_width()
            )
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return False
        before = self._former(name)
        # the clicks are that former's now: the next one's begin anew
        given = self.apply(
            gets_edit(name),
            in_turn.of(
                drawing_edits.give_outline.of(name, ring),
                paper_edits.clear_trace.of(plan.id, "outline"),
            ),
        )
        self.picks.offer_next(name)
        after = self._former(name)
        self.doubt = ""
        if given and before is not None and after is not None:
            self.given.show_given(before, after, self.unit)
            self.doubt = outline_doubt(before, after, self.unit)
            self.tell(self.doubt)
        return given

    def _on_stood(self, name: str, bottom: float) -> None:
        before = self._former(name)
        if self.apply(stood_edit(name), drawing_edits.stand_former.of(name, bottom)):
            after = self._former(name)
            if before is not None and after is not None:
                self.given.show_given(before, after, self.unit)

    def _former(self, name: str) -> Former | None:
        fuselage = self.document.build.fuselage
        return fuselage.former(name) if fuselage is not None else None

    def widget_point(self, u: float, v: float) -> QPointF:
        """Where a point of the scan is painted."""
        return self.sheet.on_widget(u, v)
