"""Bends: how tightly each member is bent, what its wood says to it, ways out, and what pulls it in."""

from typing import Final

from PyQt6.QtWidgets import QComboBox, QVBoxLayout, QWidget

from hardkeel.airframe.framing import limits_of, stiffness_of
from hardkeel.base.units import LengthUnit, decimal, format_length
from hardkeel.edits import framing as edits
from hardkeel.fuselage.bending import Bend, bends_of
from hardkeel.fuselage.bending_forces import bend_lines_of, pulls_of, remedy_of
from hardkeel.fuselage.chamfers import leaving_longerons_of, post_chamfer_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.sheeted import edge_lengths_of
from hardkeel.fuselage.sheeting import strained_skins_of
from hardkeel.messages import frame as say
from hardkeel.messages import frame_edits as edits_say
from hardkeel.parts.woods import WOODS
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.bend_chart import BendChart
from hardkeel.ui.stages.frame.frame_page import SHOWS, FrameSubPage
from hardkeel.ui.tabbed.sticks_shown import wood_names
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.doing_card import LinesCard

_SEEN_MM: Final = 0.05  # what a pencil line can show


class BendsPage(FrameSubPage):
    """The chart over a list of members; the member in hand with its ways out."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._bends: tuple[Bend, ...] = ()
        self._chosen = ""
        self.chart = BendChart(theme)
        columns = [Column("member"), Column("radius", right=True), Column("at", right=True), Column("outer fibre", right=True), Column("goes")]  # fmt: skip
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 4, say.BENDS, (2,))
        self.answer = LinesCard(say.WAYS_OUT)
        self.wood = QComboBox()
        self.wood.setAccessibleName("wood of the bent member")
        for wood in WOODS:
            if wood.bend[0] > 0:
                self.wood.addItem(wood.name, wood.id)
        self.wood.activated.connect(self._on_wood)
        self.answer.column.insertWidget(2, self.wood)
        self.pulling = LinesCard(say.PULLING_IN)
        self.ends = LinesCard(say.ENDS_AND_CHAMFERS)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(1)
        work.addWidget(self.chart, 5)
        work.addWidget(self.table, 4)
        self._cards = CardColumn((self.told, self.answer, self.pulling, self.ends), theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.chart, self.table, self._cards)
        self.table.row_picked.connect(self._on_row_picked)
        self.refresh_lazily(SHOWS)
        self.refresh()

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        build = self.document.build
        self.table.setVisible(self.framed)
        if not self.framed:
            self.chart.show_lines((), (), "", None)
            self.answer.show_lines(say.NOTHING_TO_FRAME, ())
            self.wood.hide()
            self.pulling.show_lines("", ())
            self.ends.show_lines("", ())
            return
        self.wood.show()
        limits = limits_of(build)
        self._bends = bends_of(self.fuselage, limits)
        if all(bend.member != self._chosen for bend in self._bends) and self._bends:
            # the worst first: what is nearest to breaking
            worst = max(
                self._bends,
                key=lambda bend: (
                    bend.verdict == "too tight",
                    bend.verdict == "soaked",
                    bend.strain,
                ),
            )
            self._chosen = worst.member
        self.model.show_rows([self._row(bend) for bend in self._bends], self.theme)
        self.table.selectRow(max(self.model.number_of(self._chosen), 0))
        self._show_chosen()
        self._show_pulling()

    def _row(self, bend: Bend) -> Row:
        straight = bend.radius is None or bend.at_station is None
        radius = "" if bend.radius is None else format_length(bend.radius, self.unit, 0)
        place = "" if bend.at_station is None else format_length(bend.at_station, self.unit, 0)
        return Row(
            bend.member,
            (
                bend.member,
                radius,
                place,
                "" if straight else f"{decimal(bend.strain, 2)} %",
                say.goes(bend),
            ),
            "out" if bend.verdict == "too tight" else "ink",
        )

    def _show_chosen(self) -> None:
        build, fuselage = self.document.build, self.fuselage
        limits = limits_of(build)
        tops = [bend.at_station for bend in self._bends if bend.at_station is not None]
        lines = bend_lines_of(fuselage, limits, also=tops)
        stations = tuple((name, stop.station) for name, stop in fuselage.stations)
        bend = next((one for one in self._bends if one.member == self._chosen), None)
        place = None
        if bend is not None and bend.radius is not None and bend.at_station is not None:
            words = (
                f"{decimal(bend.strain, 2)} %, radius {format_length(bend.radius, self.unit, 0)}"
            )
            place = (bend.at_station, words)
        self.chart.show_lines(lines, stations, self._chosen, place)
        if bend is None:
            self.answer.show_lines("", ())
            return
        material = fuselage.side_material
        for longeron in fuselage.longerons:
            if bend.member.startswith(f"{longeron.id} longeron"):
                material = longeron.material
        easing = remedy_of(bend, material, limits)
        told = say.easing_lines(easing, self.unit, wood_names(build))
        self.wood.setCurrentIndex(self.wood.findData(material))
        if easing.margin is not None and easing.margin < 1 and say.NOT_SOAKED not in told:
            told.append(say.STEAM_CAUTION)
        self.answer.set_edge("out" if bend.verdict == "too tight" else "")
        self.answer.show_lines(say.bend_answer(bend), told)

    def _show_pulling(self) -> None:
        build, fuselage = self.document.build, self.fuselage
        pulls = pulls_of(fuselage, stiffness_of(build))
        loose = pulls_of(fuselage, stiffness_of(build), joined=False)
        lines = [say.pull_sentence(pulls, loose)] if pulls else []
        loft = loft_of(fuselage)
        over = loft.developed() - (loft.stations - loft.stations[0])
        shifts = [
            (name, float(mm)) for name, mm in zip(loft.names, over, strict=True) if mm >= _SEEN_MM
        ]
        lines += [one for one in (say.stations_sentence(shifts, self.unit),) if one]
        lines += [say.edge_sentence(one, self.unit) for one in edge_lengths_of(fuselage)]
        lines += [say.strained_sentence(one) for one in strained_skins_of(fuselage)]
        self.pulling.show_lines("", lines)
        post = post_chamfer_of(fuselage)
        told = [] if post is None else [say.chamfer_sentence(post)]
        told += [say.leaving_sentence(one, self.unit) for one in leaving_longerons_of(fuselage)]
        self.ends.show_lines("", told)

    def _on_wood(self) -> None:
        wood, bent = self.wood.currentData(), self._chosen
        self.apply(say.set_edit(edits_say.wood_of_edit(bent)), edits.set_member_wood.of(bent, wood))

    def _on_row_picked(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None and row.key != self._chosen:
            self._chosen = row.key
            self._show_chosen()
