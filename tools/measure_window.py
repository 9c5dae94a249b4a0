"""What the window's thread is busy with at a stretch, milliseconds of processor time; printed by ``make bench``."""

import os
import sys
import tempfile
from datetime import datetime, timedelta, timezone
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
sys.path.insert(0, str(Path(__file__).parent.parent))

from typing import TYPE_CHECKING

from PyQt6.QtCore import QSettings
from PyQt6.QtWidgets import QApplication

from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import apply_theme, load_fonts
from tests.heartbeat import Heartbeat, edits_for, places_of, settle, turn

if TYPE_CHECKING:
    from collections.abc import Callable

    from hardkeel.project.model import Build

_TOLD_MS = 60.0
_LIMIT_MS = 150.0  # what hands feel as waiting


def main() -> None:
    """Go through every page of every demo, two edits on each, then the switches with all pages made."""
    app = QApplication(["measure"])
    app.setStyle("Fusion")
    load_fonts()
    with tempfile.TemporaryDirectory() as place:
        settings = Settings(QSettings(f"{place}/settings.ini", QSettings.Format.IniFormat))
        window = MainWindow(settings, Path(place), _evening)
        window.theme_changed.connect(lambda theme: apply_theme(app, theme))
        window.restyle()
        window.resize(1280, 800)
        window.show()
        heart = Heartbeat()
        makers: list[tuple[str, Callable[[], Build]]] = [("Kettlewick", demo_build)]
        makers += [(demo.name, demo.make) for demo in DEMOS]
        slow = []
        for name, make in makers:
            build = make()
            with heart.felt():
                window.start(build)
            print(f"{name}: opened {1000 * heart.worst:.0f} ms")
            for where in places_of(window):
                with heart.felt():
                    turn(window, where)
                turned = heart.worst
                told = [f"turned to {1000 * turned:.0f}"] if 1000 * turned > _TOLD_MS else []
                for what, edit in edits_for(window.document.build, where):
                    with heart.felt():
                        window.document.apply(what, edit)
                    if 1000 * heart.worst > _TOLD_MS:
                        told.append(f"{what} {1000 * heart.worst:.0f}")
                    if 1000 * heart.worst > _LIMIT_MS:
                        slow.append(f"{name}, {where}: {what} {1000 * heart.worst:.0f}")
                if told:
                    print(f"  {where}: {', '.join(told)}")
        print(f"edits over {_LIMIT_MS:.0f} ms: {'; '.join(slow) or 'none'}")
        for where in places_of(window):
            turn(window, where)
            for what, switch in (
                ("mm/inch", window.header.unit_toggled.emit),
                ("light/dark", window.header.theme_toggled.emit),
                ("text size", lambda: window.menu.scale_wanted.emit(125)),
                ("text size back", lambda: window.menu.scale_wanted.emit(100)),
            ):
                with heart.felt():
                    switch()  # type: ignore[no-untyped-call]
                if 1000 * heart.worst > _TOLD_MS:
                    print(f"  {where}, all pages made: {what} {1000 * heart.worst:.0f} ms")
        settle(200)
        window.document.stack.setClean()
        window.close()


def _evening() -> datetime:
    return datetime(2026, 10, 6, 18, 50, tzinfo=timezone(timedelta(hours=1)))


if __name__ == "__main__":
    main()
