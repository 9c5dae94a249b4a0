"""The two questions that must be answered: what of unsaved work, and what is this program."""

from typing import Literal

from PyQt6.QtWidgets import QDialog, QHBoxLayout, QPlainTextEdit, QPushButton, QVBoxLayout, QWidget

from hardkeel import __version__
from hardkeel.messages import shell as say
from hardkeel.messages.safety import SAFETY
from hardkeel.ui.theme import apply_style
from hardkeel.ui.widgets.card import label

Answer = Literal["save", "drop", "back"]


class UnsavedDialog(QDialog):
    """Save, drop or go back."""

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.NOT_SAVED)
        self.answer: Answer = "back"
        box = QVBoxLayout(self)
        box.setContentsMargins(24, 20, 24, 18)
        box.setSpacing(12)
        box.addWidget(label("title", say.has_changes(name)))
        row = QHBoxLayout()
        row.addStretch(1)
        self.buttons: dict[Answer, QPushButton] = {}
        answers: tuple[tuple[Answer, str], ...] = (
            ("back", say.GO_BACK),
            ("drop", say.LEAVE_THEM_UNSAVED),
            ("save", say.SAVE),
        )
        for answer, words in answers:
            button = QPushButton(words)
            button.clicked.connect(lambda _on, answer=answer: self._take(answer))
            self.buttons[answer] = button
            row.addWidget(button)
        self.buttons["save"].setObjectName("primary")
        self.buttons["save"].setDefault(True)
        box.addLayout(row)
        apply_style(self)

    def _take(self, answer: Answer) -> None:
        self.answer = answer
        self.accept()


class YesNoDialog(QDialog):
    """A question before something that can't be taken back; going back is what Enter does."""

    def __init__(self, title: str, question: str, yes: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        self.said_yes = False
        box = QVBoxLayout(self)
        box.setContentsMargins(24, 20, 24, 18)
        box.setSpacing(12)
        box.addWidget(label("title", question))
        row = QHBoxLayout()
        row.addStretch(1)
        self.back, self.yes = QPushButton(say.GO_BACK), QPushButton(yes)
        self.back.setObjectName("primary")
        self.back.setDefault(True)
        self.back.clicked.connect(self.reject)
        self.yes.clicked.connect(self._on_yes)
        for button in (self.yes, self.back):
            row.addWidget(button)
        box.addLayout(row)
        apply_style(self)

    def _on_yes(self) -> None:
        self.said_yes = True
        self.accept()


class AboutDialog(QDialog):
    """What this is, and the safety word."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.ABOUT_HARD_KEEL)
        self.resize(520, 300)
        box = QVBoxLayout(self)
        box.setContentsMargins(28, 22, 28, 18)
        box.setSpacing(10)
        box.addWidget(label("big", "Hard Keel"))
        box.addWidget(label("soft", say.version(__version__)))
        box.addWidget(label("heading", SAFETY))
        box.addWidget(label("soft", say.TYPE_FACES))
        box.addStretch(1)
        close = QPushButton(say.ALL_RIGHT)
        close.setObjectName("primary")
        close.clicked.connect(self.accept)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(close)
        box.addLayout(row)
        apply_style(self)


class ReportDialog(QDialog):
    """Something went wrong that nobody foresaw: what was rescued, and a report to copy."""

    def __init__(self, report: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.SOMETHING_WENT_WRONG)
        self.resize(720, 420)
        box = QVBoxLayout(self)
        box.setContentsMargins(24, 20, 24, 16)
        box.addWidget(
            label(
                "title",
                say.WORK_IS_IN_THE_JOURNAL,
            )
        )
        self.text = QPlainTextEdit(report)
        self.text.setReadOnly(True)
        box.addWidget(self.text, 1)
        copy = QPushButton(say.COPY_THE_REPORT)
        copy.clicked.connect(self._on_copy)
        close = QPushButton(say.GO_ON)
        close.setObjectName("primary")
        close.clicked.connect(self.accept)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(copy)
        row.addWidget(close)
        box.addLayout(row)
        apply_style(self)

    def _on_copy(self) -> None:
        self.text.selectAll()
        self.text.copy()
