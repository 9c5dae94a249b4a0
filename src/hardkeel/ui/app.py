"""The composition root: makes the application, dresses it, and catches what nobody foresaw."""

import gc
import os
import platform
import sys
import threading
import traceback
from datetime import datetime
from pathlib import Path
from types import TracebackType
from typing import Final

import platformdirs
from PyQt6.QtCore import QLocale, QObject, QSettings, QTimer, pyqtSignal
from PyQt6.QtWidgets import QApplication

from hardkeel import __version__
from hardkeel.base.units import write_decimals_with
from hardkeel.ui.screen import why_no_window
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.questions import ReportDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme

_NAME: Final = "hardkeel"
_DESKTOP: Final = "local.hardkeel.HardKeel"  # the entry of the menu, see cli/desktop_texts
_TIDY_AFTER_MS: Final = 5000
_END_MS: Final = 500
_NO_WINDOW: Final = 1


def run_window(target: str | None) -> int:
    """Open the window on a file, on the demo (``demo``), or on nothing; the exit code.

    Parameters
    ----------
    target : str or None
        A path, the word ``demo``, or nothing.
    """
    why = why_no_window(os.environ)
    if why is not None:
        sys.stderr.write(f"hardkeel: {why}\n")
        return _NO_WINDOW
    app = QApplication(sys.argv[:1])
    write_decimals_with(QLocale().decimalPoint())
    app.setApplicationName("Hard Keel")
    app.setDesktopFileName(_DESKTOP)
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
    QTimer.singleShot(0, collect_again)
    QTimer.singleShot(0, window.offer_recovery)
    QTimer.singleShot(_TIDY_AFTER_MS, window.document_file.tidy)
    code = app.exec()
    if not window.jobs.wait(_END_MS):  # all is on disk; what goes on reckoning is nobody's any more
        sys.stdout.flush()
        os._exit(code)
    return code


def collect_again() -> None:
    """From now on there is garbage (see ``__main__``); what the start has made stays for good."""
    gc.freeze()
    gc.enable()


def now() -> datetime:
    """The clock: local time with its zone."""
    return datetime.now().astimezone()


def state_folder() -> Path:
    """Where locks and journals are kept."""
    return platformdirs.user_state_path(_NAME)


def config_folder() -> Path:
    """Where settings are kept."""
    return platformdirs.user_config_path(_NAME)


def install_fault_hook(window: MainWindow) -> None:
    """Show faults that nobody foresaw with a report to copy; the journal already holds the work.

    A fault in the window's own thread opens the report; one in another thread, which must not touch a
    window, becomes a notice.
    """
    before = sys.excepthook
    mouth = _JobSignals(window)
    mouth.fault.connect(window.tell_fault)

    def hook(kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            before(kind, fault, trace)
            return
        text = "".join(traceback.format_exception(kind, fault, trace))
        sys.stderr.write(text)
        report = f"Hard Keel {__version__}, Python {platform.python_version()}, {platform.platform()}\n\n{text}"
        if threading.current_thread() is not threading.main_thread():
            mouth.fault.emit(report)
            return
        ReportDialog(report, window).exec()

    sys.excepthook = hook
    threading.excepthook = lambda given: hook(
        given.exc_type, given.exc_value or given.exc_type(), given.exc_traceback
    )


class _JobSignals(QObject):
    """Brings a fault from another thread into the window's."""

    fault = pyqtSignal(str)
