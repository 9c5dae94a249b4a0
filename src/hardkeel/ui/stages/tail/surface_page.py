"""Surface: its outline and its wood lying flat, what it weighs and how it gives, bracing dragged with both following."""

from pathlib import Path
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QFileDialog, QPushButton, QVBoxLayout, QWidget

from hardkeel.airframe.framing import limits_of
from hardkeel.airframe.tails import (
    FRAME_WOODS,
    USUAL_WOOD,
    frame_choices,
    tail_mass,
    volumes_of,
    wood_of,
)
from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.base.units import LengthUnit
from hardkeel.base.values import Point2
from hardkeel.edits import tail as edits
from hardkeel.edits.surfaces import put_on_wing_and_tail
from hardkeel.messages import layout as layout_say
from hardkeel.messages import outlines as outline_say
from hardkeel.messages import tail as say
from hardkeel.messages.faults import told
from hardkeel.messages.tail_kinds import KIND_WORDS
from hardkeel.picture.tail import flat_picture_of
from hardkeel.picture.wood import WoodPicture
from hardkeel.tail.kinds import has
from hardkeel.tail.laminating import lamination_of
from hardkeel.tail.lying import laid_out
from hardkeel.tail.model import TailBracing, TailSurface
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.cards import FrameCards
from hardkeel.ui.stages.tail.tail_page import SHOWS, TailSubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.flow import FlowLayout
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.outline_chooser import OutlineChooser, outline_shown
from hardkeel.ui.widgets.wood_board import WoodBoard

if TYPE_CHECKING:
    from hardkeel.storage import outlines as drawings
    from hardkeel.tail.grillage import Choice
else:
    drawings = late("hardkeel.storage.outlines")

_FOLLOWS_MS: Final = 60  # after a drag the stiffness follows so much later
_PERCENT: Final = 100.0
_OF_THE_TAPER: Final = ("span", "height", "root_chord", "tip_chord", "sweep_le", "tip_length")


class SurfacePage(TailSubPage):
    """The surface drawn with its wood, one half live and the other its mirror; figures beside."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._dragged: TailSurface | None = None
        self._choice: Choice | None = None
        self.board = WoodBoard(theme, say.FROM_ABOVE, height=420)
        self.now = NowCard()
        self.frame = FrameCards()
        self.kinds = ButtonsCard(say.HOW_BUILT, tuple(KIND_WORDS.items()))
        self.arranged = ButtonsCard(say.ARRANGED, list(say.ARRANGED_WORDS.items()))
        self.edges = FiguresCard(say.EDGES)
        self.tips = ButtonsCard(say.TIP, list(say.TIP_WORDS.items()))
        self.figures = FiguresCard(say.OUTLINE)
        self.mass = LinesCard(say.WEIGHS)
        self.from_dxf, self.from_desk = QPushButton(say.FROM_DXF), QPushButton(say.FROM_DESK)
        self.back = QPushButton(say.BACK_TO_FIGURES)
        self._late = QTimer(self)
        self._late.setSingleShot(True)
        self._late.setInterval(_FOLLOWS_MS)
        self._late.timeout.connect(self._follow)
        self._lay_out()
        self._connect()
        self.refresh_lazily(SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        drawn = FlowLayout(gap=6)
        for button in (self.from_dxf, self.from_desk, self.back):
            button.setObjectName("tool")
            drawn.addWidget(button)
        self.figures.column.addLayout(drawn)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(0)
        work.addWidget(self.row)
        work.addWidget(self.board, 1)
        self._cards = CardColumn(
            (
                self.told, self.now, self.frame.pinch, self.mass, self.frame.choices,
                FoldedSheet(
                    (
                        self.kinds, self.figures, self.tips, self.edges, self.frame.bracing, self.frame.joints,
                        self.frame.gussets, self.frame.stiff, self.arranged,
                    )
                ),
            ),
            self.theme,
        )  # fmt: skip
        self.lie_beside(work, self._cards)
        self.themed = (self.board, self._cards)

    def _connect(self) -> None:
        self.board.picked.connect(self.piece_chosen)
        self.now.asked.connect(self._on_asked)
        self.kinds.answered.connect(self._on_kind)
        self.frame.bracing.answered.connect(self._on_pattern)
        self.tips.answered.connect(self._on_tip)
        self.edges.figure_changed.connect(self._on_edge)
        self.frame.joints.answered.connect(lambda key: self._brace(joint=key))
        self.frame.gussets.answered.connect(lambda key: self._brace(curved_gussets=key == "curved"))
        self.frame.stiff.answered.connect(lambda key: self._brace(stiff=key == "stiff"))
        self.arranged.answered.connect(self._on_arranged)
        self.figures.figure_changed.connect(self._on_figure)
        self.frame.pinch.pitch_dragged.connect(self._on_pitch)
        self.frame.pinch.wood_dragged.connect(self._on_wood)
        self.frame.pinch.let_go.connect(self._on_let_go)
        self.frame.choices.taken.connect(self._on_choice)
        self.from_dxf.clicked.connect(self._on_dxf)
        self.from_desk.clicked.connect(self._on_desk)
        self.back.clicked.connect(self._on_back)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.board.setFocus()

    def choose(self, ref: str) -> None:
        """Take a surface or a piece of it in hand."""
        self._dragged = None
        super().choose(ref)
        self.board.choose(ref)

    def refresh(self) -> None:
        """Show the build as it is now."""
        self._dragged = None
        self.show_row()
        surface = self.surface
        cards = (
            self.frame.pinch, self.frame.choices, self.mass, self.kinds, self.frame.bracing, self.figures, self.tips,
            self.edges, self.frame.joints, self.frame.gussets, self.frame.stiff, self.arranged,
        )  # fmt: skip
        for card in cards:
            card.setVisible(surface is not None)
        if surface is None:
            self.board.show_picture(WoodPicture(), "", say.NO_TAIL)
            self.now.show_doing(
                Doing(say.NO_TAIL, say.NO_TAIL_WHY, button=say.PUT_ON, key="put on")
            )
            self.now.show()
            return
        self._show_now(surface)
        self.kinds.show_answer(surface.kind or "")
        self._show_figures(surface)
        is_frame = has(surface, "bracing")
        bracing = surface.bracing or TailBracing()
        for card in (self.frame.pinch, self.frame.choices, self.frame.bracing, self.frame.stiff):
            card.setVisible(is_frame)
        self.frame.joints.setVisible(is_frame and bracing.pattern == "crossed")
        self.frame.gussets.setVisible(is_frame and bracing.gusset > 0)
        self.frame.joints.show_answer(bracing.joint)
        self.frame.gussets.show_answer("curved" if bracing.curved_gussets else "straight")
        self.frame.stiff.show_answer("stiff" if bracing.stiff else "pinned")
        self.arranged.setVisible(
            any(one.duty in ("stabilizer", "vee") for one in self.document.build.tail)
        )
        self.arranged.show_answer(edits.arrangement_of(self.document.build))
        self._show_edges(surface)
        self.mass.setVisible(surface.kind is not None)
        self.tips.show_answer(
            surface.tip.shape if surface.tip is not None else "", self._tip_words(surface)
        )
        self._choice = None
        if is_frame:
            self.frame.bracing.show_answer((surface.bracing or TailBracing()).pattern)
            self._reckon(surface)
        self._show_drawing(surface)
        self._show_mass(surface)

    def _show_now(self, surface: TailSurface) -> None:
        self.now.setVisible(surface.kind is None)
        if surface.kind is None:
            self.kinds.lay_open()  # it is asked here
            self.now.show_doing(Doing(say.HOW_BUILT, say.HOW_BUILT_WHY))

    def _show_figures(self, surface: TailSurface) -> None:
        span = (
            Figure("height", say.FIGURE_WORDS["height"], surface.half or None)
            if surface.upright
            else Figure("span", say.FIGURE_WORDS["span"], surface.span)
        )
        figures = [
            span,
            Figure("root_chord", say.FIGURE_WORDS["root_chord"], surface.root_chord),
            Figure("tip_chord", say.FIGURE_WORDS["tip_chord"], surface.tip_chord),
            Figure("sweep_le", say.FIGURE_WORDS["sweep_le"], surface.sweep_le),
        ]
        if surface.tip is not None:
            figures.append(Figure("tip_length", say.FIGURE_WORDS["tip_length"], surface.tip.length))
        if surface.kind is not None:
            pivot = surface.pivot_at_chord
            figures.append(
                Figure(
                    "pivot_at_chord",
                    say.FIGURE_WORDS["pivot_at_chord"],
                    None if pivot is None else _PERCENT * pivot,
                    "number",
                )
            )
            hinge = surface.hinge_at_chord
            figures.append(
                Figure(
                    "hinge_at_chord",
                    say.FIGURE_WORDS["hinge_at_chord"],
                    None if hinge is None else _PERCENT * hinge,
                    "number",
                )
            )
        if has(surface, "even"):
            figures.append(Figure("thickness", say.FIGURE_WORDS["thickness"], surface.thickness))
        if has(surface, "bracing"):
            bracing = surface.bracing or TailBracing()
            figures.append(Figure("width", say.FIGURE_WORDS["width"], bracing.width))
            figures.append(Figure("gusset", say.FIGURE_WORDS["gusset"], bracing.gusset))
            figures.append(Figure("centre", say.FIGURE_WORDS["centre"], surface.centre))
        if has(surface, "skin"):
            figures.append(Figure("skin", say.FIGURE_WORDS["skin"], surface.skin))
        traced = any(
            one.kind == "outline" for plan in self.document.build.plans for one in plan.traces
        )
        self.from_desk.setVisible(traced and not surface.outline)
        self.from_dxf.setVisible(not surface.outline)
        self.back.setVisible(bool(surface.outline))
        if surface.outline:
            figures = [one for one in figures if one.key not in _OF_THE_TAPER]
        try:
            said = say.volume_sentence(surface, volumes_of(self.document.build, surface))
        except BadInput as fault:
            said = str(fault)
        self.figures.show_figures("", tuple(figures), self.unit, said)

    def _show_edges(self, surface: TailSurface) -> None:
        self.edges.setVisible(surface.kind is not None)
        figures = []
        for edge in ("leading_edge", "trailing_edge"):
            stock = getattr(surface, edge)
            for number in (0, 1):
                key = f"{edge}|{number}"
                value = stock[number] if stock is not None else None
                if number == 0 or has(surface, "stock heights"):
                    figures.append(Figure(key, say.FIGURE_WORDS[key], value))
        if surface.hinge_at_chord is not None:
            figures.append(Figure("hinge_edge", say.FIGURE_WORDS["hinge_edge"], surface.hinge_edge))
        if has(surface, "washout"):
            figures.append(Figure("washout", say.FIGURE_WORDS["washout"], surface.washout, "angle"))
            figures.append(
                Figure("rib_thickness", say.FIGURE_WORDS["rib_thickness"], surface.rib_thickness)
            )
        self.edges.show_figures("", tuple(figures), self.unit)

    def _tip_words(self, surface: TailSurface) -> str:
        try:
            made = lamination_of(surface)
        except BadInput as fault:
            return str(fault)
        limits = limits_of(self.document.build).get(surface.material or USUAL_WOOD)
        return say.lamination_sentence(made, limits, self.unit) if made is not None else ""

    def _reckon(self, surface: TailSurface) -> None:
        try:
            choices = frame_choices(self.document.build, surface)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        self._choice = choices[0]
        self._show_pinch(surface)
        self.frame.choices.show_choices(choices, self.unit)

    def _show_pinch(self, surface: TailSurface) -> None:
        woods = FRAME_WOODS
        material = surface.material or USUAL_WOOD
        number = woods.index(material) if material in woods else 0
        self.frame.pinch.show_woods(len(woods))
        pitch = (surface.bracing or TailBracing()).pitch
        named = wood_of(self.document.build, material).name
        self.frame.pinch.show_choice(self._choice, pitch, number, self.unit, named)

    def _show_drawing(self, surface: TailSurface) -> None:
        build = self.document.build
        give = self._choice.twist.give if self._choice is not None else None
        title = say.FIN_FLAT if surface.upright else say.FROM_ABOVE
        self.board.set_title(title)
        try:
            picture = flat_picture_of(
                surface,
                build.profiles,
                None,
                give,
                say.give_words(give, self.unit) if give is not None else "",
                pins=self._dragged is None,
            )
        except BadInput as fault:
            self.board.show_picture(WoodPicture(), "", str(fault))
            return
        self.board.show_picture(picture, self.board.chosen)

    def _show_mass(self, surface: TailSurface) -> None:
        if surface.kind is None:
            return
        try:
            mass = tail_mass(self.document.build, surface)
        except BadInput as fault:
            self.mass.show_lines("", [str(fault)])
            return
        self.mass.show_lines(say.grams(mass), [say.WITHOUT_GLUE])
        self.mass.setVisible(
            not has(surface, "bracing")
        )  # a braced frame weighs beside its stiffness

    # -- what the hands do -------------------------------------------------------------------------

    def _drag(self, surface: TailSurface) -> None:
        """Show what is dragged at once, its stiffness a moment later; the document waits for the letting go."""
        self._dragged = surface
        self._show_pinch(surface)
        self._show_drawing(surface)
        self._late.start()

    def _follow(self) -> None:
        if self._dragged is not None:
            self._reckon(self._dragged)

    def _on_pitch(self, value: int) -> None:
        surface = self._dragged or self.surface
        if surface is not None:
            bracing = (surface.bracing or TailBracing()).but(pitch=float(value))
            self._drag(surface.but(bracing=bracing))

    def _on_wood(self, value: int) -> None:
        surface = self._dragged or self.surface
        if surface is not None:
            self._drag(surface.but(material=FRAME_WOODS[value]))

    def _on_let_go(self) -> None:
        dragged = self._dragged
        if dragged is None:
            return
        self._late.stop()
        self.apply(say.braced_edit(dragged), edits.put_surface.of(dragged))
        self.refresh()

    def _on_choice(self, pattern: str, material: str) -> None:
        surface = self.surface
        if surface is None:
            return
        bracing = (surface.bracing or TailBracing()).but(pattern=pattern)
        made = surface.but(bracing=bracing, material=material)
        self.apply(say.braced_edit(surface), edits.put_surface.of(made))

    def _on_kind(self, key: str) -> None:
        surface = self.surface
        if surface is not None:
            done = self.apply(
                say.built_edit(surface, key),
                edits.set_built.of(surface.id, key),  # type: ignore[arg-type]
            )
            if not done:
                self.kinds.show_answer(surface.kind or "")

    def _on_pattern(self, key: str) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(say.braced_edit(surface), edits.set_bracing.of(surface.id, pattern=key))

    def _brace(self, **figures: object) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(say.braced_edit(surface), edits.set_bracing.of(surface.id, **figures))

    def _on_edge(self, key: str, value: float) -> None:
        surface = self.surface
        if surface is None:
            return
        name = f"{say.surface_title(surface)}: {say.FIGURE_WORDS[key]}"
        edge, _, number = key.partition("|")
        if number:
            self.apply(name, edits.set_stock.of(surface.id, edge, int(number), value))
        else:
            self.apply(
                name,
                edits.set_figures.of(
                    surface.id, **{key: value if key == "washout" else value or None}
                ),
            )

    def _on_arranged(self, key: str) -> None:
        if not self.apply(say.ARRANGED_WORDS[key], edits.arrange.of(key)):  # type: ignore[arg-type]
            self.refresh()

    def _on_tip(self, key: str) -> None:
        surface = self.surface
        if surface is not None:
            shape = key or None
            if not self.apply(
                say.tip_edit(surface),
                edits.set_tip.of(surface.id, shape),  # type: ignore[arg-type]
            ):
                self.refresh()

    def _on_figure(self, key: str, value: float) -> None:
        surface = self.surface
        if surface is None:
            return
        name = f"{say.surface_title(surface)}: {say.FIGURE_WORDS[key]}"
        if key == "tip_length" and surface.tip is not None:
            shape = surface.tip.shape
            self.apply(name, edits.set_tip.of(surface.id, shape, value))
        elif key in ("width", "gusset"):
            self.apply(name, edits.set_bracing.of(surface.id, **{key: value}))
        elif key in ("hinge_at_chord", "pivot_at_chord"):
            share = value / _PERCENT if value else None
            # it turns at its hinge or as a whole, not both
            other = "pivot_at_chord" if key == "hinge_at_chord" else "hinge_at_chord"
            both = {key: share} if share is None else {key: share, other: None}
            self.apply(name, edits.set_figures.of(surface.id, **both))
        else:
            self.apply(name, edits.set_figures.of(surface.id, **{key: value}))

    def _on_dxf(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, say.FROM_DXF, "", say.DXF_FILES)
        if name:
            self.open_outline(Path(name))

    def open_outline(self, path: Path) -> None:
        """Take an outline of a drawing as that of one half; of several it is asked."""
        surface = self.surface
        if surface is None:
            return
        try:
            found = drawings.apart(drawings.read_outlines(path))
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if len(found) == 1:
            self._take_outline(found[0].ring)
            return
        who = say.the_surface(surface)
        bearing = drawings.called(found, say.names_of(surface)).values()
        shown = [outline_shown(who if one in bearing else "", one.ring, self.unit) for one in found]
        asked = OutlineChooser(path.name, who, shown, self.theme, self)
        asked.one_wanted.connect(lambda i: self._take_outline(found[i].ring))
        asked.open()

    def _take_outline(self, ring: tuple[Point2, ...]) -> None:
        surface = self.surface
        if surface is not None and self.apply(
            say.outline_edit(surface), edits.set_outline.of(surface.id, ring)
        ):
            self.tell(say.lying_words(laid_out(ring, surface)))

    def _on_desk(self) -> None:
        surface = self.surface
        if surface is None:
            return
        try:
            found = edits.outlines_on_plans(self.document.build)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if len(found) < 2:  # noqa: PLR2004  nothing to choose from
            self._take_from_plan("")
            return
        plans = list(found)
        shown = [outline_shown(plan, ring, self.unit) for plan, ring in found.items()]
        who = say.the_surface(surface)
        asked = OutlineChooser(outline_say.THE_DESK, who, shown, self.theme, self, each=False)
        asked.one_wanted.connect(lambda i: self._take_from_plan(plans[i]))
        asked.open()

    def _take_from_plan(self, plan: str) -> None:
        surface = self.surface
        if surface is None:
            return
        build = self.document.build
        if self.apply(say.outline_edit(surface), edits.outline_from_plan.of(surface.id, plan)):
            found = edits.outlines_on_plans(build)
            self.tell(say.lying_words(laid_out(found[plan or next(iter(found))], surface)))

    def _on_back(self) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(say.outline_edit(surface), edits.forget_outline.of(surface.id))

    def _on_asked(self, _key: str) -> None:
        self.apply(layout_say.PUT_WING_AND_TAIL_ON.lower(), put_on_wing_and_tail.of())
