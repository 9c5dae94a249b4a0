"""The stages in the order of work, down the left side."""

from collections.abc import Sequence

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QLabel, QPushButton, QVBoxLayout, QWidget


class StageRail(QWidget):
    """Stages that do something; others appear when they do.

    Signals
    -------
    stage_picked : str
        A stage was picked, by its key.
    """

    stage_picked = pyqtSignal(str)

    def __init__(self, stages: Sequence[tuple[str, str]], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("desk")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._layout = QVBoxLayout(self)
        self._layout.setContentsMargins(0, 12, 0, 0)
        self._layout.setSpacing(2)
        self._group = QButtonGroup(self)
        self._buttons: dict[str, QPushButton] = {}
        self._notes: dict[str, QLabel] = {}
        for i, (stage, title) in enumerate(stages, start=1):
            button = QPushButton(title)
            button.setObjectName("stage")
            button.setCheckable(True)
            button.setShortcut(f"Ctrl+{i}")
            button.setToolTip(f"{title} (Ctrl+{i})")
            button.clicked.connect(lambda _on, stage=stage: self.stage_picked.emit(stage))
            note = QLabel()
            note.setObjectName("soft")
            note.setContentsMargins(16, 0, 6, 4)
            note.setWordWrap(True)
            self._group.addButton(button)
            self._buttons[stage], self._notes[stage] = button, note
            self._layout.addWidget(button)
            self._layout.addWidget(note)
        self._layout.addStretch(1)

    @property
    def buttons(self) -> tuple[QPushButton, ...]:
        """Those of the stages that appear, in their order."""
        return tuple(one for one in self._buttons.values() if one.isVisibleTo(self))

    def add_foot(self, widget: QWidget) -> None:
        """Put something at the foot of the rail."""
        self._layout.addWidget(widget)

    def show_stage(self, stage: str) -> None:
        """Mark a stage as the one shown."""
        self._buttons[stage].setChecked(True)

    def show_note(self, stage: str, text: str, *, appears: bool) -> None:
        """Say in a word how far a stage is; one that does not appear is left out."""
        self._buttons[stage].setVisible(appears)
        self._notes[stage].setVisible(appears)
        self._notes[stage].setText(text)
