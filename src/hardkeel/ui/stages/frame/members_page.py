"""Members: what the fuselage is framed of, from port and from above, each with its figures."""

from collections.abc import Callable
from typing import Final, get_args

from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.framing import limits_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length, format_size
from hardkeel.edits import framing as edits
from hardkeel.edits.named import Edit
from hardkeel.fuselage.members import member_kind
from hardkeel.fuselage.methods import any_with
from hardkeel.fuselage.model import Member, MemberKind
from hardkeel.messages import frame as say
from hardkeel.messages import frame_edits as edits_say
from hardkeel.messages import guides as guides_say
from hardkeel.messages import planking as planking_say
from hardkeel.messages import stringers as stringers_say
from hardkeel.messages.faults import told
from hardkeel.parts.woods import WOODS
from hardkeel.picture.framing import side_view, view_from_above
from hardkeel.picture.wood import WoodPicture
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.frame_page import SHOWS, FrameSubPage
from hardkeel.ui.stages.frame.guide_rows import GuideRows
from hardkeel.ui.stages.frame.planking_card import PlankingCard
from hardkeel.ui.stages.frame.stringers_card import StringersCard
from hardkeel.ui.tabbed.sticks_shown import wood_name
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.wood_board import WoodBoard

_KINDS: Final[tuple[MemberKind, ...]] = get_args(MemberKind)
_BRACING: Final = (
    ("upright", "uprights"),
    ("diagonal", "diagonals"),
)
_PATTERNS: Final = ("zigzag", "crossed", "none")


class MembersPage(FrameSubPage):
    """Two views over a list; the member in hand in a card."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._member = ""
        self.side = WoodBoard(theme, say.FROM_PORT, height=190)
        self.above = WoodBoard(theme, say.FROM_ABOVE, height=130)
        columns = [Column("member"), Column("what it is"), Column("from"), Column("to"), Column("size", right=True), Column("wood")]  # fmt: skip
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 5, say.MEMBERS, (5, 1, 4))
        self.card = FiguresCard(say.IN_HAND)
        self.first, self.last, self.wood = QComboBox(), QComboBox(), QComboBox()
        self.triangular, self.curved = QCheckBox("triangular"), QCheckBox("hollow edge")
        self.remove = QPushButton(say.TAKE_IT_OUT)
        self._guide = GuideRows()
        self.kind, self.add = QComboBox(), QPushButton(say.ADD_A_MEMBER)
        self.usual = QPushButton(say.FRAME_AS_USUAL)
        self.new = Card(say.ADD_A_MEMBER)
        self._said = label("soft")
        self.bracing = FiguresCard(say.BRACING)
        self.planking = PlankingCard()
        self.stringers = StringersCard()
        self._by_girth = QCheckBox(stringers_say.BY_GIRTH)
        self.pattern = QComboBox()
        self._lay_out()
        self._connect()
        self.refresh_lazily(SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        for wood in WOODS:
            self.wood.addItem(wood.name, wood.id)
        for kind in _KINDS:
            self.kind.addItem(say.MEMBER_WORDS[kind], kind)
        for pattern in _PATTERNS:
            self.pattern.addItem(pattern, pattern)
        names = {
            self.first: "begins at", self.last: "ends at", self.wood: "wood",
            self.kind: "kind of member", self.pattern: "pattern of the bracing",
        }  # fmt: skip
        for box, name in names.items():
            box.setAccessibleName(name)
        grid = self._ends = QGridLayout()
        for row, (words, box) in enumerate(
            (("from", self.first), ("to", self.last), ("of", self.wood))
        ):
            grid.addWidget(label("soft", words, wrap=False), row, 0)
            grid.addWidget(box, row, 1)
        grid.setColumnStretch(1, 1)
        self.card.column.addLayout(grid)
        row_of_buttons = QHBoxLayout()
        self.remove.setObjectName("tool")
        self._by_girth.setToolTip(stringers_say.BY_GIRTH_TIP)
        for check in (self.triangular, self.curved, self._by_girth):
            row_of_buttons.addWidget(check)
        row_of_buttons.addStretch(1)
        row_of_buttons.addWidget(self.remove)
        self.card.column.addLayout(row_of_buttons)
        self.card.column.addWidget(self._guide)
        adding = QHBoxLayout()
        adding.addWidget(self.kind, 1)
        self.add.setObjectName("primary")
        adding.addWidget(self.add)
        self.new.column.addLayout(adding)
        self.new.column.addWidget(self._said)
        self.usual.setObjectName("tool")
        usual = QHBoxLayout()
        usual.addWidget(self.usual)
        usual.addStretch(1)
        self.new.column.addLayout(usual)
        self._said.setText(say.USUAL_MEMBERS)
        self.bracing.column.addWidget(self.pattern)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(1)
        work.addWidget(self.side, 5)
        work.addWidget(self.above, 4)
        work.addWidget(self.table, 5)
        self._cards = CardColumn(
            (
                self.told,
                self.card,
                self.new,
                FoldedSheet((self.bracing, self.stringers, self.planking)),
            ),
            self.theme,
        )
        self.lie_beside(work, self._cards)
        self.themed = (self.side, self.above, self.table, self._cards)

    def _connect(self) -> None:
        for board in (self.side, self.above):
            board.picked.connect(self.piece_chosen)
        self.table.row_picked.connect(self._on_row_picked)
        self.table.struck.connect(lambda _row: self._on_removed())
        self.card.figure_changed.connect(self._on_figure)
        self.first.activated.connect(lambda: self._set(from_=self.first.currentData()))
        self.last.activated.connect(lambda: self._set(to=self.last.currentData()))
        self.wood.activated.connect(lambda: self._set(material=self.wood.currentData()))
        self.triangular.clicked.connect(lambda on: self._set(triangular=on))
        self.curved.clicked.connect(lambda on: self._set(curved=on))
        self._by_girth.clicked.connect(lambda on: self._set(by_girth=on))
        self.stringers.spread.connect(self._on_spread)
        self.stringers.scallop_changed.connect(
            lambda mm: self.apply(
                stringers_say.stringers_edit(edits_say.SCALLOP), edits.set_framing.of(scallop=mm)
            )
        )
        self.remove.clicked.connect(self._on_removed)
        self._guide.more.connect(lambda: self._on_places(edits.add_place.of))
        self._guide.fewer.connect(lambda: self._on_places(edits.take_place.of))
        self.add.clicked.connect(self._on_added)
        self.usual.clicked.connect(
            lambda: self.apply(say.FRAME_AS_USUAL.lower(), edits.frame_as_usual.of())
        )
        self.bracing.figure_changed.connect(self._on_bracing)
        self.planking.figure_changed.connect(self._on_planking)
        self.planking.end_chosen.connect(self._on_planking)
        self.planking.full_size_wanted.connect(lambda on: self._on_planking("full_size", on))
        self.planking.wanted.connect(
            lambda: self.apply(planking_say.PLANK_IT.lower(), edits.set_planking.of())
        )
        self.planking.unwanted.connect(
            lambda: self.apply(planking_say.NO_PLANKS.lower(), edits.take_planking_off.of())
        )
        self.pattern.activated.connect(
            lambda: self.apply(
                say.set_edit(edits_say.BRACING_EDIT),
                edits.set_bracing.of(pattern=self.pattern.currentData()),
            )
        )

    @property
    def member(self) -> Member | None:
        """The member in hand."""
        members = self.fuselage.framed.members
        found = next((one for one in members if one.id == self._member), None)
        return found or (members[0] if members else None)

    def choose(self, ref: str) -> None:
        """Light a piece up; a member of that name is taken in hand."""
        if any(one.id == ref for one in self.fuselage.framed.members):
            self._member = ref
            self._show_card()
            self.table.selectRow(self.model.number_of(ref))
        for board in (self.side, self.above):
            board.choose(ref)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        build = self.document.build
        for widget in (self.new, self.table, self.planking, self.stringers):
            widget.setVisible(self.framed)
        if not self.framed:
            self.side.show_picture(WoodPicture(), "", say.NOTHING_TO_FRAME)
            self.above.show_picture(WoodPicture())
            self.card.hide()
            self.bracing.hide()
            return
        member = self.member
        chosen = member.id if member is not None else ""
        note = say.members_count(len(self.fuselage.framed.members))
        names = {one.id: say.member_title(one.id) for one in self.fuselage.framed.members}
        self.side.show_picture(side_view(build).named(names), chosen, note)
        self.above.show_picture(view_from_above(build).named(names), chosen)
        self.model.show_rows([self._row(one) for one in self.fuselage.framed.members], self.theme)
        self._show_card()
        self._show_bracing()
        self.stringers.show_stringers(self.fuselage, self.unit)
        try:
            self.planking.show_planking(self.fuselage, limits_of(build), self.unit)
        except BadInput as fault:
            self.tell(told(fault, self.unit))

    def _on_planking(self, key: str, value: object) -> None:
        self.apply(planking_say.planking_edit(key), edits.set_planking.of(**{key: value}))

    def _on_spread(self, around: int, section: tuple[float, float], first: str, last: str) -> None:
        now = next((m for m in self.fuselage.framed.members if m.kind == "stringer"), None)
        wood = now.material if now is not None else "spruce"
        what = edits.spread_stringers.of(
            around, first=first, last=last, section=section, material=wood
        )
        self.apply(stringers_say.SPREAD.lower(), what)

    def _row(self, member: Member) -> Row:
        return Row(
            member.id,
            (
                say.member_title(member.id),
                say.MEMBER_WORDS[member.kind],
                *self._from_to(member),
                self._size(member),
                wood_name(self.document.build, member.material),
            ),
        )

    def _from_to(self, member: Member) -> tuple[str, str]:
        """Between which stops it runs; a guide between which stations, what has one place only at which."""
        first, last = self.fuselage.stations[0][0], self.fuselage.stations[-1][0]
        if member.route:
            a, b = (
                format_length(place[0], self.unit) for place in (member.route[0], member.route[-1])
            )
            return a, b
        runs = member_kind(member.kind).runs
        if runs == "place" and member.station is not None and member.from_ is None:
            return format_length(member.station, self.unit), ""
        end = "" if runs == "former" else say.stop_words(member.to or last)
        return say.stop_words(member.from_ or first), end

    def _size(self, member: Member) -> str:
        if member.section is not None:
            return format_size(member.section, self.unit)
        figures = (member.width, member.height, member.thickness, member.diameter)
        given = tuple(one for one in figures if one is not None)
        return (
            format_size(given, self.unit) if len(given) > 1 else format_length(given[0], self.unit)
        )

    def _show_card(self) -> None:
        member = self.member
        self.card.setVisible(member is not None)
        if member is None:
            return
        figures = tuple(
            Figure(
                key,
                say.member_figure(member.kind, key),
                _figure(member, key),
                "angle" if key == "angle" else "length",
            )
            for key in member_kind(member.kind).shows
        ) + tuple(
            Figure(f"place.{i}.{axis}", guides_say.place_figure(i, name), place[axis])
            for i, place in enumerate(member.route)
            for axis, name in enumerate(("x", "y", "z"))
        )
        self._guide.show_guide(self.fuselage, member, self.unit)
        self.card.show_figures(say.member_title(member.id), figures, self.unit)
        names = [name for name, _ in self.fuselage.stations]
        for box, now in (
            (self.first, member.from_ or names[0]),
            (self.last, member.to or names[-1]),
        ):
            box.clear()
            for name in names:
                box.addItem(say.stop_words(name), name)
            box.setCurrentIndex(box.findData(now))
        kind = member_kind(member.kind)
        for row in range(2):  # a guide runs from place to place
            for column in range(2):
                item = self._ends.itemAtPosition(row, column)
                widget = item.widget() if item is not None else None
                if widget is not None:
                    widget.setVisible(kind.runs != "route")
        self.first.setEnabled(kind.runs in ("span", "former"))
        self.last.setEnabled(kind.runs in ("span", "to"))
        self.wood.setCurrentIndex(self.wood.findData(member.material))
        self.triangular.setVisible("triangular" in kind.traits)
        self.triangular.setChecked(member.triangular)
        self.curved.setVisible("curved" in kind.traits)
        self.curved.setChecked(member.curved)
        self._by_girth.setVisible("slanting" in kind.traits)
        self._by_girth.setChecked(member.by_girth)

    def _show_bracing(self) -> None:
        open_ = any_with(self.fuselage, "sticks")
        self.bracing.setVisible(open_)
        bracing = self.fuselage.bracing
        figures = []
        for key, words in _BRACING:
            section = getattr(bracing, key) if bracing is not None else None
            figures += [
                Figure(f"{key}.0", f"{words}, across", section[0] if section else None),
                Figure(f"{key}.1", "as drawn", section[1] if section else None),
            ]
        self.bracing.show_figures("", tuple(figures), self.unit)
        self.pattern.setCurrentIndex(
            self.pattern.findData(bracing.pattern if bracing is not None else "none")
        )

    # -- what the hands do -------------------------------------------------------------------------

    def _set(self, **figures: object) -> None:
        member = self.member
        if member is not None:
            self.apply(say.set_edit(member.id), edits.set_member.of(member.id, **figures))

    def _on_figure(self, key: str, value: float) -> None:
        member = self.member
        if member is None:
            return
        if key.startswith("place."):
            _, number, axis = key.split(".")
            moved = edits.set_place.of(member.id, int(number), int(axis), value)
            self.apply(say.set_edit(member.id), moved)
        elif key in ("across", "deep"):
            across, deep = member.section or (value, value)
            self._set(section=(value, deep) if key == "across" else (across, value))
        else:
            self._set(**{key: value})

    def _on_places(self, of: Callable[[str], Edit]) -> None:
        member = self.member
        if member is not None:
            self.apply(say.set_edit(member.id), of(member.id))

    def _on_bracing(self, key: str, value: float) -> None:
        name, place = key.split(".")
        bracing = self.fuselage.bracing
        section = (getattr(bracing, name) if bracing is not None else None) or (value, value)
        changed = (value, section[1]) if place == "0" else (section[0], value)
        self.apply(say.set_edit(name), edits.set_bracing.of(**{name: changed}))

    def _on_row_picked(self, number: int) -> None:
        row, member = self.model.row(number), self.member
        if row is not None and member is not None and row.key != member.id:
            self.piece_chosen.emit(row.key)

    def _on_removed(self) -> None:
        member = self.member
        if member is not None:
            self.apply(edits_say.take_member_out_edit(member.id), edits.delete_member.of(member.id))

    def _on_added(self) -> None:
        kind = self.kind.currentData()
        before = {one.id for one in self.fuselage.framed.members}
        if self.apply(
            edits_say.add_edit(say.MEMBER_WORDS[kind]),
            edits.add_member.of(kind, *edits.usual_ends(self.fuselage, kind)),
        ):
            new = [one.id for one in self.fuselage.framed.members if one.id not in before]
            if new:
                self.piece_chosen.emit(new[0])


def _figure(member: Member, key: str) -> float | None:
    if key in ("across", "deep"):
        return None if member.section is None else member.section[0 if key == "across" else 1]
    found: float | None = getattr(member, key)
    return found
