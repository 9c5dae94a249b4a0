"""The stages in the order of work, down the left side."""

from collections.abc import Sequence

from PyQt6.QtCore import QSize, Qt, pyqtSignal
from PyQt6.QtGui import QResizeEvent
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
        self._feet: list[QWidget] = []
        self._absent: set[str] = set()
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
        self._feet.append(widget)

    def show_stage(self, stage: str) -> None:
        """Mark a stage as the one shown."""
        self._buttons[stage].setChecked(True)

    def show_note(self, stage: str, text: str, *, appears: bool) -> None:
        """Say in a word how far a stage is; one that does not appear is left out."""
        (self._absent.discard if appears else self._absent.add)(stage)
        button = self._buttons[stage]
        button.setVisible(appears)
        button.setAccessibleDescription(text)
        self._notes[stage].setText(text)
        self._fit()

    def minimumSizeHint(self) -> QSize:
        """Names and feet; what stands under the names gives way where there is no room."""
        return QSize(super().minimumSizeHint().width(), self._tall(with_notes=False))

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Show the notes where they have room."""
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        roomy = self.height() >= self._tall(with_notes=True)
        for stage, note in self._notes.items():
            note.setVisible(roomy and stage not in self._absent)

    def _tall(self, *, with_notes: bool) -> int:
        """How much height everything wants, pixels."""
        here = [one for one in self._buttons if one not in self._absent]
        shown: list[QWidget] = [self._buttons[one] for one in here]
        shown += [one for one in self._feet if not one.isHidden()]
        tall = sum(one.sizeHint().height() for one in shown)
        if with_notes:
            wide = max(self.width(), 1)
            tall += sum(self._notes[one].heightForWidth(wide) for one in here)
        count = len(shown) + (len(here) if with_notes else 0) + 1
        return tall + count * self._layout.spacing() + self._layout.contentsMargins().top()
