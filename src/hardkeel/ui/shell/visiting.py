"""Somebody else's model on the bench for a while; the builder's own waits and is put back as it was."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from hardkeel.project.model import Build, empty_build
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.document_file import DocumentFile


@dataclass(frozen=True, slots=True)
class Hands:
    """What the window does for it.

    Attributes
    ----------
    may_leave : callable
        Asks about unsaved work; whether the bench may be cleared.
    start, open_path : callable
        Put a build without a file, or a file, on the bench.
    """

    may_leave: Callable[[], bool]
    start: "Start"
    open_path: Callable[[Path], None]


class Start(Protocol):
    """Puts a build on the bench that has no file."""

    def __call__(self, build: Build, *, again: bool = False) -> object:
        """`again` where it can be had again as it is."""


@dataclass(frozen=True, slots=True)
class Waiting:
    """The builder's own model while another lies on the bench.

    Attributes
    ----------
    again : bool
        Nothing of it was unsaved.
    """

    build: Build
    path: Path | None
    again: bool


class Visiting:
    """Puts exercises on the bench and knows what lay there before."""

    def __init__(self, document: Document, document_file: DocumentFile, hands: Hands) -> None:
        self._document, self._file, self._hands = document, document_file, hands
        self._waiting: Waiting | None = None

    @property
    def own(self) -> str:
        """The name of the builder's own model that waits; empty where none does."""
        if self._waiting is None or self._document.build.practice is None:
            return ""
        path = self._waiting.path
        return self._waiting.build.name or (path.stem if path is not None else "")

    def put(self, build: Build) -> bool:
        """Put a model on the bench that has no file; whether the builder let the one before go."""
        before, again = self._document.build, not self._file.unsaved
        if not self._hands.may_leave():
            return False
        if before.practice is None:
            waits = before != empty_build()
            self._waiting = Waiting(before, self._file.path, again) if waits else None
        self._hands.start(build, again=True)
        return True

    def back(self) -> None:
        """Put the builder's own back: its file, or where it has none what lay there."""
        if self._waiting is None:
            return
        if self._waiting.path is not None:
            self._hands.open_path(self._waiting.path)
        elif self._hands.may_leave():
            self._hands.start(self._waiting.build, again=self._waiting.again)
