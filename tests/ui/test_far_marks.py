"""A mark that a poor map puts beyond all bounds is left out; the sheet is painted all the same."""

import math
from typing import Literal

import pytest
from PyQt6.QtGui import QColor, QImage
from pytestqt.qtbot import QtBot

from hardkeel.ui.stages.layout.scan_marks import ScanMark
from hardkeel.ui.stages.layout.scan_view import ScanView
from hardkeel.ui.theme import make_theme


@pytest.mark.parametrize("far", [1e9, -3e17, math.inf, math.nan])
@pytest.mark.parametrize("kind", ["met", "length", "side-top"])
def test_a_mark_beyond_all_bounds_is_not_stroked(qtbot: QtBot, far: float, kind: str) -> None:
    view = ScanView(make_theme("light"))
    qtbot.addWidget(view)
    image = QImage(300, 200, QImage.Format.Format_Grayscale8)
    image.fill(QColor(240, 240, 240))
    view.show_image(image)
    view.resize(300, 200)
    view.show()
    followed: Literal["open"] | None = "open" if kind == "side-top" else None
    view.show_marks((ScanMark(kind, ((10.0, 10.0), (far, 20.0)), active=True, followed=followed),))
    shown = view.grab().toImage()
    assert shown.pixelColor(shown.width() // 2, shown.height() // 2).value() > 180
