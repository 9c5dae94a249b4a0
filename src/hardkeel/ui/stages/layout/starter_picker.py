"""Airframes to start from, as drawings to pick, with span and length."""

from collections.abc import Sequence
from dataclasses import dataclass

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QAbstractButton,
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.messages import layout as say
from hardkeel.picture.board import Curve
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.choice_ground import begin_choice
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.viewport import fit, section_path


@dataclass(frozen=True, slots=True)
class StarterShown:
    """A kind of airframe: its side view in mm, its name and a line about it."""

    id: str
    name: str
    says: str
    curves: tuple[Curve, ...]


class _Choice(QAbstractButton):
    """One kind, drawn."""

    def __init__(self, shown: StarterShown, theme: Theme) -> None:
        super().__init__()
        self.shown, self.theme = shown, theme
        self.setCheckable(True)
        self.setText(shown.name)
        self.setToolTip(shown.says)
        self.setAccessibleName(f"{shown.name}: {shown.says}")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)

    def sizeHint(self) -> QSize:
        return QSize(self.theme.px(250), self.theme.px(118))

    def minimumSizeHint(self) -> QSize:
        return QSize(self.theme.px(110), self.theme.px(90))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        theme, painter = self.theme, begin_choice(self, self.theme)
        on = self.isChecked()
        points = [p for curve in self.shown.curves for p in curve.points]
        us, vs = [p[0] for p in points], [p[1] for p in points]
        box = QRectF(16, 10, self.width() - 32, self.height() - theme.px(44))
        viewport = fit(box, (min(us), min(vs), max(us), max(vs)))
        for curve in self.shown.curves:
            painter.setPen(QPen(theme.colour("ink" if curve.role != "stop" else "soft"), 1.2))
            painter.setBrush(theme.colour("wood" if curve.role == "skin" else "wing"))
            if curve.role == "body":
                painter.drawPath(section_path(viewport, curve.points))
            else:
                painter.drawPolygon(viewport.polygon(curve.points))
        painter.setPen(theme.colour("act" if on else "ink"))
        painter.setFont(theme.font(15, weight=600))
        painter.drawText(
            QRectF(0, self.height() - theme.px(30), self.width(), theme.px(26)),
            Qt.AlignmentFlag.AlignCenter,
            self.shown.name,
        )


class StarterPicker(QWidget):
    """Pick a kind, type span and length.

    Signals
    -------
    start_wanted : str, float, float
        Kind, span and length in mm.
    """

    start_wanted = pyqtSignal(str, float, float)

    def __init__(self, theme: Theme, unit: LengthUnit, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._group = QButtonGroup(self)
        self.span = QuantityEdit(unit=unit)
        self.length = QuantityEdit(unit=unit)
        for field, value, name in ((self.span, 1200.0, "span"), (self.length, 920.0, "length")):
            field.set_value(value)
            field.line.setAccessibleName(name)
            field.setFixedWidth(theme.px(150))
            field.value_changed.connect(self._on_start)
        self._says = label("soft")
        self.start = QPushButton(say.LAY_IT_OUT)
        self.start.setObjectName("primary")
        self.start.clicked.connect(self._on_start)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(34, 26, 34, 20)
        outer.setSpacing(12)
        outer.addWidget(label("big", say.HOW_IS_IT_BUILT))
        outer.addWidget(label("soft", say.PICK_THE_NEAREST_KIND))
        self._rows = QGridLayout()
        self._rows.setSpacing(10)
        for column in range(3):
            self._rows.setColumnStretch(column, 1)
        outer.addLayout(self._rows)
        outer.addWidget(self._says)
        row = QHBoxLayout()
        row.setSpacing(10)
        for words, field in (("wing span", self.span), ("length over all", self.length)):
            told = label("soft", words, wrap=False)
            told.setContentsMargins(0, 5, 0, 0)  # on the line of what is typed
            row.addWidget(told, 0, Qt.AlignmentFlag.AlignTop)
            row.addWidget(field, 0, Qt.AlignmentFlag.AlignTop)
        row.addWidget(self.start, 0, Qt.AlignmentFlag.AlignTop)
        row.addStretch(1)
        outer.addLayout(row)
        self.told = label("warn")
        outer.addWidget(self.told)
        outer.addStretch(1)

    def show_kinds(self, kinds: Sequence[StarterShown], theme: Theme) -> None:
        """Offer these kinds, three in a row."""
        for i, kind in enumerate(kinds):
            choice = _Choice(kind, theme)
            choice.setChecked(i == 1)
            choice.toggled.connect(self._on_toggled)
            self._group.addButton(choice, i)
            self._rows.addWidget(choice, i // 3, i % 3)
        self._kinds = tuple(kinds)
        self._on_toggled()

    @property
    def choices(self) -> list[QAbstractButton]:
        """The kinds as buttons."""
        return self._group.buttons()

    def set_unit(self, unit: LengthUnit) -> None:
        """Take lengths in another unit."""
        for field in (self.span, self.length):
            value = field.value
            field.set_kind(angular=False, unit=unit)
            field.set_value(value)

    def _on_toggled(self) -> None:
        picked = self._group.checkedId()
        self._says.setText(self._kinds[picked].says if picked >= 0 else "")

    def _on_start(self) -> None:
        span, length, picked = self.span.value, self.length.value, self._group.checkedId()
        if span is not None and length is not None and picked >= 0:
            self.start_wanted.emit(self._kinds[picked].id, span, length)
