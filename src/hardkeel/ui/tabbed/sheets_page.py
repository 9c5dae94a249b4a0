"""Wood and sheets: every flat piece on its sheet, what to buy, and the paper to cut by."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QProgressBar,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.edits import framing as edits
from hardkeel.export.paper_sizes import paper_for
from hardkeel.fuselage.model import Framing, Fuselage
from hardkeel.joinery.buying import Purchase
from hardkeel.joinery.nesting import NestedSheet, sheets_to_buy
from hardkeel.messages import frame as say
from hardkeel.messages import frame_edits as edits_say
from hardkeel.messages.faults import told
from hardkeel.messages.rack import rack_text, read_rack
from hardkeel.picture.framing import sheet_picture
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.tabbed.sticks_shown import wood_name
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.wood_board import WoodBoard

_SHEET_PX: Final = 118  # where nothing is drawn yet
_SHEET_HEAD_PX, _SHEET_WIDE_PX = 46, 690  # its words; what a page has room for
_LEAST_PX, _MOST_PX = 60, 260


class SheetsPage(SubPage):
    """Sheets under each other; wood to buy, saw and sheets, templates beside them.

    Signals
    -------
    strips_wanted, sheets_wanted : (nothing)
        They are to be reckoned; `show_strips` and `show_sheets` show them.
    templates_wanted : str
        All templates are to be written for this size of paper.
    stop_wanted : (nothing)
        The work under way is to be given up.
    """

    strips_wanted = pyqtSignal()
    sheets_wanted = pyqtSignal()
    templates_wanted = pyqtSignal(str)
    stop_wanted = pyqtSignal()

    nothing = Doing(say.NOTHING_TO_FRAME)
    shows: frozenset[str] = frozenset()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._bought: tuple[Purchase, ...] = ()
        self._sheets: tuple[NestedSheet, ...] = ()
        self.boards: list[WoodBoard] = []
        self.now, self.wood = NowCard(), LinesCard(say.WOOD_TO_BUY)
        self.now.show_doing(self.nothing)
        self.now.asked.connect(self.place_wanted)
        self.saw = FiguresCard(say.SAW_AND_SHEETS)
        self.grain, self.rack, self.offcuts = QComboBox(), QLineEdit(), QLineEdit()
        self.paper, self.printer = QComboBox(), QComboBox()
        self.write = QPushButton(say.WRITE_THE_SHEETS)
        self.bar, self.stop = QProgressBar(), QPushButton(say.STOP_IT)
        self._working = label("soft", say.NOT_LAID_YET)
        self._templates = Card(say.TEMPLATES, "act")
        self._lay_out()
        self._connect()
        self.refresh_lazily(self.shows | {"audit"})
        self.refresh()

    def _lay_out(self) -> None:
        self.grain.addItem(say.ACROSS_GRAIN, "across")
        self.grain.addItem(say.ALONG_GRAIN, "along")
        self.grain.setAccessibleName("grain of the sheeting")
        self.rack.setPlaceholderText(say.RACK_HINT)
        self.rack.setAccessibleName(say.YOUR_RACK)
        self.saw.column.addWidget(self.grain)
        self.saw.column.addWidget(label("soft", say.YOUR_RACK, wrap=False))
        self.saw.column.addWidget(self.rack)
        self.offcuts.setPlaceholderText(say.OFFCUTS_HINT)
        self.offcuts.setAccessibleName(say.YOUR_OFFCUTS)
        self.saw.column.addWidget(label("soft", say.YOUR_OFFCUTS, wrap=False))
        self.saw.column.addWidget(self.offcuts)
        for size in say.PAPER_SIZES:
            self.paper.addItem(size, size)
        self.paper.setAccessibleName("paper size")
        self.paper.setCurrentText(paper_for(self.unit))
        self.printer.setAccessibleName("how true the printer is")
        self.write.setObjectName("primary")
        row = QHBoxLayout()
        row.addWidget(self.write, 1)
        row.addWidget(self.paper)
        self._templates.column.addLayout(row)
        self._templates.column.addWidget(self.printer)
        self._templates.column.addWidget(label("soft", say.PRINTED_RIGHT))
        self._lay_out_sheets()

    def _lay_out_sheets(self) -> None:
        self.bar.setTextVisible(False)
        self.bar.setAccessibleName("how far the work is")
        self.stop.setObjectName("tool")
        progress = QHBoxLayout()
        progress.addWidget(self._working, 1)
        progress.addWidget(self.bar, 1)
        progress.addWidget(self.stop)
        self._inside = QWidget()
        self._inside.setObjectName("paper")
        self._column = QVBoxLayout(self._inside)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(1)
        self._column.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(self._inside)
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        head = QWidget()
        head.setLayout(progress)
        self._head = head
        work.addWidget(head)
        work.addWidget(scroll, 1)
        self._cards = CardColumn(
            (self.told, self.now, self._templates, FoldedSheet((self.wood, self.saw))), self.theme
        )
        self.lie_beside(work, self._cards)
        self.themed = (self._cards,)
        self.show_working(None)

    def _connect(self) -> None:
        self.saw.figure_changed.connect(self._on_figure)
        self.grain.activated.connect(
            lambda: self.apply(
                say.set_edit(edits_say.SHEETING),
                edits.set_framing.of(sheeting=self.grain.currentData()),
            )
        )
        self.printer.activated.connect(
            lambda: self.apply(
                say.set_edit(edits_say.PRINTER),
                edits.set_framing.of(printer=self.printer.currentData() or None),
            )
        )
        self.rack.editingFinished.connect(lambda: self._on_rack(self.rack))
        self.offcuts.editingFinished.connect(lambda: self._on_rack(self.offcuts))
        self.write.clicked.connect(lambda: self.templates_wanted.emit(self.paper.currentData()))
        self.stop.clicked.connect(self.stop_wanted)

    @property
    def framing(self) -> Framing:
        """Sheets, saw and rack, which the whole build shares."""
        return (self.document.build.fuselage or Fuselage()).framed

    @property
    def ready(self) -> bool:
        """Whether there is anything to cut."""
        return False

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.write.setFocus()

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit, and the paper that goes with it where none was chosen."""
        if self.paper.currentText() == paper_for(self.unit):
            self.paper.setCurrentText(paper_for(unit))
        super().set_unit(unit)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        super().set_theme(theme)
        for board, sheet in zip(self.boards, self._sheets, strict=True):
            board.set_theme(theme)
            board.setFixedHeight(self._tall(sheet))

    def choose(self, ref: str) -> None:
        """Light a piece up on its sheet."""
        for board in self.boards:
            board.choose(ref)

    def refresh(self) -> None:
        """Show the build as it is now."""
        framed = self.framing
        figures = (
            Figure("kerf", say.KERF, framed.kerf),
            Figure("sheet_gap", say.SHEET_GAP, framed.sheet_gap),
            Figure("cutter_kerf", say.CUTTER_KERF, framed.cutter_kerf),
            Figure("cutter_tag", say.CUTTER_TAG, framed.cutter_tag),
            Figure("trim", say.TRIM, framed.trim),
            Figure("length", say.SHEET_LENGTH, framed.sheet[0]),
            Figure("width", say.SHEET_WIDTH, framed.sheet[1]),
        )
        self.saw.show_figures("", figures, self.unit)
        self.grain.setCurrentIndex(self.grain.findData(framed.sheeting))
        self._show_printers(framed.printer)
        for line, stock in ((self.rack, framed.stock), (self.offcuts, framed.offcuts)):
            if not line.hasFocus():
                line.setText(rack_text(stock, self.unit))
        for card in (self.saw, self._templates):
            card.setVisible(self.ready)
        self.now.setVisible(not self.ready)
        if self.ready:
            self.strips_wanted.emit()
            self.sheets_wanted.emit()
        else:
            self.show_sheets(())
            self.wood.show_lines("", ())

    def _show_printers(self, chosen: str | None) -> None:
        self.printer.clear()
        self.printer.addItem(say.AS_PRINTED, "")
        for sheet in self.document.build.audit:
            self.printer.addItem(say.corrected_by(sheet.id), sheet.id)
        self.printer.setCurrentIndex(max(self.printer.findData(chosen or ""), 0))
        self.printer.setVisible(self.printer.count() > 1)

    def show_strips(self, bought: Sequence[Purchase]) -> None:
        """Say which strips to buy."""
        self._bought = tuple(bought)
        self._show_wood()

    def show_sheets(self, sheets: Sequence[NestedSheet]) -> None:
        """Draw the sheets with their pieces."""
        self._sheets = tuple(sheets)
        while len(self.boards) > len(sheets):
            board = self.boards.pop()
            self._column.removeWidget(board)
            board.deleteLater()
        while len(self.boards) < len(sheets):
            board = WoodBoard(self.theme, "", height=_SHEET_PX)
            board.picked.connect(self.piece_chosen)
            self._column.insertWidget(len(self.boards), board)
            self.boards.append(board)
        for board, sheet in zip(self.boards, sheets, strict=True):
            board.setFixedHeight(self._tall(sheet))
            wood = wood_name(self.document.build, sheet.material)
            title = f"{wood} {format_length(sheet.thickness, self.unit)}".strip()
            if sheet.own:
                title += f", {say.YOUR_OFFCUT}"
            if sheet.joined > 1:
                title += f", {say.joined_sheets(sheet.joined)}"
            board.set_title(title)
            note = say.sheet_note(len(sheet.placed), sheet.used, sheet.waste, self.unit)
            board.show_picture(sheet_picture(sheet), "", note)
        self._show_wood()

    def _tall(self, sheet: NestedSheet) -> int:
        """How tall a sheet is drawn, pixels: whole, and as wide as there is room."""
        drawn = _SHEET_WIDE_PX * sheet.width / sheet.length
        return self.theme.px(_SHEET_HEAD_PX) + round(min(max(drawn, _LEAST_PX), _MOST_PX))

    def show_working(self, share: float | None, words: str = say.WORKING) -> None:
        """How far the work is, from 0 to 1; ``None`` where there is none."""
        self._head.setVisible(share is not None)
        if share is not None:
            self._working.setText(words)
            self.bar.setRange(0, 100)
            self.bar.setValue(round(100 * share))

    def _show_wood(self) -> None:
        sheets = sheets_to_buy(self._sheets, self.framing.sheet)
        lines = [
            say.purchase_sentence(one, self.unit, wood_name(self.document.build, one.material))
            for one in self._bought
            if one.pieces or one.own
        ]
        if sheets:
            lines.append(say.sheets_head(self.framing.sheet, self.unit))
        lines += [
            say.sheet_sentence(one, wood_name(self.document.build, one.material), self.unit)
            for one in sheets
        ]
        strips = sum(one.pieces for one in self._bought)
        self.wood.show_lines(say.wood_answer(strips, sum(one.sheets for one in sheets)), lines)

    # -- what the hands do -------------------------------------------------------------------------

    def _on_figure(self, key: str, value: float) -> None:
        changes: dict[str, object] = {key: value}
        long, wide = self.framing.sheet
        if key in ("length", "width"):
            changes = {"sheet": (value, wide) if key == "length" else (long, value)}
        self.apply(say.set_edit(key.replace("_", " ")), edits.set_framing.of(**changes))

    def _on_rack(self, line: QLineEdit) -> None:
        if not line.isModified():
            return
        line.setModified(False)
        try:
            rack = read_rack(line.text(), self.unit)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if line is self.rack:
            self.apply(say.set_edit(say.YOUR_RACK.lower()), edits.set_rack.of(rack))
        else:
            self.apply(say.set_edit(say.YOUR_OFFCUTS.lower()), edits.set_offcuts.of(rack))
