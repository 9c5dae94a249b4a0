"""The paper desk: a scan calibrated by what is known on it, and the lines picked off it."""

from typing import Final

from PyQt6.QtCore import QPointF, QSize, pyqtSignal
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import (
    QButtonGroup,
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, parse_length
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits import paper as paper_edits
from hardkeel.paper.calibrating import Calibration, calibrate
from hardkeel.paper.model import KnownLength, KnownPoint, Plan, TraceKind
from hardkeel.paper.picking import Picked, picked_outline, picked_stations
from hardkeel.paper.settling import USUAL_PX_PER_MM
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.freshness import Freshness
from hardkeel.ui.kit.card import Card, label
from hardkeel.ui.kit.card_column import CardColumn
from hardkeel.ui.kit.flow import FlowLayout
from hardkeel.ui.stages.layout.paper_view import (
    TOOLS,
    direction_of,
    empty_desk,
    fit_words,
    lacking_words,
    read_place,
    sheet_marks,
)
from hardkeel.ui.stages.layout.plan_sheet import PlanSheet
from hardkeel.ui.stages.layout.sub_page import SubPage
from hardkeel.ui.theme import Theme

_TRACES: Final = ("stations", "side-top", "side-bottom", "plan-side", "plan-centre", "outline")


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
    """

    scan_wanted = pyqtSignal()
    sample_wanted = pyqtSignal()
    taken = pyqtSignal()
    left_as_they_were = pyqtSignal(str)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._plan_id, self._shown_image = "", ""
        self._tool = "length"
        self._clicks: list[tuple[float, float]] = []
        self._dpi: float | None = None
        self.sheet = PlanSheet(theme)
        self.tools: dict[str, QPushButton] = {}
        self.entry = QLineEdit()
        self.entry.setAccessibleName("what the length or point is")
        self.plans = QComboBox()
        self.plans.setAccessibleName("sheet on the desk")
        self.photo = QCheckBox("a photo: take perspective out")
        self.settle = QCheckBox("settle on the line")
        self.open = QPushButton("Open a scan or photo…")
        self.sample = QPushButton("Lay the made-up page here")
        self.take = QPushButton("Make these the airframe's figures")
        self.formers = QComboBox()
        self.formers.setAccessibleName("former to be traced")
        self.give = QPushButton("gets the outline")
        self._hint = label("title")
        self._step = Card("Now", "act")
        self._fit = Card("How the sheet lies")
        self._fit_says = label("answer")
        self._fit_left = label("soft")
        self._picks = Card("Picked")
        self._picks_says = label("soft")
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        self.settle.setChecked(True)
        tools = self._tool_row()
        self.entry.setObjectName("reading")
        keys = label(
            "soft", "Wheel or + and − zoom, the right button moves the sheet, arrows nudge."
        )
        for widget in (self._hint, self.entry, tools, self.settle, keys):
            self._step.column.addWidget(widget)
        for widget in (self._fit_says, self._fit_left, self.photo):
            self._fit.column.addWidget(widget)
        self._lay_out_cards()

    def _tool_row(self) -> QWidget:
        tools = QWidget()
        flow = FlowLayout(tools, gap=3)
        group = QButtonGroup(self)
        for key, words, says in TOOLS:
            button = QPushButton(words)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.setToolTip(says)
            button.clicked.connect(lambda _on, key=key: self.use(key))
            group.addButton(button)
            flow.addWidget(button)
            self.tools[key] = button
        return tools

    def _lay_out_cards(self) -> None:
        self.take.setObjectName("primary")
        self._picks.column.addWidget(self._picks_says)
        self._picks.column.addWidget(self.take)
        row = QHBoxLayout()
        row.addWidget(self.formers)
        row.addWidget(self.give, 1)
        self._picks.column.addLayout(row)
        more = QPushButton("Another scan…")
        more.setObjectName("tool")
        more.clicked.connect(self.scan_wanted)
        self._which = Card("On the desk")
        row = QHBoxLayout()
        row.addWidget(self.plans, 1)
        row.addWidget(more)
        self._which.column.addLayout(row)
        self._cards = CardColumn(
            (self.told, self._step, self._fit, self._picks, self._which), self.theme
        )
        desk = QWidget()
        side = QHBoxLayout(desk)
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(0)
        side.addWidget(self.sheet, 1)
        side.addWidget(self._cards)
        self._stack = QStackedWidget()
        self._stack.addWidget(desk)
        self._stack.addWidget(empty_desk(self.open, self.sample))
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(self._stack)
        self.dressed = (self.sheet, self._cards)

    def _connect(self) -> None:
        self.sheet.clicked.connect(self._on_clicked)
        self.sheet.nudged.connect(self._on_nudged)
        self.sheet.taken_back.connect(self._on_taken_back)
        self.entry.returnPressed.connect(self._on_entered)
        self.open.clicked.connect(self.scan_wanted)
        self.sample.clicked.connect(self.sample_wanted)
        self.take.clicked.connect(self._on_take)
        self.give.clicked.connect(self._on_give)
        self.photo.clicked.connect(self._on_photo)
        self.settle.toggled.connect(self._on_settle)
        self.plans.activated.connect(lambda _row: self.show_plan(self.plans.currentData()))
        self.document.build_opened.connect(self._on_another_build)
        Freshness(self, self.document, self.refresh)
        self.sheet.between.connect(
            lambda: self.tell("two lines are equally near: zoom in and click nearer to one")
        )

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
        self._clicks = []
        self.refresh()
        self.stirred.emit()

    def show_image(self, name: str, image: QImage, size: QSize) -> None:
        """Show the image of that name; `size` is the whole scan's, which may be larger."""
        self._shown_image = name
        dots = image.dotsPerMeterX() * 0.0254 * size.width() / max(1, image.width())
        self._dpi = dots if 50 < dots < 2500 else None  # noqa: PLR2004  what scanners write
        self.sheet.show_image(image, size)
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
        self.plans.clear()
        for one in plans:
            self.plans.addItem(one.id, one.id)
        self.plans.setCurrentText(plan.id)
        self.photo.setChecked(plan.photo)
        self._show_step()
        self._show_fit(plan)
        self._show_picks(plan)
        self._show_scale()
        self.sheet.show_marks(sheet_marks(plan, self._tool, self._clicks, self.unit))
        if self.image_wanted:
            self.stirred.emit()

    def _show_step(self) -> None:
        for key, button in self.tools.items():
            button.setChecked(key == self._tool)
        says = next(says for key, _, says in TOOLS if key == self._tool)
        asks = {"length": len(self._clicks) == 2, "point": len(self._clicks) == 1}  # noqa: PLR2004
        entering = asks.get(self._tool, False)
        if entering:
            says = "How long is it?" if self._tool == "length" else "Where is it? x, y"
        self._hint.setText(says)
        self.entry.setVisible(entering)
        if entering:
            self.entry.setFocus()

    def _show_fit(self, plan: Plan) -> None:
        answer, left = fit_words(plan, self._dpi)
        self._fit_says.setText(answer)
        self._fit_left.setText(left)

    def _show_picks(self, plan: Plan) -> None:
        counts = {t.kind: len(t.pixels) for t in plan.traces}
        rows = self._picked(plan)
        ready = bool(rows) and all(
            None not in (row.half_width, row.bottom, row.top) for row in rows
        )
        if not rows:
            words = "Nothing yet. First the datum, then the stations, then along the lines."
        else:
            words = f"{len(rows)} stations. " + lacking_words(rows, self.unit)
        if counts.get("stations") and plan.origin is None:
            words = "The datum is not clicked yet."
        self._picks_says.setText(words)
        self._show_formers(outlined=counts.get("outline", 0) > 2)  # noqa: PLR2004  a triangle
        self.take.setEnabled(ready and len(rows) > 1)

    def _show_formers(self, *, outlined: bool) -> None:
        fuselage = self.document.build.fuselage
        names = [former.id for former in fuselage.formers] if fuselage is not None else []
        for widget in (self.formers, self.give):
            widget.setVisible(outlined and bool(names))
        if names != [self.formers.itemText(i) for i in range(self.formers.count())]:
            self.formers.clear()
            self.formers.addItems(names)

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
        if self._tool in _TRACES:
            kind: TraceKind = self._tool  # type: ignore[assignment]
            words = next(words for key, words, _ in TOOLS if key == kind)
            self.apply(f"click {words}", lambda b: paper_edits.pick(b, plan, kind, spot))
        elif self._tool == "origin":
            self.apply("click the datum", lambda b: paper_edits.put_plan(b, plan.but(origin=spot)))
        else:
            wanted = 2 if self._tool == "length" else 1
            self._clicks = (
                [*self._clicks[: wanted - 1], spot] if len(self._clicks) < wanted else [spot]
            )
            self.refresh()

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
                "nudge a click",
                lambda b: paper_edits.move_last_pick(b, plan, kind, du, dv),
                nudge=f"{kind} {plan.id}",
            )
        elif self._tool == "origin" and plan.origin is not None:
            u, v = plan.origin
            moved = plan.but(origin=(u + du, v + dv))
            self.apply(
                "nudge the datum",
                lambda b: paper_edits.put_plan(b, moved),
                nudge=f"datum {plan.id}",
            )

    def _on_taken_back(self) -> None:
        plan = self.plan
        if self._clicks:
            self._clicks.pop()
            self.refresh()
        elif plan is not None and self._tool in _TRACES:
            kind: TraceKind = self._tool  # type: ignore[assignment]
            self.apply("take a click back", lambda b: paper_edits.drop_last_pick(b, plan, kind))

    def _on_entered(self) -> None:
        plan = self.plan
        if plan is None:
            return
        try:
            if self._tool == "length":
                done = self._take_length(plan, parse_length(self.entry.text(), self.unit).mm)
            else:
                done = self._take_point(plan, self.entry.text())
        except BadInput as fault:
            self.tell(str(fault))
            return
        if done:
            self._clicks = []
            self.entry.clear()
            self.refresh()
            self.sheet.setFocus()

    def _take_length(self, plan: Plan, length: float) -> bool:
        if length <= 0:
            raise BadInput("", "a length must be more than 0")
        a, b = self._clicks
        along = None if plan.photo else direction_of(a, b)
        known = KnownLength(a=a, b=b, length=length, along=along)
        return self.apply("note a known length", lambda d: paper_edits.add_length(d, plan, known))

    def _take_point(self, plan: Plan, text: str) -> bool:
        known = KnownPoint(pixel=self._clicks[0], plan=read_place(text, self.unit))
        return self.apply(
            "note a known point", lambda d: paper_edits.add_known_point(d, plan, known)
        )

    def _on_photo(self) -> None:
        plan = self.plan
        if plan is not None:
            on = self.photo.isChecked()
            self.apply(
                "treat it as a photo" if on else "treat it as a scan",
                lambda b: paper_edits.put_plan(b, plan.but(photo=on)),
            )

    def _on_settle(self, on: bool) -> None:  # noqa: FBT001  the signal's own argument
        self.sheet.settles = on
        self.sheet.update()

    def _on_take(self) -> None:
        plan = self.plan
        if plan is None:
            return
        rows = self._picked(plan)
        left = drawing_edits.unpicked(self.document.build.fuselage, rows)
        if self.apply("take the plan's figures", lambda b: drawing_edits.take_picks(b, rows)):
            self.taken.emit()
            if left:
                self.left_as_they_were.emit(", ".join(left))

    def _on_give(self) -> None:
        plan, name = self.plan, self.formers.currentText()
        if plan is None:
            return
        try:
            ring = picked_outline(plan, calibrate(plan))
        except BadInput as fault:
            self.tell(str(fault))
            return
        self.apply(
            f"outline of {name} from the plan", lambda b: drawing_edits.give_outline(b, name, ring)
        )

    def widget_point(self, u: float, v: float) -> QPointF:
        """Where a point of the scan is painted."""
        return self.sheet.on_widget(u, v)
