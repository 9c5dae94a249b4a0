"""Words said aloud where the machine has a voice; silent and without an error where it has none."""

from contextlib import suppress
from importlib import import_module
from typing import Any

from PyQt6.QtCore import QObject


class Speech(QObject):
    """The machine's voice, looked for when it is first wanted."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._voice: Any = None
        self._tried = False

    def say(self, words: str) -> bool:
        """Say it; whether there was a voice to say it with."""
        if not self._tried:
            self._tried = True
            with suppress(ImportError, AttributeError):  # no speech libraries on this machine
                speech = import_module("PyQt6.QtTextToSpeech").QTextToSpeech
                if [one for one in speech.availableEngines() if one != "mock"]:
                    self._voice = speech(self)
        if self._voice is None:
            return False
        self._voice.stop()
        self._voice.say(words)
        return True
