"""Which texts of a window have less room than they want."""

from collections.abc import Iterator

from PyQt6.QtCore import QPoint, QRect
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QComboBox,
    QLabel,
    QScrollArea,
    QWidget,
)

_SLACK = 1  # pixel: rounding of a scaled font


def cut_texts(window: QWidget) -> list[str]:
    """Each label, button and chosen entry that is seen and cut, with what it wants and has, pixels."""
    found = []
    for widget in window.findChildren(QWidget):
        if not widget.isVisible() or widget.width() == 0:
            continue
        found += [f"{type(widget).__name__} “{text[:60]}”: {why}" for text, why in _cut(widget)]
    return found


def _cut(widget: QWidget) -> Iterator[tuple[str, str]]:
    if isinstance(widget, QLabel) and widget.text().strip():
        yield from _label(widget)
    elif isinstance(widget, QAbstractButton) and widget.text().strip():
        wanted = widget.minimumSizeHint()
        if wanted.width() > widget.width() + _SLACK or wanted.height() > widget.height() + _SLACK:
            yield widget.text(), f"wants {_size(wanted)}, has {_size(widget)}"
    elif isinstance(widget, QComboBox) and widget.currentText():
        wide = widget.fontMetrics().horizontalAdvance(widget.currentText())
        if wide > widget.width() - 18 + _SLACK:  # its arrow
            yield widget.currentText(), f"wants {wide} wide, has {widget.width() - 18}"
    else:
        return


def _label(one: QLabel) -> Iterator[tuple[str, str]]:
    if one.wordWrap():
        wanted = one.heightForWidth(one.width())
        if wanted > one.height() + _SLACK:
            yield one.text(), f"wants {wanted} high, has {one.height()}"
    elif one.sizeHint().width() > one.width() + _SLACK:
        yield one.text(), f"wants {one.sizeHint().width()} wide, has {one.width()}"
    if _clipped_across(one):
        yield one.text(), "is cut at the side of what it lies in"


def _clipped_across(widget: QWidget) -> bool:
    """Whether something that does not scroll across cuts it off."""
    parent = widget.parentWidget()
    here = QRect(QPoint(0, 0), widget.size())
    while parent is not None:
        here = QRect(widget.mapTo(parent, QPoint(0, 0)), widget.size())
        if here.right() > parent.width() + _SLACK or here.left() < -_SLACK:
            return True
        if isinstance(parent, QAbstractScrollArea) and not isinstance(parent, QScrollArea):
            return False
        parent = parent.parentWidget() if not parent.isWindow() else None
    return False


def _size(one: object) -> str:
    return f"{one.width()} × {one.height()}"  # type: ignore[attr-defined]
