"""The composition root: makes the application, dresses it, and catches what nobody foresaw."""

import platform
import sys
import traceback
from datetime import datetime
from pathlib import Path
from types import TracebackType
from typing import Final

import platformdirs
from PyQt6.QtCore import QSettings, QTimer
from PyQt6.QtWidgets import QApplication

from hardkeel import __version__
from hardkeel.ui.main_window import MainWindow
from hardkeel.ui.settings import Settings
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme

_NAME: Final = "hardkeel"
_TIDY_AFTER_MS: Final = 5000


def run_window(target: str | None) -> int:
    """Open the window on a file, on the demo (``demo``), or on nothing; the exit code.

    Parameters
    ----------
    target : str or None
        A path, the word ``demo``, or nothing.
    """
    app = QApplication(sys.argv[:1])
    app.setApplicationName("Hard Keel")
    app.setDesktopFileName(_NAME)
    app.setStyle("Fusion")
    load_fonts()
    settings = Settings(
        QSettings(str(config_folder() / "settings.ini"), QSettings.Format.IniFormat)
    )
    apply_theme(app, make_theme(settings.theme, settings.text_percent))
    window = MainWindow(settings, state_folder(), now)
    window.theme_changed.connect(lambda theme: apply_theme(app, theme))
    install_fault_hook(window)
    if target == "demo":
        window.open_demo()
    elif target is not None:
        window.open_path(Path(target))
    window.show()
    QTimer.singleShot(0, window.offer_recovery)
    QTimer.singleShot(_TIDY_AFTER_MS, window.filing.images.sweep)
    return app.exec()


def now() -> datetime:
    """The clock: local time with its zone."""
    return datetime.now().astimezone()


def state_folder() -> Path:
    """Where locks and journals are kept."""
    return platformdirs.user_state_path(_NAME, ensure_exists=True)


def config_folder() -> Path:
    """Where settings are kept."""
    return platformdirs.user_config_path(_NAME, ensure_exists=True)


def install_fault_hook(window: MainWindow) -> None:
    """Show faults that nobody foresaw with a report to copy; the journal already holds the work."""
    before = sys.excepthook

    def hook(kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            before(kind, fault, trace)
            return
        text = "".join(traceback.format_exception(kind, fault, trace))
        sys.stderr.write(text)
        from hardkeel.ui.dialogs.questions import ReportDialog  # noqa: PLC0415  only after a fault

        about = f"Hard Keel {__version__}, Python {platform.python_version()}, {platform.platform()}\n\n"
        ReportDialog(about + text, window).exec()

    sys.excepthook = hook
