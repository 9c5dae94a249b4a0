"""What it is printed on, by which printer, and as which file."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QComboBox, QPushButton, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import prints as say
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.flow import FlowLayout
from hardkeel.ui.widgets.folded import Folded

BAR_MM: Final = 100.0


class PaperCard(Card):
    """Papers as buttons, the printer with its bars folded, files.

    Signals
    -------
    paper_picked : str
        Another paper.
    printer_picked : str
        Another printer; empty for any.
    bars_measured : float, float
        What the bar across the page and the bar up it measure on a print, mm.
    file_wanted : str
        ``pdf``, ``whole``, ``dxf`` or ``svg``.
    """

    paper_picked = pyqtSignal(str)
    printer_picked = pyqtSignal(str)
    bars_measured = pyqtSignal(float, float)
    file_wanted = pyqtSignal(str)

    def __init__(self, papers: Sequence[str], unit: LengthUnit) -> None:
        super().__init__(say.PAPER)
        self._papers = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        sheet = QWidget()
        flow = FlowLayout(sheet)
        for paper in papers:
            button = QPushButton(paper)
            button.setObjectName("choice")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, paper=paper: self.paper_picked.emit(paper))
            self._papers.addButton(button)
            self.buttons[paper] = button
            flow.addWidget(button)
        self.column.addWidget(sheet)
        self.printer = QComboBox()
        self.printer.setAccessibleName(say.PRINTER)
        self.printer.activated.connect(
            lambda _row: self.printer_picked.emit(self.printer.currentData() or "")
        )
        self.column.addWidget(self.printer)
        self.bars = Folded(say.BARS_LINE)
        self.across, self.up = QuantityEdit(unit=unit, digits=2), QuantityEdit(unit=unit, digits=2)
        for number, (words, field) in enumerate(((say.ACROSS, self.across), (say.UP, self.up))):
            field.line.setAccessibleName(f"{say.BARS} {words}")
            field.value_changed.connect(lambda _mm: self._on_bars())
            self.bars.put_pair(number, label("soft", words, wrap=False), field)
        self.bars.put_across(label("soft", say.BARS))
        self.column.addWidget(self.bars)
        self.files: dict[str, QPushButton] = {}
        row = FlowLayout(gap=6)
        row.addWidget(label("soft", say.AS_A_FILE, wrap=False))
        for key, words in (
            ("pdf", say.PDF_PAGES), ("whole", say.PDF_WHOLE), ("dxf", say.DXF), ("svg", say.SVG),
        ):  # fmt: skip
            button = QPushButton(words)
            button.setObjectName("plain")
            button.clicked.connect(lambda _on, key=key: self.file_wanted.emit(key))
            self.files[key] = button
            row.addWidget(button)
        self.column.addLayout(row)

    def show_paper(self, paper: str) -> None:
        """Which one it is."""
        self.buttons[paper].setChecked(True)

    def show_printers(self, names: Sequence[str], chosen: str) -> None:
        """The printers there are, and the one in use."""
        self.printer.clear()
        self.printer.addItem(say.AS_IT_COMES, "")
        for name in names:
            self.printer.addItem(name, name)
        self.printer.setCurrentIndex(max(self.printer.findData(chosen), 0))

    def show_bars(self, correction: tuple[float, float]) -> None:
        """What is made up for; the next print's bars are true then."""
        self.bars.show_values(say.made_up(*correction))
        for field in (self.across, self.up):
            field.set_value(BAR_MM)

    def show_files(self, *, drawings: bool) -> None:
        """Pieces go to the cutter from *Wood and sheets*: here they are paper only."""
        for key in ("whole", "dxf", "svg"):
            self.files[key].setEnabled(drawings)

    def set_unit(self, unit: LengthUnit) -> None:
        """Take lengths in another unit."""
        for field in (self.across, self.up):
            field.set_kind(angular=False, unit=unit)
            field.set_value(BAR_MM)

    def _on_bars(self) -> None:
        across, up = self.across.value, self.up.value
        if across and up:
            self.bars_measured.emit(across, up)
