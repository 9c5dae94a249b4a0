"""The last photos of the log, small, with their days."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QLabel

from hardkeel.messages import log as say
from hardkeel.ui.jobs.scans import image_from
from hardkeel.ui.widgets.card import Card, label

LATEST: Final = 2
_WIDE_PX, _HIGH_PX = 290, 180


class PhotosCard(Card):
    """A few photos under one another."""

    def __init__(self) -> None:
        super().__init__(say.PHOTOS)
        self.shown: list[tuple[QLabel, QLabel]] = []
        for _ in range(LATEST):
            picture, words = QLabel(), label("soft")
            self.shown.append((picture, words))
            self.column.addWidget(picture)
            self.column.addWidget(words)
        self.hide()

    def show_photos(self, photos: Sequence[tuple[str, str, bytes | None]]) -> None:
        """When, what was written, and the photo; one that is not here is told by its words alone."""
        self.setVisible(bool(photos))
        for i, (picture, words) in enumerate(self.shown):
            there = i < len(photos)
            words.setVisible(there)
            picture.setVisible(there)
            if not there:
                continue
            when, told, data = photos[i]
            words.setText(f"{when}: {told}")
            picture.setAccessibleName(f"{say.PHOTOS}: {told}")
            image = image_from(data)[0] if data is not None else None
            if image is None or image.isNull():
                picture.hide()
                continue
            picture.setPixmap(
                QPixmap.fromImage(image).scaled(
                    _WIDE_PX,
                    _HIGH_PX,
                    Qt.AspectRatioMode.KeepAspectRatio,
                    Qt.TransformationMode.SmoothTransformation,
                )
            )
