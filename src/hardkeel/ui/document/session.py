"""What belongs to one opened build, and ends with it."""

from PyQt6.QtCore import QObject, pyqtSignal

from hardkeel.storage.attaching import BuildImages


class Session(QObject):
    """From when a build is put on the bench until another is.

    Signals
    -------
    ended : (nothing)
        Another build comes: what was begun for this one is left off, and no answer to it arrives any more.

    Attributes
    ----------
    images : BuildImages
        The images that this build names, and no other's.
    """

    ended = pyqtSignal()

    def __init__(self, images: BuildImages, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.images = images

    def end(self) -> None:
        """It is over."""
        self.ended.emit()
        self.deleteLater()
