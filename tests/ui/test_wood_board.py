"""A drawing of wood: looked at from nearer, dragged, its pieces named."""

import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent, QWheelEvent
from PyQt6.QtWidgets import QScrollArea
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.picture.framing import side_view
from hardkeel.picture.wood import WoodPicture, WoodShape
from hardkeel.ui.theme import make_theme
from hardkeel.ui.widgets.wood_board import WoodBoard


def drawn_board(qtbot: QtBot) -> WoodBoard:
    ring = ((0.0, 0.0), (200.0, 0.0), (200.0, 40.0), (0.0, 40.0))
    small = ((180.0, 10.0), (190.0, 10.0), (190.0, 20.0), (180.0, 20.0))
    board = WoodBoard(make_theme("light"), "a board")
    qtbot.addWidget(board)
    board.resize(640, 240)
    board.show_picture(WoodPicture((WoodShape("side", ring), WoodShape("key", small))))
    board.show()
    return board


def test_a_drawing_of_wood_is_looked_at_from_nearer(qtbot: QtBot) -> None:
    board = drawn_board(qtbot)
    before = board.place_of("key")
    assert before is not None
    for _ in range(3):
        board.look_nearer(1.25, before)
    after = board.place_of("key")
    assert after is not None
    assert (after - before).manhattanLength() < 2  # what is looked at stays where it is
    assert board.nearness == pytest.approx(1.25**3)
    qtbot.mouseClick(board, Qt.MouseButton.LeftButton, pos=after.toPoint())
    assert board.chosen == "key"
    qtbot.keyClick(board, "0")
    assert board.nearness == 1.0
    assert board.place_of("key") == before


def test_a_drawing_that_is_looked_at_from_nearer_is_dragged(qtbot: QtBot) -> None:
    board = drawn_board(qtbot)
    qtbot.keyClick(board, "+")
    qtbot.keyClick(board, "+")
    before = board.place_of("key")
    assert before is not None
    left = Qt.MouseButton.LeftButton
    qtbot.mousePress(board, left, pos=QPoint(100, 100))
    for x, y in ((95, 104), (80, 110)):  # qtbot's own move holds no button
        at = QPointF(x, y)
        move = QMouseEvent(
            QEvent.Type.MouseMove,
            at,
            board.mapToGlobal(at),
            left,
            left,
            Qt.KeyboardModifier.NoModifier,
        )
        board.mouseMoveEvent(move)
    qtbot.mouseRelease(board, left, pos=QPoint(80, 110))
    after = board.place_of("key")
    assert after is not None
    assert (after - before - QPointF(-20, 10)).manhattanLength() < 0.01
    board.mouseMoveEvent(
        QMouseEvent(
            QEvent.Type.MouseMove, QPointF(5, 5), QPointF(5, 5), left, Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
        )
    )  # fmt: skip
    assert board.place_of("key") == after


def test_the_wheel_moves_the_page_that_a_drawing_lies_on_without_ctrl(qtbot: QtBot) -> None:
    board = drawn_board(qtbot)

    def turn(keys: Qt.KeyboardModifier) -> None:
        board.wheelEvent(
            QWheelEvent(
                QPointF(50, 50), QPointF(50, 50), QPoint(), QPoint(0, 120),
                Qt.MouseButton.NoButton, keys, Qt.ScrollPhase.NoScrollPhase, False,
            )
        )  # fmt: skip

    turn(Qt.KeyboardModifier.NoModifier)
    assert board.nearness > 1.0
    board.look_nearer(0.0, QPointF())
    area = QScrollArea()
    qtbot.addWidget(area)
    area.setWidget(board)
    turn(Qt.KeyboardModifier.NoModifier)
    assert board.nearness == 1.0
    turn(Qt.KeyboardModifier.ControlModifier)
    assert board.nearness > 1.0


def test_members_bear_their_names_where_there_is_room() -> None:
    build = demo_build()
    fuselage = build.fuselage
    assert fuselage is not None
    names = {one.id: one.id.upper() for one in fuselage.framed.members}
    picture = side_view(build).named(names)
    said = {label.ref: label for label in picture.labels if label.ref in names}
    drawn = {shape.ref for shape in picture.shapes}
    assert set(said) == set(names) & drawn
    assert len(said) > 3
    for ref, label in said.items():
        rings = [shape.ring for shape in picture.shapes if shape.ref == ref]
        us = [u for ring in rings for u, _ in ring]
        assert min(us) <= label.at[0] <= max(us)
        assert label.text == ref.upper()
