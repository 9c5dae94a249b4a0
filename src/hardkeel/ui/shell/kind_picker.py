"""Kinds of model, and of fuselage, as small drawings to pick."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QGridLayout, QWidget

from hardkeel.airframe.bodies import bodies_of
from hardkeel.airframe.figures import (
    MODEL_KINDS,
    Figures,
    FuselageName,
    ModelKind,
    build_from,
    proposed,
)
from hardkeel.base.values import Point
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.choice_ground import begin_choice

_Key = TypeVar("_Key", bound=str)
_CRUTCH, _UNDER = (
    0.012,
    0.03,
)  # of the length: half a crutch's thickness, and what lies between lowest former and board
_ROUND, _UP = math.radians(32.0), 0.55  # seen from ahead, to starboard and above


def _seen(point: Point) -> tuple[float, float]:
    x, y, z = point
    aft, side = (
        x * math.cos(_ROUND) - y * math.sin(_ROUND),
        x * math.sin(_ROUND) + y * math.cos(_ROUND),
    )
    return side, -z * math.sqrt(1 - _UP**2) - aft * _UP


@dataclass(frozen=True, slots=True)
class _Line:
    """A line of a small drawing: filled where it has a colour."""

    points: tuple[tuple[float, float], ...]
    fill: str = ""


class _Drawn(QAbstractButton):
    """A choice as a small drawing with its name beneath."""

    def __init__(
        self, words: str, lines: Sequence[_Line], size: tuple[int, int], theme: Theme
    ) -> None:
        super().__init__()
        self.theme, self._lines, self._size = theme, tuple(lines), size
        self.setCheckable(True)
        self.setText(words)
        self.setAccessibleName(words)

    def sizeHint(self) -> QSize:
        return QSize(*(self.theme.px(side) for side in self._size))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        theme, painter = self.theme, begin_choice(self, self.theme)
        on = self.isChecked()
        points = [p for line in self._lines for p in line.points]
        left, right = min(p[0] for p in points), max(p[0] for p in points)
        high, low = min(p[1] for p in points), max(p[1] for p in points)
        box = QRectF(8, 6, self.width() - 16, self.height() - theme.px(30))
        scale = min(box.width() / (right - left), box.height() / (low - high))
        middle = box.center()

        def put(line: _Line) -> QPolygonF:
            return QPolygonF(
                QPointF(
                    middle.x() + scale * (u - (left + right) / 2),
                    middle.y() + scale * (v - (high + low) / 2),
                )
                for u, v in line.points
            )

        painter.setPen(QPen(theme.colour("ink"), 1.1))
        for line in self._lines:
            if line.fill:
                painter.setBrush(theme.colour(line.fill))
                painter.drawPolygon(put(line))
            else:
                painter.drawPolyline(put(line))
        painter.setPen(theme.colour("act" if on else "ink"))
        painter.setFont(theme.font(14, weight=600))
        foot = QRectF(0, self.height() - theme.px(25), self.width(), theme.px(22))
        painter.drawText(foot, Qt.AlignmentFlag.AlignCenter, self.text())


class _Picker(QWidget, Generic[_Key]):
    """Choices as drawings, one of which is picked."""

    def __init__(self, across: int) -> None:
        super().__init__()
        self._across = across
        self._keys: list[_Key] = []
        self._group = QButtonGroup(self)
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 4)
        self._grid.setSpacing(6)

    def _offer(self, key: _Key, button: _Drawn) -> None:
        number = len(self._keys)
        self._keys.append(key)
        self._group.addButton(button, number)
        self._grid.addWidget(button, number // self._across, number % self._across)
        button.setChecked(number == 0)

    @property
    def kind(self) -> _Key:
        """The one that is picked."""
        return self._keys[self._group.checkedId()]

    def pick(self, kind: _Key) -> None:
        """Pick one as a hand does."""
        button = self._group.button(self._keys.index(kind))
        if button is not None:
            button.click()


class KindPicker(_Picker[ModelKind]):
    """All kinds of model, each drawn from its own bodies.

    Signals
    -------
    picked : str
        A kind.
    """

    picked = pyqtSignal(str)

    def __init__(self, words: Mapping[ModelKind, str], theme: Theme) -> None:
        super().__init__(across=3)
        for kind in MODEL_KINDS:
            self._offer(kind, _Drawn(words[kind], _model(kind), (124, 86), theme))
        self._group.idClicked.connect(lambda i: self.picked.emit(self._keys[i]))


class FuselagePicker(_Picker[FuselageName]):
    """The ways to build a fuselage, each as it stands before it is covered.

    Signals
    -------
    picked : str
        A way.
    """

    picked = pyqtSignal(str)

    def __init__(self, words: Mapping[FuselageName, str], theme: Theme) -> None:
        super().__init__(across=2)
        for name, text in words.items():
            self._offer(name, _Drawn(text, _bare(name), (190, 78), theme))
        self._group.idClicked.connect(lambda i: self.picked.emit(self._keys[i]))


def _model(kind: ModelKind) -> list[_Line]:
    build = build_from(proposed(kind))
    stops = [stop for _, stop in build.fuselage.stations] if build.fuselage else []
    top = [_seen((one.station, one.half_width, one.top)) for one in stops]
    keel = [_seen((one.station, 0.0, one.bottom)) for one in stops[::-1]]
    rings = [
        _Line(tuple(_seen(p) for p in body.outline), "wing")
        for body in bodies_of(build)
        if body.outline
    ]
    return [_Line((*top, *keel), "wood"), *rings]


def _bare(name: FuselageName) -> list[_Line]:
    """A fuselage from the side: sheet as wood, sticks as lines, a crutch as a plate, formers on a board as they stand."""
    fuselage = build_from(Figures(fuselage=name)).fuselage
    stops = dict(fuselage.stations) if fuselage is not None else {}
    names = list(stops)
    found: list[_Line] = []
    for section in fuselage.sections if fuselage is not None else ():
        mine = [
            stops[one] for one in names[names.index(section.from_) : names.index(section.to) + 1]
        ]
        top = [(one.station, -one.top) for one in mine]
        low = [(one.station, -one.bottom) for one in mine]
        uprights = [_Line((a, b)) for a, b in zip(top, low, strict=True)]
        match section.method:
            case "sheet-sides":
                found += [_Line((*top, *low[::-1]), "wood"), *uprights]
            case "stick-sides":
                zigzag = [one for pair in zip(top[::2], low[1::2], strict=False) for one in pair]
                found += [_Line(tuple(top)), _Line(tuple(low)), *uprights, _Line(tuple(zigzag))]
            case "crutch":
                thick = _CRUTCH * (mine[-1].station - mine[0].station)
                ends = (mine[0].station, mine[-1].station)
                found += uprights
                found.append(
                    _Line(
                        tuple(
                            (x, y)
                            for x, y in zip(
                                (*ends, *ends[::-1]), (-thick, -thick, thick, thick), strict=True
                            )
                        ),
                        "wood",
                    )
                )
            case "board":
                under = max(y for _, y in low) + _UNDER * (mine[-1].station - mine[0].station)
                ends = (mine[0].station, mine[-1].station)
                board = (
                    (ends[0], under),
                    (ends[1], under),
                    (ends[1], under * 1.2),
                    (ends[0], under * 1.2),
                )
                found += [*uprights, _Line(board, "wood")]
                found += [_Line(((x, y), (x, under))) for x, y in low]
    return found
