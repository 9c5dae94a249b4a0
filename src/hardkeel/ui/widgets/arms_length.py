"""Arm's length: one step or one reading, and one timer; full screen, read from two metres, one key each."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from PyQt6.QtCore import QCoreApplication, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QLabel, QLineEdit, QVBoxLayout, QWidget

from hardkeel.messages import bench as say
from hardkeel.schedule.model import Timer
from hardkeel.schedule.timers import running
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.speech import Speech

_SECOND_MS: Final = 1000
_TITLE_SHARE: Final = 0.085  # of the screen's height: 4 cm on a small monitor
_SMALL_SHARE: Final = 0.045
_CLOCK_SHARE: Final = 0.2
_WARNED_SHARE: Final = 0.15  # a figure with a word before it
_KEYS_SHARE: Final = 0.024
_FIGURE: Final = frozenset("0123456789.,-+/'\"°")  # keys that belong to a figure


@dataclass(frozen=True, slots=True)
class LargeShown:
    """What is shown: a step or a reading, what matters about it, and the timers.

    Attributes
    ----------
    takes : bool
        A figure is wanted: it is typed, or a gauge writes it.
    unit : str
        Stands behind the figure.
    caution : str
        Stands before the figure, and turns it red: a word.
    """

    title: str
    under: str
    timers: tuple[Timer, ...]
    clock: Callable[[], datetime]
    takes: bool = False
    unit: str = ""
    caution: str = ""


class ArmsLength(QWidget):
    """The large sheet.

    Parameters
    ----------
    line : QLineEdit, optional
        Where a figure that is typed here goes: what stands in it is what stands here.

    Signals
    -------
    gone_on : (nothing)
        Begin it, or it is done.
    taken_back : (nothing)
        Undo.
    """

    gone_on = pyqtSignal()
    taken_back = pyqtSignal()

    def __init__(self, theme: Theme, parent: QWidget, line: QLineEdit | None = None) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setWindowTitle(say.ARMS_LENGTH)
        self._theme = theme
        self._shown: LargeShown | None = None
        self._speech = Speech(self)
        self._line = line
        if line is not None:
            line.textChanged.connect(self._show_figure)
        self.title, self.under, self.figure = QLabel(), QLabel(), QLabel()
        self.left, self.what, self.keys = QLabel(), QLabel(), QLabel()
        box = QVBoxLayout(self)
        box.setContentsMargins(60, 40, 60, 30)
        for widget in (self.title, self.under, self.left, self.what, self.keys):
            widget.setWordWrap(True)
        box.addWidget(self.title)
        box.addWidget(self.under)
        box.addStretch(1)
        box.addWidget(self.figure)
        box.addWidget(self.left)
        box.addWidget(self.what)
        box.addStretch(1)
        box.addWidget(self.keys)
        self._tick = QTimer(self)
        self._tick.setInterval(_SECOND_MS)
        self._tick.timeout.connect(self._show_time)

    def open_large(self, theme: Theme, shown: LargeShown) -> None:
        """Fill the screen with it."""
        self.set_theme(theme)
        self.show_large(shown)
        self.showFullScreen()
        self.setFocus()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        apply_style(self)
        self._size()

    def show_large(self, shown: LargeShown) -> None:
        """Show another step; said aloud where the machine has a voice."""
        other = self._shown is None or shown.title != self._shown.title
        self._shown = shown
        self.title.setText(shown.title)
        self.under.setText(shown.under)
        self.keys.setText(say.ARMS_KEYS_READING if shown.takes else say.ARMS_KEYS)
        self.figure.setVisible(shown.takes)
        self._show_figure()
        self._size()
        self._show_time()
        self._tick.start()
        if other and self.isVisible():
            self.say_again()

    def complain(self, trouble: str) -> None:
        """Say what is wrong with the figure, in the place of what matters about it."""
        if trouble:
            self.under.setText(trouble)
            self._speech.say(trouble)

    def say_again(self) -> None:
        """Say it aloud, where the machine has a voice."""
        if self._shown is not None:
            self._speech.say(f"{self._shown.title}. {self._shown.under}")

    def _show_figure(self) -> None:
        if self._line is not None and self._shown is not None:
            text = self._line.text()
            caution = self._shown.caution if text else ""
            self.figure.setText(f"{caution} {text or '…'} {self._shown.unit}".strip())

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
        takes = self._shown is not None and self._shown.takes
        warns = self._shown is not None and bool(self._shown.caution)
        for widget, share, weight, colour in (
            (self.title, _TITLE_SHARE, 600, "ink"),
            (self.under, _SMALL_SHARE, 400, "soft"),
            (
                self.figure,
                _WARNED_SHARE if warns else _CLOCK_SHARE,
                600,
                "out" if warns else "ink",
            ),
            (self.left, _TITLE_SHARE if takes else _CLOCK_SHARE, 600, "act"),
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
        """One key each; a key that is held down is pressed once."""
        if event is None or self._typed(event) or event.isAutoRepeat():
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

    def _typed(self, event: QKeyEvent) -> bool:
        """Whether the key belongs to the figure that is wanted: then it goes where figures are typed."""
        line = self._line
        if line is None or self._shown is None or not self._shown.takes:
            return False
        # what a gauge wrote is not rubbed out: there is always more of it, and undo is wanted
        erases = event.key() == Qt.Key.Key_Backspace and line.isModified() and bool(line.text())
        if not erases and (not event.text() or event.text() not in _FIGURE):
            return False
        QCoreApplication.sendEvent(line, event)
        return True
