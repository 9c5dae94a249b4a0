"""Board: the frame set up, upright or upside down, with its spacers and what is done first."""

from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.edits import squaring as edits
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.messages import board as say
from hardkeel.messages import frame as frame_say
from hardkeel.messages import square as square_say
from hardkeel.picture.boarding import board_from_above, board_from_the_side
from hardkeel.picture.wood import WoodPicture
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.frame_page import FrameSubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.wood_board import WoodBoard


class BoardPage(FrameSubPage):
    """Two views of the board over the list of spacers; how to set up beside them."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.above = WoodBoard(theme, say.FROM_ABOVE, height=190)
        self.side = WoodBoard(theme, say.FROM_THE_SIDE, height=160)
        columns = [Column(head, right=i > 0) for i, head in enumerate(say.HEADS)]
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 4, say.SPACERS)
        self.now, self.setting = NowCard(), LinesCard(say.SETTING_UP)
        self.figures = FiguresCard(say.BOARD)
        self.turn = QPushButton(say.TURN_IT_OVER)
        self.turn.setObjectName("tool")
        row = QHBoxLayout()
        self._tacked = QCheckBox(say.TACKED)
        self._tacked.setToolTip(say.TACKED_TIP)
        self._tacked.clicked.connect(self._on_tacked)
        row.addWidget(self.turn)
        row.addWidget(self._tacked)
        row.addStretch(1)
        self.figures.column.addLayout(row)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(1)
        work.addWidget(self.above, 5)
        work.addWidget(self.side, 5)
        work.addWidget(self.table, 5)
        self._cards = CardColumn((self.told, self.now, self.figures, self.setting), theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.above, self.side, self.table, self._cards)
        for board in (self.above, self.side):
            board.picked.connect(self.piece_chosen)
        self.table.row_picked.connect(self._on_row_picked)
        self.turn.clicked.connect(self._on_turned)
        self.now.asked.connect(lambda _key: self._set_on_board(inverted=False))
        self.figures.figure_changed.connect(self._on_height)
        self.refresh_lazily(frozenset({"fuselage"}))
        self.refresh()

    def choose(self, ref: str) -> None:
        """Light a former up."""
        for board in (self.above, self.side):
            board.choose(ref)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        fuselage = self.fuselage
        board = fuselage.board if self.framed else None
        ready = board is not None and bool(fuselage.formers)
        for widget in (self.side, self.table, self.figures, self.setting):
            widget.setVisible(ready)
        self.now.setVisible(not ready)
        if not ready or board is None:
            self.above.show_picture(WoodPicture(), "", square_say.NO_BOARD)
            doing = Doing(
                square_say.SET_A_BOARD,
                square_say.SET_A_BOARD_WHY,
                square_say.LEVEL_FIRST,
                square_say.SET_A_BOARD,
                "board",
            )
            self.now.show_doing(doing if fuselage.formers else Doing(frame_say.NOTHING_TO_FRAME))
            return
        chosen = self.above.chosen
        self.above.show_picture(board_from_above(fuselage), chosen)
        self.side.show_picture(board_from_the_side(fuselage), chosen)
        first = min(former.station for former in fuselage.formers)
        fitted = fitted_formers(fuselage)
        self.model.show_rows(
            [
                Row(
                    one.id,
                    (
                        one.id,
                        format_length(one.station - first, self.unit),
                        format_length(one.spacer or 0.0, self.unit),
                        format_length(one.inner_half_width, self.unit),
                        format_angle(one.edge_bevel, 1),
                    ),
                    "out" if (one.spacer or 0.0) < 0 else "ink",
                )
                for one in fitted
            ],
            self.theme,
        )
        through = [
            say.through_the_board(one.id, -(one.spacer or 0.0), self.unit)
            for one in fitted
            if (one.spacer or 0.0) < 0
        ]
        title = say.INVERTED if board.inverted else say.UPRIGHT
        under = board.z if board.inverted else -board.z
        self.figures.show_figures(
            title,
            (
                Figure("z", say.BOARD_HEIGHT, under),
                Figure("length", say.BOARD_LENGTH, board.length),
            ),
            self.unit,
            " ".join(through),
        )
        self._tacked.setChecked(board.tacked)
        self.setting.show_lines("", say.setting_up(fuselage))

    def _on_row_picked(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None:
            self.piece_chosen.emit(row.key)

    def _on_tacked(self) -> None:
        self.apply(say.TACKED, edits.set_tacked.of(tacked=self._tacked.isChecked()))

    def _on_turned(self) -> None:
        board = self.fuselage.board
        if board is not None:
            self._set_on_board(inverted=not board.inverted)

    def _set_on_board(self, *, inverted: bool) -> None:
        self.apply(say.TURNED, edits.set_on_board.of(inverted=inverted))

    def _on_height(self, key: str, value: float) -> None:
        if key == "length":
            self.apply(say.BOARD_LENGTH, edits.set_board_length.of(value))
            return
        self.apply(say.MOVED, edits.set_board_height.of(value))
