"""A sheet of paper on the desk, and the labels on it."""

from PyQt6.QtWidgets import QFrame, QLabel, QSizePolicy, QVBoxLayout, QWidget


def label(name: str, text: str = "", *, wrap: bool = True) -> QLabel:
    """A label dressed by the style sheet's name for it."""
    made = QLabel(text)
    made.setObjectName(name)
    made.setWordWrap(wrap)
    return made


class Card(QFrame):
    """A sheet of paper on the desk with an eyebrow and an edge."""

    def __init__(self, eyebrow: str, edge: str = "", parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(14, 7, 14, 8)
        self.column.setSpacing(3)
        self.eyebrow = label("eyebrow", eyebrow)
        self.column.addWidget(self.eyebrow)
        self.set_edge(edge)

    def set_edge(self, edge: str) -> None:
        """Colour the left edge: ``act``, ``out`` or none."""
        if self.property("edge") == edge:
            return
        self.setProperty("edge", edge)
        style = self.style()
        if style is not None:
            style.unpolish(self)
            style.polish(self)
