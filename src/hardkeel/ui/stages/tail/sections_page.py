"""Ribs and sections: every rib as it is cut, one of them large; a tail from its root rib in three clicks."""

from pathlib import Path
from typing import Final

from PyQt6.QtWidgets import (
    QComboBox,
    QFileDialog,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.tails import holes_in_sides
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import tail as edits
from hardkeel.messages import on_ribs as ribs_say
from hardkeel.messages import tail as say
from hardkeel.messages.faults import told
from hardkeel.picture.tail import rib_gallery, rib_picture
from hardkeel.picture.wood import WoodPicture, WoodShape, down, tone_of
from hardkeel.tail.foam import core_of, edge_strips, seal_channel, skins_of
from hardkeel.tail.kinds import has, kind_of
from hardkeel.tail.model import TailSurface
from hardkeel.tail.own_sections import own_names
from hardkeel.tail.ribs import CutRib, cut_ribs, stock_heights
from hardkeel.tail.stacking import even_in_stack, stack_of, trimmed_of
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.on_ribs_card import OnRibsCard
from hardkeel.ui.stages.tail.tail_page import SHOWS, TailSubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.flow import FlowLayout
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.wood_board import WoodBoard

_PERCENT: Final = 100.0
_RIBBED: Final = "ribbed"
_CAPSTRIP_MM: Final = (6.0, 1.0)
_ADDED: Final = {"top": say.ADD_TOP, "bottom": say.ADD_BOTTOM, "tube": say.ADD_TUBE}


class RootRibCard(Card):
    """Root section, tip thickness, ribs: three clicks."""

    def __init__(self) -> None:
        super().__init__(say.THREE_CLICKS)
        self.section = QComboBox()
        self.section.setMinimumContentsLength(8)
        self.section.setSizeAdjustPolicy(
            QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon
        )
        self.section.setAccessibleName(say.SECTION)
        self.open = QPushButton(say.OPEN_SECTION)
        self.open.setObjectName("tool")
        self.thick, self.count = QuantityEdit(), QuantityEdit(plain=" ")
        self.make = QPushButton(say.MAKE_RIBS)
        self.make.setObjectName("primary")
        self.of_ribs: list[QWidget] = [label("soft", say.THREE_CLICKS_WHY)]
        self.column.addWidget(self.of_ribs[0])
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        grid.addWidget(label("soft", say.SECTION, wrap=False), 0, 0)
        grid.addWidget(self.section, 0, 1)
        for i, (words, field) in enumerate(
            ((say.TIP_THICK, self.thick), (say.HOW_MANY_RIBS, self.count)), start=1
        ):
            field.line.setAccessibleName(words)
            self.of_ribs.append(label("soft", words, wrap=False))
            grid.addWidget(self.of_ribs[-1], i, 0)
            grid.addWidget(field, i, 1)
        grid.setColumnStretch(1, 1)
        self.column.addLayout(grid)
        last = QHBoxLayout()
        last.addWidget(self.make)
        last.addWidget(self.open)
        last.addStretch(1)
        self.column.addLayout(last)


class SectionsPage(TailSubPage):
    """A gallery over the one in hand; schools of making ribs beside them."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._number = 1
        self._ribs: tuple[CutRib, ...] = ()
        self.gallery = WoodBoard(theme, say.RIB_GALLERY, height=240)
        self.large = WoodBoard(theme, "", height=190)
        self.root = RootRibCard()
        self.now = NowCard()
        self.rib = LinesCard(say.RIBS)
        self.spars = FiguresCard(say.SPARS)
        self.add = {key: QPushButton(words) for key, words in _ADDED.items()}
        self.half_ribs = ButtonsCard(say.HALF_RIBS, list(say.YES_NO.items()))
        self.by_hand = LinesCard(say.BY_HAND)
        self.fit = ButtonsCard(say.SLOT_ASK, list(say.SLOT_WORDS.items()))
        self.foam = LinesCard(say.FOAM)
        self.on_ribs = OnRibsCard()
        self._lay_out()
        self._connect()
        self.refresh_lazily(SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(1)
        work.addWidget(self.row)
        work.addWidget(self.gallery, 5)
        work.addWidget(self.large, 3)
        row = FlowLayout(gap=6)
        for button in self.add.values():
            button.setObjectName("tool")
            row.addWidget(button)
        self.spars.column.addLayout(row)
        cards = (
            self.told, self.now, self.rib, self.root, self.foam,
            FoldedSheet((self.spars, self.on_ribs, self.half_ribs, self.fit, self.by_hand)),
        )  # fmt: skip
        self._cards = CardColumn(cards, self.theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.gallery, self.large, self._cards)

    def _connect(self) -> None:
        self.gallery.picked.connect(self._on_rib)
        self.now.asked.connect(self._on_asked)
        self.root.make.clicked.connect(self._on_made)
        self.root.open.clicked.connect(self._on_open)
        self.root.section.activated.connect(self._on_section)
        self.spars.figure_changed.connect(self._on_spar)
        self.fit.answered.connect(self._on_fit)
        self.half_ribs.answered.connect(self._on_half_ribs)
        self.on_ribs.figure_changed.connect(self._on_ribs_figure)
        self.on_ribs.places_typed.connect(self._on_places)
        self.on_ribs.tip_chosen.connect(self._on_tip_section)
        for key, button in self.add.items():
            button.clicked.connect(lambda _on, key=key: self._on_added(key))

    @property
    def ribs(self) -> tuple[CutRib, ...]:
        """The ribs that are shown."""
        return self._ribs

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.gallery.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        self.show_row()
        surface = self.surface
        ribs, core = has(surface, "ribs"), has(surface, "core")
        for card in (self.rib, self.by_hand, self.fit, self.half_ribs, self.on_ribs):
            card.setVisible(ribs)
        self.spars.setVisible(ribs or core)
        for key in ("top", "bottom"):
            self.add[key].setVisible(ribs)
        self.root.setVisible(surface is not None and not has(surface, "bracing"))
        self.foam.setVisible(core)
        self._show_school(of_ribs=not core)
        self.gallery.set_title(say.ROOT_CORE if core else say.RIB_GALLERY)
        self._ribs = ()
        self._show_now(surface)
        if surface is None or not (ribs or core):
            nothing = say.NO_TAIL if surface is None else ""
            if has(surface, "bracing"):
                nothing = say.NO_SECTION
            self.gallery.show_picture(WoodPicture(), "", nothing)
            self.large.show_picture(WoodPicture())
            self._show_root(surface)
            return
        self._show_root(surface)
        try:
            if ribs:
                self._show_ribs(surface)
            else:
                self._show_foam(surface)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            self.gallery.show_picture(WoodPicture(), "", str(fault))

    def _show_now(self, surface: TailSurface | None) -> None:
        """What is to be done before there is a section."""
        flat = surface is not None and has(surface, "bracing")
        self.now.setVisible(flat or surface is None)
        if flat:
            self.now.show_doing(
                Doing(say.NO_SECTION, say.NO_SECTION_WHY, button=say.BUILD_OF_RIBS, key=_RIBBED)
            )
        elif surface is None:
            self.now.show_doing(
                Doing(say.NO_TAIL, say.NO_TAIL_WHY, button=say.SHOW_SURFACE, key="surface")
            )

    def _on_asked(self, key: str) -> None:
        surface = self.surface
        if key == _RIBBED and surface is not None:
            self.apply(say.built_edit(surface, _RIBBED), edits.set_built.of(surface.id, _RIBBED))
        else:
            self.place_wanted.emit(key)

    def _show_school(self, *, of_ribs: bool) -> None:
        """Foam has a section too, but no ribs to make."""
        self.root.eyebrow.setText(say.THREE_CLICKS if of_ribs else say.SECTION)
        for widget in (*self.root.of_ribs, self.root.thick, self.root.count, self.root.make):
            widget.setVisible(of_ribs)

    def _sections(self) -> list[tuple[str, str]]:
        return [(name, name) for name in (*sorted(self.document.build.profiles), *own_names())]

    def _show_root(self, surface: TailSurface | None) -> None:
        box = self.root.section
        box.clear()
        names = [*sorted(self.document.build.profiles), *own_names()]
        root = surface.root_profile if surface is not None else None
        if root is not None and root not in names:
            names.insert(0, root)
        for name in names:
            box.addItem(name, name)
        if root is not None:
            box.setCurrentIndex(names.index(root))
        if surface is None:
            return
        self.root.thick.set_kind(angular=False, unit=self.unit)
        if not self.root.thick.line.isModified():
            self.root.thick.set_value(surface.tip_thickness or round(0.08 * surface.tip_size, 1))
        if not self.root.count.line.isModified():
            self.root.count.set_value(
                float(len(surface.ribs) or max(2, round(surface.half / 40) + 1))
            )

    def _show_ribs(self, surface: TailSurface) -> None:
        build = self.document.build
        self._ribs = cut_ribs(surface, build.profiles)
        tone = tone_of(surface.material)
        self._number = min(self._number, max(len(self._ribs), 1))
        chosen = f"rib {self._number}"
        self.gallery.show_picture(rib_gallery(self._ribs, tone), chosen)
        if not self._ribs:
            return
        rib = self._ribs[self._number - 1]
        self.large.set_title(say.rib_title(self._number, rib.lofted.y, self.unit))
        self.large.show_picture(rib_picture(rib, tone, self._number))
        trimmed = {one.y: one for one in trimmed_of(surface, build.profiles)}
        self.rib.show_lines(*say.rib_lines(rib, trimmed.get(rib.lofted.y), self.unit))
        figures = []
        for spar in surface.spars:
            figures.append(
                Figure(
                    f"{spar.id}|at_chord",
                    say.spar_words(spar.id, "at_chord"),
                    _PERCENT * spar.at_chord,
                    "number",
                )
            )
            figures.append(
                Figure(f"{spar.id}|width", say.spar_words(spar.id, "width"), spar.section[0])
            )
            figures.append(
                Figure(f"{spar.id}|depth", say.spar_words(spar.id, "depth"), spar.section[1])
            )
        figures += self._tubes(surface)
        figures.append(Figure("feet", say.FIGURE_WORDS["feet"], surface.feet))
        self.spars.show_figures("", tuple(figures), self.unit)
        self.half_ribs.show_answer("yes" if surface.half_ribs else "no")
        self.on_ribs.show_surface(
            surface, self._sections(), stock_heights(surface, build.profiles), self.unit
        )
        stack = stack_of(surface, build.profiles)
        lines = say.stack_sentences(stack, self.unit)
        off = even_in_stack(surface)
        if off > 0.5:  # noqa: PLR2004  mm: less than a rib's own thickness
            lines.append(say.uneven_sentence(off, self.unit))
        lines.append(say.trimmed_sentence(tuple(trimmed.values()), self.unit))
        self.by_hand.show_lines("", lines)
        self.fit.show_answer(surface.slot_fit or "", say.SLOT_CURE.get(surface.slot_fit or "", ""))

    def _tubes(self, surface: TailSurface) -> list[Figure]:
        found = []
        for tube in surface.tubes:
            share, across, long = (
                f"{tube.id}|{what}" for what in ("at_chord", "diameter", "length")
            )
            found += [
                Figure(
                    share, say.spar_words(tube.id, "at_chord"), _PERCENT * tube.at_chord, "number"
                ),
                Figure(across, say.spar_words(tube.id, "diameter"), tube.diameter),
                Figure(long, say.spar_words(tube.id, "length"), tube.length),
            ]
        return found

    def _show_foam(self, surface: TailSurface) -> None:
        build = self.document.build
        self.spars.show_figures("", tuple(self._tubes(surface)), self.unit)
        core = core_of(surface, build.profiles)
        if core is None:
            self.gallery.show_picture(WoodPicture(), "", say.SHEET_FOAM)
            self.large.show_picture(WoodPicture())
        else:
            root = WoodShape(
                "root", down(core.root), grain=0.0, tone=tone_of(kind_of(surface).wood)
            )
            tip = WoodShape("tip", down(core.tip), grain=0.0, tone="foam")
            self.gallery.show_picture(WoodPicture((root,)), "", say.core_note(core, self.unit))
            self.large.set_title(say.TIP_CORE)
            self.large.show_picture(WoodPicture((tip,)))
        lines = [say.skin_sentence(one, self.unit) for one in skins_of(surface, build.profiles)]
        lines += [
            say.strip_sentence(one, self.unit) for one in edge_strips(surface, build.profiles)
        ]
        if surface.tubes and surface.le_x is not None and surface.z is not None:
            lines += [say.tube_sentence(one, self.unit) for one in holes_in_sides(build, surface)]
            lines.append(say.LEVEL_HOLES)
        channel = seal_channel(surface)
        if channel is not None:
            lines.append(say.seal_sentence(channel, self.unit))
        lines.append(say.FOAM_CAUTION)
        self.foam.show_lines("", lines)

    # -- what the hands do -------------------------------------------------------------------------

    def _on_rib(self, ref: str) -> None:
        kind, _, number = ref.rpartition(" ")
        if kind == "rib":
            self._number = int(number)
            self.refresh()

    def _on_made(self) -> None:
        surface = self.surface
        if surface is None:
            return
        thick, count = self.root.thick.value, self.root.count.value
        if thick is None or count is None:
            self.tell(say.THREE_CLICKS_WHY)
            return
        section = str(self.root.section.currentData())
        for field in (self.root.thick, self.root.count):
            field.line.setModified(False)
        self.apply(
            say.MAKE_RIBS.lower(),
            edits.from_root_rib.of(surface.id, section, thick, round(count)),
        )

    def _on_section(self) -> None:
        surface = self.surface
        if surface is not None and surface.kind is not None:
            section = str(self.root.section.currentData())
            self.apply(say.SECTION.lower(), edits.set_section.of(surface.id, section))

    def _on_open(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, say.OPEN_SECTION, "", say.SECTION_FILES)
        if name:
            self.open_section(Path(name))

    def open_section(self, path: Path) -> None:
        """Take a coordinate file into the build and give it to the root."""
        surface = self.surface
        if surface is None:
            return
        try:
            text = path.read_bytes().decode("utf-8", errors="replace")
        except OSError as fault:
            self.tell(say.not_read(path.name, fault.strerror or fault))
            return
        self.apply(
            say.section_edit(path.name),
            edits.bring_in_section.of(surface.id, path.name, text),
        )

    def _on_spar(self, key: str, value: float) -> None:
        surface = self.surface
        if surface is None:
            return
        if key == "feet":
            self.apply(say.FIGURE_WORDS[say.FEET], edits.set_figures.of(surface.id, feet=value))
            return
        spar_id, _, what = key.partition("|")
        if any(one.id == spar_id for one in surface.tubes):
            figure = value / _PERCENT if what == "at_chord" else value
            self.apply(
                say.spar_words(spar_id, what),
                edits.set_tube.of(surface.id, spar_id, **{what: figure}),
            )
            return
        spar = next(one for one in surface.spars if one.id == spar_id)
        figures: dict[str, object] = {"at_chord": value / _PERCENT}
        if what in ("width", "depth"):
            wide, deep = spar.section
            figures = {"section": (value, deep) if what == "width" else (wide, value)}
        self.apply(
            say.spar_words(spar_id, what),
            edits.set_spar.of(surface.id, spar_id, **figures),
        )

    def _on_added(self, key: str) -> None:
        surface = self.surface
        if surface is None:
            return
        if key == "tube":
            self.apply(_ADDED[key].lower(), edits.add_tube.of(surface.id))
        else:
            self.apply(_ADDED[key].lower(), edits.add_spar.of(surface.id, key))

    def _on_ribs_figure(self, key: str, value: float) -> None:
        surface = self.surface
        if surface is None:
            return
        figures: dict[str, object] = {key: round(value) if key == "doubled_ribs" else value}
        if key in ("cap_wide", "cap_thick"):
            wide, thick = surface.capstrip or _CAPSTRIP_MM
            cap = (value, thick) if key == "cap_wide" else (wide, value)
            figures = {"capstrip": cap if value > 0 else None}
        self.apply(ribs_say.ribs_edit(key), edits.set_figures.of(surface.id, **figures))

    def _on_places(self, text: str) -> None:
        surface = self.surface
        if surface is None:
            return
        try:
            places = ribs_say.read_places(text, self.unit)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        self.apply(
            ribs_say.ribs_edit(ribs_say.PLACES), edits.set_figures.of(surface.id, ribs=places)
        )

    def _on_tip_section(self, name: str) -> None:
        surface = self.surface
        if surface is not None:
            what = edits.set_section.of(surface.id, name, tip=True)
            self.apply(ribs_say.ribs_edit(ribs_say.TIP_SECTION), what)

    def _on_half_ribs(self, key: str) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(
                say.HALF_RIBS.lower(),
                edits.set_figures.of(surface.id, half_ribs=key == "yes"),
            )

    def _on_fit(self, key: str) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(
                say.SLOT_ASK.lower(),
                edits.set_slot_fit.of(surface.id, key),  # type: ignore[arg-type]
            )
