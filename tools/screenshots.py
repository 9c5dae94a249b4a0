"""Take one picture of each main view from the demo: ``python tools/screenshots.py docs/screenshots``."""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PyQt6.QtCore import QSettings
from PyQt6.QtWidgets import QApplication, QWidget

from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.edits import set_phase
from hardkeel.project.figures import Figures, build_from
from hardkeel.ui.app import now
from hardkeel.ui.dialogs.new_build import NewBuildDialog
from hardkeel.ui.main_window import MainWindow
from hardkeel.ui.settings import Settings
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme


def main(folder: Path) -> None:
    """Write the pictures into `folder`."""
    app = QApplication(["screenshots"])
    app.setStyle("Fusion")
    load_fonts()
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as place:
        settings = Settings(QSettings(f"{place}/settings.ini", QSettings.Format.IniFormat))
        window = MainWindow(settings, Path(place), now)
        window.theme_changed.connect(lambda theme: apply_theme(app, theme))
        window.dress()
        window.resize(1280, 800)
        window.show()

        def shoot(name: str, widget: QWidget | None = None) -> None:
            for _ in range(3):
                app.processEvents()
            (widget or window).grab().save(str(folder / f"{name}.png"))

        for name, scene in _scenes(window, settings).items():
            scene()
            shoot(name)
        dialog = NewBuildDialog(make_theme("light"), "mm", window)
        dialog.show()
        shoot("new-build", dialog)
        dialog.close()
        window.document.stack.setClean()
        window.close()


def _scenes(window: MainWindow, settings: Settings) -> dict[str, Callable[[], object]]:
    def dark() -> None:
        window.show_stage("True")
        settings.theme = "dark"
        window.dress()

    def large() -> None:
        settings.theme, settings.text_percent = "light", 150
        window.dress()
        window.show_stage("True")

    def inches() -> None:
        settings.text_percent = 100
        window.dress()
        window.header.unit_button.click()

    def wet() -> None:
        window.header.unit_button.click()
        window.document.apply("go on", lambda build: set_phase(build, "wet"))

    def fresh() -> None:
        window.start(
            build_from(Figures(name="Sandwich Terrace Flyer, second airframe, light wood"))
        )

    return {
        "blank": lambda: window.show_stage("True"),
        "true": lambda: window.start(demo_build()),
        "log": lambda: window.show_stage("Log"),
        "true-dark": dark,
        "log-dark": lambda: window.show_stage("Log"),
        "true-150": large,
        "true-inches": inches,
        "true-wet": wet,
        "true-first-day": fresh,
    }


if __name__ == "__main__":
    main(Path(sys.argv[1]))
