"""Where a builder begins: nothing is on the bench yet."""

from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.messages import shell as say
from hardkeel.messages.safety import SAFETY
from hardkeel.ui.widgets.card import Card, label

_STEPS = (
    say.HOW_TO_LAY_OUT,
    say.HOW_TO_MEASURE,
    say.HOW_TO_CORRECT,
    say.HOW_TO_GLUE,
)


class BlankPage(QWidget):
    """Says what to do first.

    Signals
    -------
    new_wanted, plan_wanted, open_wanted, demo_wanted : (nothing)
        The four ways to begin.
    recent_wanted : object
        A `Path` opened lately.
    """

    new_wanted = pyqtSignal()
    open_wanted = pyqtSignal()
    demo_wanted = pyqtSignal()
    plan_wanted = pyqtSignal()
    recent_wanted = pyqtSignal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(60, 48, 60, 24)
        outer.setSpacing(14)
        outer.addWidget(label("big", say.WHAT_IS_ON_THE_BENCH))
        outer.addWidget(
            label(
                "title",
                say.GIVE_A_DOZEN_FIGURES,
            )
        )
        row = QHBoxLayout()
        self.new = QPushButton(say.DESCRIBE_MY_MODEL)
        self.new.setObjectName("primary")
        self.open = QPushButton(say.OPEN_A_BUILD)
        self.demo = QPushButton(say.LOOK_AT_THE_DEMO)
        self.plan = QPushButton(say.LAY_IT_OUT_FROM_A_PLAN)
        for button, signal in (
            (self.new, self.new_wanted),
            (self.plan, self.plan_wanted),
            (self.open, self.open_wanted),
            (self.demo, self.demo_wanted),
        ):
            button.clicked.connect(signal)
            row.addWidget(button)
        row.addStretch(1)
        outer.addLayout(row)
        outer.addSpacing(10)
        for number, words in enumerate(_STEPS, start=1):
            step = QHBoxLayout()
            step.setSpacing(16)
            figure = label("big", str(number), wrap=False)
            figure.setMinimumWidth(22)  # its digits are not all of one width
            step.addWidget(figure)
            step.addWidget(label("heading", words, wrap=False))
            step.addStretch(1)
            outer.addLayout(step)
        self._recent = Card(say.LATELY_ON_THE_BENCH)
        self._recent.setMaximumWidth(620)
        self._links: list[QPushButton] = []
        outer.addWidget(self._recent)
        outer.addStretch(1)
        outer.addWidget(label("soft", SAFETY))

    def show_recent(self, paths: list[Path]) -> None:
        """Offer files opened lately that are still there."""
        for link in self._links:
            self._recent.column.removeWidget(link)
            link.deleteLater()
        self._links = []
        for path in paths:
            link = QPushButton(f"{path.stem}    {path.parent}")
            link.setObjectName("plain")
            link.clicked.connect(lambda _on, path=path: self.recent_wanted.emit(path))
            self._recent.column.addWidget(link, 0, Qt.AlignmentFlag.AlignLeft)
            self._links.append(link)
        self._recent.setVisible(bool(self._links))
