"""Kinds of model as small drawings to pick."""

import math
from collections.abc import Mapping
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QGridLayout, QWidget

from hardkeel.airframe.bodies import bodies_of
from hardkeel.airframe.figures import MODEL_KINDS, ModelKind, build_from, proposed
from hardkeel.base.values import Point
from hardkeel.ui.theme import Theme

_ACROSS: Final = 3
_ROUND, _UP = math.radians(32.0), 0.55  # seen from ahead, to starboard and above


def _seen(point: Point) -> tuple[float, float]:
    x, y, z = point
    aft, side = (
        x * math.cos(_ROUND) - y * math.sin(_ROUND),
        x * math.sin(_ROUND) + y * math.cos(_ROUND),
    )
    return side, -z * math.sqrt(1 - _UP**2) - aft * _UP


class _Kind(QAbstractButton):
    """One kind, drawn from its own bodies."""

    def __init__(self, kind: ModelKind, words: str, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.setCheckable(True)
        self.setText(words)
        self.setAccessibleName(words)
        build = build_from(proposed(kind))
        self._rings = [
            [_seen(p) for p in body.outline] for body in bodies_of(build) if body.outline
        ]
        stops = [stop for _, stop in build.fuselage.stations] if build.fuselage else []
        top = [_seen((one.station, one.half_width, one.top)) for one in stops]
        keel = [_seen((one.station, 0.0, one.bottom)) for one in stops[::-1]]
        self._hull = [*top, *keel]

    def sizeHint(self) -> QSize:
        return QSize(self.theme.px(124), self.theme.px(86))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        theme, painter = self.theme, QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        on = self.isChecked()
        painter.setPen(
            QPen(theme.colour("act" if on or self.hasFocus() else "hair"), 2.0 if on else 1.0)
        )
        painter.setBrush(theme.colour("act_wash" if on else "paper"))
        painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
        points = [p for ring in (*self._rings, self._hull) for p in ring]
        left, right = min(p[0] for p in points), max(p[0] for p in points)
        high, low = min(p[1] for p in points), max(p[1] for p in points)
        box = QRectF(8, 6, self.width() - 16, self.height() - theme.px(30))
        scale = min(box.width() / (right - left), box.height() / (low - high))
        middle = box.center()

        def put(ring: list[tuple[float, float]]) -> QPolygonF:
            return QPolygonF(
                QPointF(
                    middle.x() + scale * (u - (left + right) / 2),
                    middle.y() + scale * (v - (high + low) / 2),
                )
                for u, v in ring
            )

        painter.setPen(QPen(theme.colour("ink"), 1.1))
        painter.setBrush(theme.colour("wood"))
        painter.drawPolygon(put(self._hull))
        painter.setBrush(theme.colour("wing"))
        for ring in self._rings:
            painter.drawPolygon(put(ring))
        painter.setPen(theme.colour("act" if on else "ink"))
        painter.setFont(theme.font(14, weight=600))
        foot = QRectF(0, self.height() - theme.px(25), self.width(), theme.px(22))
        painter.drawText(foot, Qt.AlignmentFlag.AlignCenter, self.text())


class KindPicker(QWidget):
    """All kinds.

    Signals
    -------
    picked : str
        A kind.
    """

    picked = pyqtSignal(str)

    def __init__(self, words: Mapping[ModelKind, str], theme: Theme) -> None:
        super().__init__()
        self._group = QButtonGroup(self)
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 4)
        grid.setSpacing(6)
        for i, kind in enumerate(MODEL_KINDS):
            button = _Kind(kind, words[kind], theme)
            self._group.addButton(button, i)
            grid.addWidget(button, i // _ACROSS, i % _ACROSS)
        self._group.button(0).setChecked(True)  # type: ignore[union-attr]
        self._group.idClicked.connect(lambda i: self.picked.emit(MODEL_KINDS[i]))

    @property
    def kind(self) -> ModelKind:
        """The one that is picked."""
        return MODEL_KINDS[self._group.checkedId()]

    def pick(self, kind: ModelKind) -> None:
        """Pick one as a hand does."""
        button = self._group.button(MODEL_KINDS.index(kind))
        if button is not None:
            button.click()
