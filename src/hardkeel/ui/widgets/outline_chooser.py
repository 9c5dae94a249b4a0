"""Which outline of a drawing that holds several is what is in hand; or each former its own."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QAbstractButton,
    QButtonGroup,
    QDialog,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.base.values import Point2
from hardkeel.messages import outlines as say
from hardkeel.messages import shell
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.choice_ground import begin_choice
from hardkeel.ui.widgets.viewport import fit

_COLUMNS: Final = 4
_ROOMY: Final = QSize(1280, 800)  # where it stands over no window
_BESIDE_PX: Final = 90  # what the dialog has beside its choices, and above and under them
_ABOVE_PX: Final = 220


@dataclass(frozen=True, slots=True)
class OutlineShown:
    """An outline: the former that it is called after (empty where after none), its size in words, its ring in mm."""

    name: str
    size: str
    ring: tuple[Point2, ...]


def outline_shown(name: str, ring: tuple[Point2, ...], unit: LengthUnit) -> OutlineShown:
    """A ring (mm) with its size told in the builder's unit."""
    xs, ys = [p[0] for p in ring], [p[1] for p in ring]
    wide, tall = max(xs) - min(xs), max(ys) - min(ys)
    size = say.outline_size(format_length(wide, unit, 1), format_length(tall, unit, 1))
    return OutlineShown(name, size, ring)


class _Choice(QAbstractButton):
    """One outline, drawn as wood at the scale of all the others."""

    def __init__(self, shown: OutlineShown, reach_mm: float, theme: Theme) -> None:
        super().__init__()
        self.shown, self.theme = shown, theme
        self._reach = reach_mm
        self.setCheckable(True)
        self.setText(shown.name)
        self.setAccessibleName(" ".join(one for one in (shown.name, shown.size) if one))

    def sizeHint(self) -> QSize:
        return QSize(self.theme.px(160), self.theme.px(170))

    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        theme, painter = self.theme, begin_choice(self, self.theme)
        on = self.isChecked()
        ring = tuple((x, -y) for x, y in self.shown.ring)  # drawings count upwards
        us, vs = [p[0] for p in ring], [p[1] for p in ring]
        middle = ((min(us) + max(us)) / 2, (min(vs) + max(vs)) / 2)
        half = self._reach / 2
        below = theme.px(46)
        box = QRectF(10, 10, self.width() - 20, self.height() - 14 - below)
        corners = (middle[0] - half, middle[1] - half, middle[0] + half, middle[1] + half)
        painter.setPen(QPen(theme.colour("ink"), 1.2))
        painter.setBrush(theme.colour("wood"))
        painter.drawPolygon(fit(box, corners).polygon(ring))
        line = theme.px(22)
        for words, size, row in ((self.shown.name, 15, 2), (self.shown.size, 13, 1)):
            painter.setPen(theme.colour("act" if on else "ink"))
            painter.setFont(theme.font(size, weight=600 if row > 1 else 400))
            place = QRectF(4, self.height() - row * line - 3, self.width() - 8, line)
            painter.drawText(place, Qt.AlignmentFlag.AlignCenter, words)


class OutlineChooser(QDialog):
    """The outlines of a drawing to pick from.

    Signals
    -------
    one_wanted : int
        The number of the outline that is meant.
    all_wanted : (nothing)
        Each former gets the outline that is called after it.

    Parameters
    ----------
    each : bool
        Whether that may be wanted.
    """

    one_wanted = pyqtSignal(int)
    all_wanted = pyqtSignal()

    def __init__(
        self,
        file: str,
        former: str,
        shown: Sequence[OutlineShown],
        theme: Theme,
        parent: QWidget | None = None,
        *,
        each: bool = True,
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.WHICH_OUTLINE)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._group = QButtonGroup(self)
        names = [one.name for one in shown if one.name]
        box = QVBoxLayout(self)
        box.setContentsMargins(24, 20, 24, 18)
        box.setSpacing(12)
        box.addWidget(label("title", say.several_outlines(file, len(shown), former)))
        box.addWidget(self._choices(shown, theme), 1)
        self.back = QPushButton(shell.GO_BACK)
        self.each = QPushButton(say.give_each(names))
        self.each.setVisible(each and len(names) > 1)
        self.one = QPushButton(say.give_it_to(former))
        self.one.setObjectName("primary")
        self.one.setDefault(True)
        row = QHBoxLayout()
        row.addStretch(1)
        for button in (self.back, self.each, self.one):
            row.addWidget(button)
        box.addLayout(row)
        self.back.clicked.connect(self.reject)
        self.each.clicked.connect(self._on_each)
        self.one.clicked.connect(self._on_one)
        self._group.idClicked.connect(lambda _id: self.one.setEnabled(True))
        mine = next((i for i, one in enumerate(shown) if one.name == former), None)
        self.one.setEnabled(mine is not None)
        if mine is not None:
            self.choose(mine)
        apply_style(self)

    def _choices(self, shown: Sequence[OutlineShown], theme: Theme) -> QWidget:
        reach = max(
            max(max(p[i] for p in one.ring) - min(p[i] for p in one.ring) for i in (0, 1))
            for one in shown
        )
        sheet = QWidget()
        grid = QGridLayout(sheet)
        grid.setSpacing(10)
        for i, one in enumerate(shown):
            button = _Choice(one, reach, theme)
            self._group.addButton(button, i)
            grid.addWidget(button, i // _COLUMNS, i % _COLUMNS)
        area = QScrollArea()
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setWidgetResizable(True)
        area.setWidget(sheet)
        rows = min(3, math.ceil(len(shown) / _COLUMNS))
        wide = min(_COLUMNS, len(shown)) * theme.px(172) + 40
        # as much as there is room for; a small window or large text scrolls
        over = self.parentWidget()
        window = over.window() if over is not None else None
        room = window.size() if window is not None else _ROOMY
        area.setMinimumSize(
            min(wide, room.width() - _BESIDE_PX),
            min(rows * theme.px(182) + 12, max(theme.px(182), room.height() - _ABOVE_PX)),
        )
        return area

    def choose(self, number: int) -> None:
        """Pick an outline."""
        button = self._group.button(number)
        if button is not None:
            button.setChecked(True)
            self.one.setEnabled(True)

    def _on_one(self) -> None:
        self.accept()
        self.one_wanted.emit(self._group.checkedId())

    def _on_each(self) -> None:
        self.accept()
        self.all_wanted.emit()
