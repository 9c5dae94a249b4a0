"""A sheet of paper on the desk, and the labels on it."""

from PyQt6.QtWidgets import QFrame, QLabel, QSizePolicy, QVBoxLayout, QWidget

from hardkeel.ui.widgets.fold_line import FoldLine


def label(name: str, text: str = "", *, wrap: bool = True) -> QLabel:
    """A label dressed by the style sheet's name for it."""
    made = QLabel(text)
    made.setObjectName(name)
    made.setWordWrap(wrap)
    return made


class Card(QFrame):
    """A sheet of paper on the desk with an eyebrow and an edge; what is seldom wanted folds under a line."""

    def __init__(self, eyebrow: str, edge: str = "", parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        self._folded_under: FoldLine | None = None
        self._card_body = QWidget()
        self.column = QVBoxLayout(self._card_body)
        self.column.setContentsMargins(14, 7, 14, 8)
        self.column.setSpacing(3)
        self._card_box = QVBoxLayout(self)
        self._card_box.setContentsMargins(0, 0, 0, 0)
        self._card_box.setSpacing(0)
        self._card_box.addWidget(self._card_body)
        self.eyebrow = label("eyebrow", eyebrow)
        self.column.addWidget(self.eyebrow)
        self.set_edge(edge)

    @property
    def fold_line(self) -> FoldLine | None:
        """The line that it is folded under; none where it always lies open."""
        return self._folded_under

    def fold_under_its_name(self) -> FoldLine:
        """Fold all of it under a line that says its name and what it comes to."""
        if self._folded_under is None:
            self._folded_under = line = FoldLine(self.eyebrow.text())
            self.eyebrow.hide()
            left, _, right, bottom = self.column.getContentsMargins()
            self.column.setContentsMargins(left or 0, 0, right or 0, bottom or 0)
            self._card_box.insertWidget(0, line)
            line.toggled.connect(self._card_body.setVisible)
            self._card_body.hide()
        return self._folded_under

    def lay_open(self) -> None:
        """Show what is folded away."""
        if self._folded_under is not None:
            self._folded_under.setChecked(True)

    def comes_to(self, words: str) -> None:
        """What the line says that it is folded under; an open card says it itself."""
        if self._folded_under is not None:
            self._folded_under.show_value(words)

    def set_edge(self, edge: str) -> None:
        """Colour the left edge: ``act``, ``out`` or none."""
        if self.property("edge") == edge:
            return
        self.setProperty("edge", edge)
        style = self.style()
        if style is not None:
            style.unpolish(self)
            style.polish(self)
