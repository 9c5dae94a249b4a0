"""Which painted texts of a window are cut: by the rectangle they are given, or by the edge of what they are painted on."""

import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from PyQt6.QtCore import QPoint, QPointF, QRect, QRectF
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QWidget

_SLACK = 1.5  # pixels: italics and rounding


@contextmanager
def _watched(note: Callable[[QPainter, tuple[Any, ...]], None]) -> Iterator[None]:
    """Tell of each text that is painted while this lasts."""

    class Noting(QPainter):
        def drawText(self, *args: Any) -> Any:  # noqa: N802  Qt's name
            note(self, args)
            return super().drawText(*args)

    rooms = [
        room
        for name, room in sys.modules.items()
        if name.startswith("hardkeel.") and getattr(room, "QPainter", None) is QPainter
    ]
    for room in rooms:
        room.QPainter = Noting  # type: ignore[attr-defined]
    try:
        yield
    finally:
        for room in rooms:
            room.QPainter = QPainter  # type: ignore[attr-defined]


@contextmanager
def noted() -> Iterator[list[str]]:
    """Note each text that is painted cut while this lasts."""
    found: list[str] = []

    def note(painter: QPainter, args: tuple[Any, ...]) -> None:
        fault = _fault(painter, args)
        if fault and fault not in found:
            found.append(fault)

    with _watched(note):
        yield found


def _fault(painter: QPainter, args: tuple[Any, ...]) -> str:
    text = next((one for one in args if isinstance(one, str)), "")
    device = painter.device()
    if not text.strip() or not isinstance(device, QWidget):
        return ""
    name = f"{type(device).__name__} “{text[:60]}”"
    given: QRectF | None = None
    if isinstance(args[0], QRectF | QRect) or len(args) > 4:
        given = QRectF(args[0]) if not isinstance(args[0], int) else QRectF(*args[:4])
        flags = next((int(one) for one in args[-2:] if not isinstance(one, str)), 0)
        wanted = painter.boundingRect(given, flags, text)
    elif isinstance(args[0], QPointF | QPoint):
        wanted = QRectF(painter.fontMetrics().tightBoundingRect(text)).translated(QPointF(args[0]))
    else:
        wanted = QRectF(painter.fontMetrics().tightBoundingRect(text)).translated(args[0], args[1])
    if given is not None and (
        wanted.width() > given.width() + _SLACK or wanted.height() > given.height() + _SLACK
    ):
        return f"{name}: wants {_size(wanted)}, is given {_size(given)}"
    on_device = painter.transform().mapRect(wanted)
    rim = _SLACK
    if not QRectF(device.rect()).adjusted(-rim, -rim, rim, rim).contains(on_device):
        return f"{name}: runs over the edge by {_over(on_device, QRectF(device.rect()))}"
    return ""


def _over(text: QRectF, room: QRectF) -> str:
    over = max(
        room.left() - text.left(), text.right() - room.right(), room.top() - text.top(),
        text.bottom() - room.bottom(),
    )  # fmt: skip
    return f"{over:.0f} px"


def _size(box: QRectF) -> str:
    return f"{box.width():.0f} × {box.height():.0f}"


@contextmanager
def all_painted() -> Iterator[list[str]]:
    """Note each text that is painted while this lasts."""
    found: list[str] = []

    def note(_painter: QPainter, args: tuple[Any, ...]) -> None:
        found.extend(one for one in args if isinstance(one, str))

    with _watched(note):
        yield found
