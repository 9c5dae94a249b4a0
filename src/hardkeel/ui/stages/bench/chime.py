"""The sound of a timer: the project's own, or the system's bell where there is no sound."""

from contextlib import suppress
from importlib import import_module, resources
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QObject, QUrl
from PyQt6.QtWidgets import QApplication


class Chime(QObject):
    """Two struck bars, a fifth apart; see ``tools/make_chime.py``."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._effect: Any = None
        self._tried = False

    def ring(self) -> None:
        """Ring once; silent and without an error where nothing can."""
        if not self._tried:
            self._tried = True
            with suppress(ImportError, AttributeError):  # no sound libraries on this machine
                multimedia = import_module("PyQt6.QtMultimedia")
                if multimedia.QMediaDevices.audioOutputs():
                    self._effect = multimedia.QSoundEffect(self)
                    place = resources.files("hardkeel.resources") / "chime.wav"
                    self._effect.setSource(QUrl.fromLocalFile(str(Path(str(place)))))
        if self._effect is not None:
            self._effect.play()
        else:
            QApplication.beep()
