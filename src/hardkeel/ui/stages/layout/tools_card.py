"""The tool in hand at the paper desk, what to click with it, and the field for what is printed there."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QCheckBox, QLineEdit, QPushButton, QWidget

from hardkeel.messages import layout as say
from hardkeel.messages import paper as paper_say
from hardkeel.messages.paper import ASKS, DESK_TOOLS
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.flow import FlowLayout


class ToolsCard(Card):
    """The desk's tools; one is always in hand.

    Signals
    -------
    tool_picked : str
    entered : str
        What was typed for the clicks just made.
    settling_set : bool
        Whether clicks settle on the line.
    following_set : bool
        Whether a click on a line follows its ink.
    """

    tool_picked = pyqtSignal(str)
    entered = pyqtSignal(str)
    settling_set = pyqtSignal(bool)
    following_set = pyqtSignal(bool)

    def __init__(self) -> None:
        super().__init__(say.NOW, "act")
        self.tools: dict[str, QPushButton] = {}
        self.entry = QLineEdit()
        self.entry.setObjectName("reading")
        self.entry.setAccessibleName("what the length or point is")
        self.snap_to_line = QCheckBox("settle on the line")
        self.snap_to_line.setChecked(True)
        self.follow_ink = QCheckBox(paper_say.FOLLOW_THE_INK)
        self.follow_ink.setChecked(True)
        self._hint = label("title")
        keys = label("soft", say.SHEET_KEYS)
        for widget in (
            self._hint,
            self.entry,
            self._tool_row(),
            self.follow_ink,
            self.snap_to_line,
            keys,
        ):
            self.column.addWidget(widget)
        self.entry.returnPressed.connect(lambda: self.entered.emit(self.entry.text()))
        self.snap_to_line.toggled.connect(self.settling_set)
        self.follow_ink.toggled.connect(self.following_set)

    def _tool_row(self) -> QWidget:
        tools = QWidget()
        flow = FlowLayout(tools, gap=3)
        group = QButtonGroup(self)
        for key, (words, says) in DESK_TOOLS.items():
            button = QPushButton(words)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.setToolTip(says)
            button.clicked.connect(lambda _on, key=key: self.tool_picked.emit(key))
            group.addButton(button)
            flow.addWidget(button)
            self.tools[key] = button
        return tools

    def show_tool(self, tool: str, *, entering: bool) -> None:
        """Show the tool in hand, and the field where its clicks wait for a figure."""
        for key, button in self.tools.items():
            button.setChecked(key == tool)
        self.follow_ink.setVisible(tool in paper_say.FOLLOWED_TOOLS)
        follows = self.follow_ink.isChecked() and tool in paper_say.FOLLOWED_TOOLS
        says = paper_say.FOLLOWED_TOOLS[tool] if follows else DESK_TOOLS[tool][1]
        self._hint.setText(ASKS[tool] if entering else says)
        self.entry.setVisible(entering)
        if entering:
            self.entry.setFocus()
