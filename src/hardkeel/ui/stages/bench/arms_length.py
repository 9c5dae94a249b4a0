"""Arm's length: one step and one timer, full screen, read from two metres, one key each."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QLabel, QVBoxLayout, QWidget

from hardkeel.schedule.model import Timer
from hardkeel.schedule.timers import running
from hardkeel.ui.document.document import Clock
from hardkeel.ui.stages.bench.speech import Speech
from hardkeel.ui.theme import Theme, wear
from hardkeel.voice import bench as say

_SECOND_MS: Final = 1000
_TITLE_SHARE: Final = 0.085  # of the screen's height: 4 cm on a small monitor
_SMALL_SHARE: Final = 0.045
_CLOCK_SHARE: Final = 0.2
_KEYS_SHARE: Final = 0.024


@dataclass(frozen=True, slots=True)
class LargeShown:
    """What is shown: a step, what matters about it, and the timers."""

    title: str
    under: str
    timers: tuple[Timer, ...]
    clock: Clock


class ArmsLength(QWidget):
    """The large sheet.

    Signals
    -------
    gone_on : (nothing)
        Begin it, or it is done.
    taken_back : (nothing)
        Undo.
    """

    gone_on = pyqtSignal()
    taken_back = pyqtSignal()

    def __init__(self, theme: Theme, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setWindowTitle(say.ARMS_LENGTH)
        self._theme = theme
        self._shown: LargeShown | None = None
        self._speech = Speech(self)
        self.title, self.under = QLabel(), QLabel()
        self.left, self.what, self.keys = QLabel(), QLabel(), QLabel(say.ARMS_KEYS)
        box = QVBoxLayout(self)
        box.setContentsMargins(60, 40, 60, 30)
        for widget in (self.title, self.under, self.left, self.what, self.keys):
            widget.setWordWrap(True)
        box.addWidget(self.title)
        box.addWidget(self.under)
        box.addStretch(1)
        box.addWidget(self.left)
        box.addWidget(self.what)
        box.addStretch(1)
        box.addWidget(self.keys)
        self._tick = QTimer(self)
        self._tick.setInterval(_SECOND_MS)
        self._tick.timeout.connect(self._show_time)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        wear(self)
        self._size()

    def show_large(self, shown: LargeShown) -> None:
        """Show another step; said aloud where the machine has a voice."""
        other = self._shown is None or shown.title != self._shown.title
        self._shown = shown
        self.title.setText(shown.title)
        self.under.setText(shown.under)
        self._show_time()
        self._tick.start()
        if other and self.isVisible():
            self.say_again()

    def say_again(self) -> None:
        """Say it aloud, where the machine has a voice."""
        if self._shown is not None:
            self._speech.say(f"{self._shown.title}. {self._shown.under}")

    def _show_time(self) -> None:
        if self._shown is None:
            return
        now = self._shown.clock()
        left = running(self._shown.timers, now)
        self.left.setText(say.countdown(left[0].left(now)) if left else "")
        self.what.setText(say.waits_for(left[0]) if left else "")

    def _size(self) -> None:
        tall = self.height()
        theme = self._theme
        for widget, share, weight, colour in (
            (self.title, _TITLE_SHARE, 600, "ink"),
            (self.under, _SMALL_SHARE, 400, "soft"),
            (self.left, _CLOCK_SHARE, 600, "act"),
            (self.what, _SMALL_SHARE, 400, "soft"),
            (self.keys, _KEYS_SHARE, 400, "soft"),
        ):
            font = theme.font(max(12.0, share * tall / theme.scale), weight=weight)
            widget.setStyleSheet(
                f"font-family: '{font.family()}'; font-size: {font.pixelSize()}px; "
                f"font-weight: {weight}; color: {theme.colour(colour).name()};"
            )

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """As large as the screen lets it be."""
        super().resizeEvent(event)
        self._size()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """One key each."""
        if event is None:
            return
        match Qt.Key(event.key()):
            case Qt.Key.Key_Space | Qt.Key.Key_Return | Qt.Key.Key_Enter:
                self.gone_on.emit()
            case Qt.Key.Key_Backspace:
                self.taken_back.emit()
            case Qt.Key.Key_R:
                self.say_again()
            case Qt.Key.Key_Escape | Qt.Key.Key_F11:
                self._tick.stop()
                self.hide()
            case _:
                super().keyPressEvent(event)
