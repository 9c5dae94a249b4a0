"""A delegate that lets a picked row keep the colour of its state."""

from PyQt6.QtCore import QModelIndex
from PyQt6.QtGui import QPalette
from PyQt6.QtWidgets import QStyledItemDelegate, QStyleOptionViewItem


class OwnColour(QStyledItemDelegate):
    """Lets a picked row keep the colour of its state."""

    def initStyleOption(  # noqa: N802  Qt's own name
        self, option: QStyleOptionViewItem | None, index: QModelIndex
    ) -> None:
        """Take the row's own colour for picked text too."""
        super().initStyleOption(option, index)
        if option is not None:
            colour = option.palette.color(QPalette.ColorRole.Text)
            option.palette.setColor(QPalette.ColorRole.HighlightedText, colour)
