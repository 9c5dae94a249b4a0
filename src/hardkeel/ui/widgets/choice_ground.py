"""The ground that a choice by picture is painted on: paper, washed and framed where it is the one."""

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPainter, QPen
from PyQt6.QtWidgets import QAbstractButton

from hardkeel.ui.theme import Theme


def begin_choice(button: QAbstractButton, theme: Theme) -> QPainter:
    """A painter on a choice whose ground is painted; the caller ends it."""
    painter = QPainter(button)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    on = button.isChecked()
    edge = "act" if on or button.hasFocus() else "hair"
    painter.setPen(QPen(theme.colour(edge), 2.0 if on else 1.0))
    painter.setBrush(theme.colour("act_wash" if on else "paper"))
    painter.drawRect(QRectF(button.rect()).adjusted(1, 1, -1, -1))
    return painter
