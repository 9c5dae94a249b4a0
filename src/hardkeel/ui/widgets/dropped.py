"""Pictures that are dragged on the window."""

from pathlib import Path
from typing import Final

from PyQt6.QtCore import QMimeData

PICTURES: Final = (".jpg", ".jpeg", ".png")


def pictures_in(data: QMimeData | None) -> list[Path]:
    """The pictures among what is dragged."""
    urls = data.urls() if data is not None else []
    paths = [Path(url.toLocalFile()) for url in urls if url.isLocalFile()]
    return [path for path in paths if path.suffix.lower() in PICTURES]
