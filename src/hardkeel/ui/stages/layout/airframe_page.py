"""The airframe on the board: drag a former or type its figures; top, side and section follow."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.bodies import surface_of_body
from hardkeel.airframe.starters import STARTERS, start_from
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import fuselage as drawing
from hardkeel.edits import sections, surfaces
from hardkeel.edits.renumbering import renumber_formers
from hardkeel.fuselage.dragging import dragged
from hardkeel.fuselage.fairing import Bump, bumps_of
from hardkeel.fuselage.model import Fuselage, Line, Method, Template
from hardkeel.fuselage.naming import free_former_id
from hardkeel.messages import layout as say
from hardkeel.messages import panels as panel_say
from hardkeel.messages.airframe import (
    FIGURE_WORDS,
    METHOD_WORDS,
    ROUND_FIGURES,
    STARTER_WORDS,
    bump_note,
    dragged_names,
    dragged_words,
    read_cutouts,
    read_mark,
    read_part,
)
from hardkeel.messages.engine import MOTOR
from hardkeel.messages.faults import told
from hardkeel.messages.names import body_name
from hardkeel.picture.board import (
    BoardLines,
    Handle,
    bodies_on_board,
    combs_of,
    figures_of_drag,
    lines_of,
)
from hardkeel.survey.model import FUSELAGE
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.layout.behind_card import BehindCard
from hardkeel.ui.stages.layout.behind_controller import BehindController
from hardkeel.ui.stages.layout.board import BumpNote, DrawingBoard, OnBoard
from hardkeel.ui.stages.layout.engine_card import EngineCard
from hardkeel.ui.stages.layout.former_card import FormerCard
from hardkeel.ui.stages.layout.marks_card import MarksCard
from hardkeel.ui.stages.layout.panels_card import PanelsCard
from hardkeel.ui.stages.layout.skins_card import SkinsCard
from hardkeel.ui.stages.layout.smooth_card import SmoothCard
from hardkeel.ui.stages.layout.starter_picker import StarterPicker, StarterShown
from hardkeel.ui.stages.layout.surface_card import SURFACE_FIGURES, SurfaceCard
from hardkeel.ui.stages.layout.template_card import TemplateCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.folded_sheet import FoldedSheet


class AirframePage(SubPage):
    """The board with what is known of the former or part in hand.

    Signals
    -------
    body_chosen : str
    former_wanted : str
        Write this former's template.
    outline_wanted : (nothing)
        Bring an outline in from a drawing.
    """

    body_chosen = pyqtSignal(str)
    former_wanted = pyqtSignal(str)
    outline_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._stop, self._body = "", ""
        self._bumps: tuple[Bump, ...] = ()
        self.board = DrawingBoard(theme)
        self.picker = StarterPicker(theme, unit)
        self.picker.show_kinds(_kinds(), theme)
        self.behind = BehindCard()
        self._follower = BehindController(document, self.behind, self.apply)
        self.smooth = SmoothCard()
        self.former = FormerCard()
        self.surface = SurfaceCard()
        self.panels = PanelsCard()
        self.template = TemplateCard()
        self.marks = MarksCard()
        self.skins = SkinsCard()
        self.engine = EngineCard()
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        cards = CardColumn(
            (
                self.told,
                self.behind,
                self.smooth,
                self.former,
                FoldedSheet(
                    (
                        self.template,
                        self.surface,
                        self.panels,
                        self.marks,
                        self.skins,
                        self.engine,
                    )
                ),
            ),
            self.theme,
        )
        bench = QWidget()
        side = QHBoxLayout(bench)
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(0)
        side.addWidget(self.board, 1)
        side.addWidget(cards)
        self._stack = QStackedWidget()
        self._stack.addWidget(bench)
        scroll = QScrollArea()
        scroll.setWidget(self.picker)
        scroll.setWidgetResizable(True)
        self._stack.addWidget(scroll)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(self._stack)
        self.themed = (self.board, cards)
        self.lead_tab(cards)

    def _connect_lines(self) -> None:
        self.smooth.fair.clicked.connect(self._on_fair)
        self.smooth.corner.clicked.connect(self._on_corner)
        self.smooth.corner_taken_back.connect(self._on_corner_taken_back)
        self.smooth.comb.toggled.connect(self.refresh)

    def _connect(self) -> None:
        self.board.dragging.connect(self._on_dragging)
        self.board.dropped.connect(self._on_dropped)
        self.board.nudged.connect(self._on_nudged)
        self.board.station_wanted.connect(self._on_station_wanted)
        self.board.station_picked.connect(self.choose_station)
        self.board.body_picked.connect(self._on_body_picked)
        self.former.figure_changed.connect(self._on_former_figure)
        self.template.figure_changed.connect(self._on_template_figure)
        self.surface.figure_changed.connect(self._on_surface_figure)
        self.panels.figure_changed.connect(self._on_panel_figure)
        self.panels.break_wanted.connect(lambda: self._on_breaks(more=True))
        self.panels.break_unwanted.connect(lambda: self._on_breaks(more=False))
        self.panels.off_changed.connect(self._on_panels_off)
        self.skins.figure_changed.connect(self._on_skin_figure)
        self.skins.without.clicked.connect(
            lambda: self.apply(say.TAKE_LONGERONS_OUT, drawing.take_longerons_out.of())
        )
        self.engine.figure_changed.connect(
            lambda key, value: self.apply(MOTOR, drawing.set_engine.of(**{key: value}))
        )
        self.engine.put_on.connect(lambda: self.apply(MOTOR, drawing.set_engine.of()))
        self.engine.taken_off.connect(lambda: self.apply(MOTOR, drawing.take_engine_off.of()))
        self._connect_lines()
        self.former.add.clicked.connect(self._on_add)
        self.former.remove.clicked.connect(self._on_remove)
        self.former.write.clicked.connect(lambda: self.former_wanted.emit(self._stop))
        self.template.bring.clicked.connect(self.outline_wanted)
        self.former.cutouts.returnPressed.connect(self._on_cutouts)
        self.former.lightened.clicked.connect(self._on_cutouts)
        self.former.shape.activated.connect(self._on_shape)
        self.former.all_so.clicked.connect(
            lambda: self.apply(
                say.shape_like_edit(self._stop), sections.shape_all_like.of(self._stop)
            )
        )
        self.former.renumber.clicked.connect(
            lambda: self.apply(say.RENUMBER.lower(), renumber_formers.of())
        )
        self.former.method.activated.connect(self._on_method)
        self.marks.put_on.clicked.connect(
            lambda: self.apply(say.PUT_WING_AND_TAIL_ON_EDIT, surfaces.put_on_wing_and_tail.of())
        )
        self.surface.above.clicked.connect(
            lambda: self.apply(say.PUT_WING_ABOVE, surfaces.add_wing_above.of())
        )
        self.surface.take_off.clicked.connect(self._on_take_off)
        self.marks.mark.returnPressed.connect(self._on_mark)
        self.marks.part.returnPressed.connect(self._on_part)
        self.marks.unmark.clicked.connect(self._on_unmark)
        self.former.name.returnPressed.connect(self._on_renamed)
        self.picker.start_wanted.connect(self._on_start)
        self.refresh_lazily()

    # -- showing ---------------------------------------------------------------------------------

    @property
    def stop(self) -> str:
        """The former or tail post in hand."""
        return self._stop

    def choose_station(self, stop: str) -> None:
        """Take a former in hand."""
        self._stop, self._body = stop, ""
        self.refresh()

    def choose_body(self, body: str) -> None:
        """Take a wing, stabilizer or fin in hand."""
        self._body = body
        self.refresh()

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self.picker.set_unit(unit)
        super().set_unit(unit)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.board.setFocus()

    def refresh(self) -> None:
        """Show the document as it is now."""
        build = self.document.build
        fuselage = build.fuselage
        empty = fuselage is None or len(fuselage.stations) < 2  # noqa: PLR2004  no loft
        self._stack.setCurrentIndex(1 if empty else 0)
        if fuselage is None or empty:
            return
        names = [name for name, _ in fuselage.stations]
        if self._stop not in names:
            self._stop = names[min(2, len(names) - 1)]
        self._follower.show(self.unit)
        self._bumps = bumps_of(fuselage)
        self.smooth.show_bumps(self._bumps, self.unit)
        self.smooth.show_corners(
            tuple((f.id, line) for f in fuselage.formers for line in f.line_corners)
        )
        surface = self._surface
        is_surface = self.surface.show_surface(build, surface, self.unit)
        wing = next((wing for wing in build.wings if wing.id == surface), None)
        self.panels.show_wing(wing, self.unit)
        self.former.show_stop(fuselage, self._stop, self.unit)
        self.former.setVisible(not is_surface)  # one thing is in hand at a time
        self.template.show_template(None if is_surface else fuselage.former(self._stop), self.unit)
        self.marks.show_marks(build, self._body)
        self.skins.show_skins(fuselage, self.unit)
        self.engine.show_fuselage(fuselage, self.unit)
        self._show_board(fuselage, "")

    def _show_board(self, fuselage: Fuselage, figure: str) -> None:
        try:
            lines = lines_of(fuselage, self._stop, rough=bool(figure))
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            lines = BoardLines()
        bumps = () if figure else tuple(self._note(fuselage, bump) for bump in self._bumps)
        self.board.show_board(
            OnBoard(
                lines,
                bodies_on_board(self.document.build),
                combs_of(fuselage) if self.smooth.comb.isChecked() else (),
                bumps,
                self._stop,
                self._body,
                figure,
                self._in_hand(),
            )
        )

    def _in_hand(self) -> str:
        """What is in hand, for who can't see it."""
        told = [say.in_hand(self._stop.replace("_", " "))] if self._stop else []
        if self._body:
            told.append(say.picked(body_name(self.document.build.surveyed, self._body)))
        return ", ".join(told)

    def _note(self, fuselage: Fuselage, bump: Bump) -> BumpNote:
        stop = dict(fuselage.stations)[bump.former]
        if bump.line == "half_width":
            return BumpNote("above", (bump.station, stop.half_width), bump_note(bump, self.unit))
        height = stop.top if bump.line == "top" else stop.bottom
        return BumpNote("side", (bump.station, -height), bump_note(bump, self.unit))

    # -- doing -----------------------------------------------------------------------------------

    def _on_dragging(self, handle: Handle, u: float, v: float) -> None:
        fuselage = self.document.build.fuselage
        if fuselage is None:
            return
        figures = figures_of_drag(handle, (u, v))
        moved = dragged(fuselage, handle.stop, **figures)
        stop = dict(moved.stations)[handle.stop]
        told = "   ".join(dragged_words(stop, key, self.unit) for key in figures)
        self._show_board(moved, told)

    def _on_dropped(self, handle: Handle, u: float, v: float) -> None:
        fuselage = self.document.build.fuselage
        if fuselage is None:
            return
        figures = figures_of_drag(handle, (u, v))
        moved = dragged(fuselage, handle.stop, **figures)
        what = dragged_names(figures)
        name = handle.stop.replace("_", " ")
        if not self.apply(say.drag_edit(what, name), drawing.with_fuselage.of(moved)):
            self.refresh()

    def _on_nudged(self, name: str, figure: str, step: float) -> None:
        fuselage = self.document.build.fuselage
        if fuselage is not None:
            now = getattr(dict(fuselage.stations)[name], figure)
            moved = dragged(fuselage, name, **{figure: now + step})
            self.apply(
                say.nudge_edit(FIGURE_WORDS[figure], name),
                drawing.with_fuselage.of(moved),
                nudge=f"{figure} {name}",
            )

    def _on_body_picked(self, body: str) -> None:
        self.choose_body(body)
        self.body_chosen.emit(body)

    def _on_former_figure(self, key: str, value: float) -> None:
        name = self._stop
        words = FIGURE_WORDS.get(key, key)
        if key == "ring":
            self.apply(say.ring_edit(name), sections.set_ring.of(name, value))
        elif key in ROUND_FIGURES:
            figure = {key.removeprefix("full_"): value}
            what = sections.set_fullness.of(name, **figure)
            self.apply(say.set_figure_edit(ROUND_FIGURES[key], name), what)
        elif key in FIGURE_WORDS:
            self.apply(
                say.set_figure_edit(words, name), drawing.set_station.of(name, **{key: value})
            )
        else:
            self.apply(say.set_figure_edit(words, name), drawing.set_wood.of(name, **{key: value}))

    def _on_template_figure(self, key: str, value: float) -> None:
        fuselage = self.document.build.fuselage
        former = fuselage.former(self._stop) if fuselage is not None else None
        if former is None:
            return
        before = former.template or Template(
            half_width=former.half_width, bottom=former.bottom, top=former.top
        )
        self.apply(
            say.template_edit(former.id),
            drawing.set_template.of(former.id, before.but(**{key: value})),
        )

    @property
    def _surface(self) -> str:
        """The wing or tail surface that is in hand, or part of which is."""
        return surface_of_body(self.document.build, self._body)

    def _on_panel_figure(self, key: str, value: float) -> None:
        number, _, figure = key.partition("|")
        what = surfaces.set_break.of(self._surface, int(number), **{figure: value})
        self.apply(panel_say.edit_words(figure), what)

    def _on_breaks(self, *, more: bool) -> None:
        wing = self._surface
        if more:
            self.apply(panel_say.ADD, surfaces.add_break.of(wing))
            return
        last = sum(len(one.breaks) for one in self.document.build.wings if one.id == wing) - 1
        self.apply(panel_say.TAKE, surfaces.delete_break.of(wing, last))

    def _on_panels_off(self, is_off: bool) -> None:  # noqa: FBT001  a signal's slot
        words = panel_say.OFF if is_off else panel_say.ON
        what = surfaces.set_break.of(self._surface, 0, comes_off=is_off)
        if not self.apply(words, what):
            self.refresh()

    def _on_surface_figure(self, key: str, value: float) -> None:
        body = self._surface
        is_wing = any(wing.id == body for wing in self.document.build.wings)
        edit = surfaces.set_wing if is_wing else surfaces.set_tail
        name = body_name(self.document.build.surveyed, body)
        words = next(words for known, words, _ in SURFACE_FIGURES if known == key)
        self.apply(say.set_figure_edit(words, name), edit.of(body, **{key: value}))

    def _on_skin_figure(self, key: str, value: float) -> None:
        if key == "longeron":
            square = (value, value)
            self.apply(say.SET_LONGERONS, drawing.set_all_longerons.of(square))
        else:
            words = key.replace("_", " ")
            self.apply(say.set_edit(words), drawing.set_skins.of(**{key: value}))

    def _on_take_off(self) -> None:
        body = self._surface
        name = body_name(self.document.build.surveyed, body)
        if self.apply(say.take_off_edit(name), surfaces.take_off.of(body)):
            self.choose_body("")

    def _on_mark(self) -> None:
        body = self._body or FUSELAGE
        try:
            name, at = read_mark(self.marks.mark.text(), self.unit)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if self.apply(say.add_mark_edit(name), surfaces.add_mark.of(name, body, at)):
            self.marks.mark.clear()

    def _on_part(self) -> None:
        try:
            name, at, size = read_part(self.marks.part.text(), self.unit)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if self.apply(say.add_part_edit(name), surfaces.add_part.of(name, at, size)):
            self.marks.part.clear()

    def _on_unmark(self) -> None:
        own, words = self.marks.own_marks.currentData(), self.marks.own_marks.currentText()
        if isinstance(own, str):
            self.apply(say.take_mark_away_edit(words), surfaces.delete_mark.of(own))
        else:
            self.apply(say.take_part_away_edit(words), surfaces.take_part_away.of(*own))

    def _on_renamed(self) -> None:
        old, new = self._stop, self.former.name.text().strip()
        if new != old and self.apply(say.rename_edit(old, new), drawing.rename_former.of(old, new)):
            self.choose_station(new)

    def _on_fair(self) -> None:
        if self._bumps:
            bump = self._bumps[0]
            self.apply(say.fair_edit(bump.former), drawing.fair.of(bump))

    def _on_corner(self) -> None:
        if self._bumps:
            bump = self._bumps[0]
            self.apply(
                say.corner_at_edit(bump.former),
                drawing.set_line_corner.of(bump.former, bump.line, on=True),
            )

    def _on_corner_taken_back(self, stop: str, line: Line) -> None:
        self.apply(say.no_corner_at_edit(stop), drawing.set_line_corner.of(stop, line, on=False))

    def _on_add(self) -> None:
        fuselage = self.document.build.fuselage
        if fuselage is None:
            return
        names = [name for name, _ in fuselage.stations]
        i = names.index(self._stop)
        if i + 1 == len(names):
            return
        stations = [stop.station for _, stop in fuselage.stations]
        middle = round((stations[i] + stations[i + 1]) / 2, 1)
        made = free_former_id(fuselage, middle)
        if self.apply(say.add_former_edit(made), drawing.add_former.of(middle)):
            self.choose_station(made)

    def _on_station_wanted(self, x: float) -> None:
        fuselage = self.document.build.fuselage
        if fuselage is not None:
            made = free_former_id(fuselage, round(x, 1))
            if self.apply(say.add_former_edit(made), drawing.add_former.of(round(x, 1))):
                self.choose_station(made)

    def _on_remove(self) -> None:
        name = self._stop
        self.apply(say.take_out_edit(name), drawing.delete_former.of(name))

    def _on_cutouts(self) -> None:
        name = self._stop
        try:
            cutouts = read_cutouts(self.former.cutouts.text(), self.former.cut_unit)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        on = self.former.lightened.isChecked()
        self.apply(say.cut_out_edit(name), drawing.set_cutouts.of(name, cutouts, lightened=on))

    def _on_shape(self) -> None:
        name, chosen = self._stop, self.former.shape.currentData()
        fuselage = self.document.build.fuselage
        former = fuselage.former(name) if fuselage is not None else None
        if former is None or chosen == "drawn":  # a drawing is brought in, not chosen
            self.refresh()
            return
        what = sections.set_shape.of(name, chosen)
        self.apply(say.shape_edit(name, self.former.shape.currentText()), what)

    def _on_method(self) -> None:
        fuselage = self.document.build.fuselage
        if fuselage is None:
            return
        names = [name for name, _ in fuselage.stations]
        here = names.index(self._stop)
        end = next(
            (s.to for s in fuselage.sections if names.index(s.from_) <= here < names.index(s.to)),
            names[-1],
        )
        method: Method = self.former.method.currentData()
        start = self._stop
        self.apply(
            say.method_edit(start, METHOD_WORDS[method]),
            drawing.set_method.of(start, end, method),
        )

    def _on_start(self, kind: str, span: float, length: float) -> None:
        name = self.document.build.name or say.MY_MODEL
        try:
            made = start_from(kind, span, length, name)
        except BadInput as fault:
            self.picker.told.setText(f"{fault}.")
            return
        self.picker.told.setText("")
        self.apply(say.starter_edit(STARTER_WORDS[kind][0].lower()), drawing.lay_out.of(made))


def _kinds() -> tuple[StarterShown, ...]:
    views = []
    for kind in STARTERS:
        build = start_from(kind.id, 1000.0, kind.length * 1000.0)
        lines = lines_of(build.fuselage, "") if build.fuselage is not None else BoardLines()
        curves = [c for c in lines.curves if c.view == "side" and c.role in ("skin", "stop")]
        curves += [curve for curve in bodies_on_board(build) if curve.view == "side"]
        views.append(StarterShown(kind.id, *STARTER_WORDS[kind.id], tuple(curves)))
    return tuple(views)
