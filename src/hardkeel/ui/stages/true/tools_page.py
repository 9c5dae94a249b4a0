"""Tools: which the builder owns, what each is worth, and what its own readings tell of it."""

from typing import Final

from PyQt6.QtWidgets import QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import tooling as edits
from hardkeel.messages import sharing as say_sharing
from hardkeel.messages import tools as say
from hardkeel.survey.instruments import Learned, ZeroError, learned, zero_errors
from hardkeel.survey.model import Instrument
from hardkeel.survey.priors import SquaredTo
from hardkeel.survey.proposing import tools_of
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.true.shared_card import SharedCard
from hardkeel.ui.stages.true.tool_rows import ToolRows
from hardkeel.ui.stages.true.tools_shown import all_tools, priors_shown, tool_shown
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet

_SHOWS: Final = frozenset({"survey", "phase", "judgement"})


class WorthCard(Card):
    """The most telling thing about the tools."""

    def __init__(self) -> None:
        super().__init__(say.WORTH, "act")
        self.answer, self.why = label("answer"), label("soft")
        self.column.addWidget(self.answer)
        self.column.addWidget(self.why)


class ToolsPage(SubPage):
    """The document's tools, shown and counted."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.rows = ToolRows(theme)
        self.worth = WorthCard()
        self.shared = SharedCard()
        self.found = LinesCard(say_sharing.FOUND)
        self.how = LinesCard(say.HOW_TO)
        self._learned: dict[str, Learned] = {}
        self._zeros: dict[str, ZeroError] = {}
        column = CardColumn(
            (self.told, self.worth, self.found, self.shared, FoldedSheet((self.how,))), theme
        )
        self.themed = (self.rows, column)
        self.lie_beside(self.rows, column)
        self.rows.had.connect(self._on_had)
        self.rows.counted.connect(self._on_counted)
        self.rows.refined.connect(self._on_refined)
        self.rows.acted.connect(self._on_acted)
        self.shared.said.connect(self._on_said)
        self.shared.switched.connect(self._on_switched)
        self.shared.squared.connect(self._on_squared)
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def focus_work(self) -> None:
        """The first tool."""
        first = next(iter(self.rows.rows.values()), None)
        if first is not None:
            first.box.setFocus()

    def _tools(self) -> dict[str, Instrument]:
        return {tool.id: tool for tool in all_tools(self.document.build.surveyed)}

    def refresh(self) -> None:
        """Show the tools as they are now."""
        survey, judgement = self.document.build.surveyed, self.document.judgement
        weighed = {suspect.reading for suspect in judgement.outliers}
        weighed |= {reading for doubt in judgement.alternatives for reading in doubt.bad}
        tools = self._tools()
        self._learned = {one.tool: one for one in learned(survey, weighed) if one.tool in tools}
        self._zeros = {one.tool: one for one in zero_errors(survey) if one.tool in tools}
        own = {tool.id for tool in tools_of(survey)}
        self.rows.show_tools(
            [
                tool_shown(
                    tool,
                    had=tool.id in own,
                    learned=self._learned.get(tool.id),
                    zero=self._zeros.get(tool.id),
                    unit=self.unit,
                )
                for tool in tools.values()
            ],
            self.unit,
        )
        self._show_worth(tools)
        found = say_sharing.findings(survey, judgement, self.unit)
        self.found.setVisible(bool(found))
        self.found.show_lines("", found)
        self.shared.show_priors(priors_shown(survey), survey.squared_to, self.unit)
        self.how.show_lines("", [say.HOW[tool.kind] for tool in tools.values() if tool.id in own])

    def _show_worth(self, tools: dict[str, Instrument]) -> None:
        if not self._learned and not self._zeros:
            self.worth.answer.setText(say.NOTHING_YET)
            self.worth.why.setText(say.NOTHING_WHY)
            return
        zeros = [zero for zero in self._zeros.values() if zero.sure]
        clear = [one for one in self._learned.values() if one.differs]
        self.worth.answer.setText(say.worth_answer(tools, clear, zeros, self.unit))
        self.worth.why.setText(say.NOTHING_WHY)

    # -- doing -----------------------------------------------------------------------------------

    def _on_had(self, tool: str, had: bool) -> None:  # noqa: FBT001  a signal
        tools, survey = self._tools(), self.document.build.surveyed
        own = {one.id for one in tools_of(survey)} - {tool} | ({tool} if had else set())
        chosen = [one for one in tools.values() if one.id in own]
        name = say.tool_words(tools[tool])
        self.apply(say.own_edit(name, had=had), edits.set_tools.of(chosen))

    def _on_counted(self, tool: str, sigma: float) -> None:
        self._change(tool, {"sigma": sigma})

    def _on_refined(self, tool: str, value: float) -> None:
        eye = self._tools()[tool].kind == "eye"
        self._change(tool, {"distance" if eye else "resolution": value, "sigma": None})

    def _on_said(self, key: str, shown: float) -> None:
        value = say_sharing.prior_kept(key, shown)
        self.apply(say_sharing.EDIT, edits.set_shared.of(key, value))

    def _on_switched(self, usual: bool) -> None:  # noqa: FBT001  a signal
        self.apply(say_sharing.EDIT, edits.suppose_shared.of(usual=usual))

    def _on_squared(self, to: SquaredTo) -> None:
        self.apply(say_sharing.SQUARED_EDIT, edits.set_squared_to.of(to))

    def _change(self, tool: str, figures: dict[str, float | None]) -> None:
        held = self._tools()[tool]
        try:
            changed = held.but(**figures)
        except BadInput:
            self.tell(say.must_be_more(say.tool_words(held)))
            self.refresh()
            return
        self.apply(say.count_edit(say.tool_words(held)), edits.change_tool.of(changed))

    def _on_acted(self, tool: str) -> None:
        name = say.tool_words(self._tools()[tool])
        zero, one = self._zeros.get(tool), self._learned.get(tool)
        if zero is not None and zero.sure:
            self.apply(say.take_off_edit(name), edits.take_off_zero.of(zero))
        elif one is not None and one.differs:
            self.apply(say.count_edit(name), edits.count_as.of(tool, one.usable))
