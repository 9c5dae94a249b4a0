"""Tab goes in the order of work: the places of a page one after another, each as it is laid out."""

from collections.abc import Iterator
from itertools import pairwise

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractScrollArea,
    QComboBox,
    QGridLayout,
    QLayout,
    QScrollArea,
    QSplitter,
    QStackedWidget,
    QWidget,
)


def work_through(*places: QWidget) -> None:
    """Let Tab go through these places in this order, in each from top to bottom and left to right."""
    stations = [stop for place in places for stop in _stops(place)]
    for one, other in pairwise(stations):
        QWidget.setTabOrder(one, other)


def _stops(widget: QWidget) -> Iterator[QWidget]:
    """What can be worked within a widget, in the order in which it lies there."""
    if isinstance(widget, QScrollArea):
        inside = widget.widget()
        if inside is not None:
            yield from _stops(inside)
        return
    if isinstance(widget, QSplitter | QStackedWidget):
        for i in range(widget.count()):
            part = widget.widget(i)
            if part is not None:
                yield from _stops(part)
        return
    proxy = widget.focusProxy()
    if proxy is None and widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
        yield widget
    if isinstance(widget, QAbstractScrollArea | QComboBox):
        return  # a control, whatever it is made of
    box = widget.layout()
    if box is not None:
        yield from _laid_out(box)


def _laid_out(box: QLayout) -> Iterator[QWidget]:
    for number in _by_place(box):
        item = box.itemAt(number)
        if item is None:
            continue
        widget, inner = item.widget(), item.layout()
        if widget is not None:
            yield from _stops(widget)
        elif inner is not None:
            yield from _laid_out(inner)


def _by_place(box: QLayout) -> list[int]:
    """Numbers of a layout's items, row by row; a grid's were not put in so, perhaps."""
    numbers = list(range(box.count()))
    if isinstance(box, QGridLayout):
        numbers.sort(key=lambda i: box.getItemPosition(i)[:2])
    return numbers
