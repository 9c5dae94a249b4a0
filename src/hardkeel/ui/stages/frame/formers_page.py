"""Formers: all of them as they are cut, one of them large with what passes it, and what is wrong with it."""

from typing import Final

from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.edits import framing as edits
from hardkeel.fuselage.contours import has_deck
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.model import Former
from hardkeel.messages import findings as findings_say
from hardkeel.messages import frame as say
from hardkeel.messages import frame_edits as edits_say
from hardkeel.messages import layout as layout_say
from hardkeel.picture.framing import former_picture, gallery
from hardkeel.picture.wood import WoodPicture
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.frame_page import SHOWS, FrameSubPage
from hardkeel.ui.tabbed.sticks_shown import wood_name
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.wood_board import WoodBoard

_STICKS_START: Final = (8.0, 3.0)  # width and depth when a former is first made of sticks
_JOINTS: Final = (("", "of sheet"), ("butt", "of sticks, butted"), ("lap", "of sticks, lapped"))


class FormersPage(FrameSubPage):
    """The gallery, the former in hand, its card."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._former = ""
        self.gallery = WoodBoard(theme, say.FORMERS, height=260)
        self.large = WoodBoard(theme, say.SECTION, height=320)
        self.card = FiguresCard(say.IN_HAND)
        self.split = QCheckBox(say.SPLIT_IT)
        self.deck = QCheckBox(say.DECK_APART)
        self.deck.setToolTip(say.DECK_APART_TIP)
        self.made = QComboBox()
        self.made.setAccessibleName("what the former is made of")
        for key, words in _JOINTS:
            self.made.addItem(words, key)
        self.trouble = LinesCard(say.LOOK_INTO)
        self.ends = LinesCard(say.ENDS_AND_CHAMFERS)
        self._note = label("soft")
        self._lay_out()
        self.gallery.picked.connect(self.piece_chosen)
        self.large.picked.connect(self._on_large_picked)
        self.card.figure_changed.connect(self._on_figure)
        self.split.clicked.connect(self._on_split)
        self.deck.clicked.connect(self._on_deck)
        self.made.activated.connect(self._on_made)
        self.refresh_lazily(SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        row = QHBoxLayout()
        row.addWidget(self.split)
        row.addWidget(self.deck)
        row.addStretch(1)
        row.addWidget(self.made)
        self.card.column.addWidget(self._note)
        self.card.column.addLayout(row)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(1)
        work.addWidget(self.gallery, 5)
        work.addWidget(self.large, 6)
        self._cards = CardColumn((self.told, self.card, self.trouble, self.ends), self.theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.gallery, self.large, self._cards)

    @property
    def former(self) -> Former | None:
        """The former in hand."""
        found = self.fuselage.former(self._former)
        if found is None and self.fuselage.formers:
            return self.fuselage.formers[0]
        return found

    def choose(self, ref: str) -> None:
        """Take a former in hand."""
        if self.fuselage.former(ref) is not None and ref != self._former:
            self._former = ref
            self.refresh()

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.gallery.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        fuselage, former = self.fuselage, self.former
        self.card.setVisible(former is not None)
        if former is None or not self.framed:
            for board in (self.gallery, self.large):
                board.show_picture(WoodPicture(), "", say.NOTHING_TO_FRAME)
            self.trouble.show_lines("", ())
            return
        findings = findings_of(fuselage)
        troubled = frozenset(one.former for one in findings)
        self.gallery.show_picture(gallery(fuselage, troubled), former.id)
        place = format_length(former.station, self.unit)
        self.large.set_title(f"{layout_say.former(former.id)}, {say.SECTION}")
        self.large.show_picture(former_picture(fuselage, former), former.id, place)
        self._show_card(former)
        web = fuselage.framed.web
        mine = [one for one in findings if one.former == former.id]
        self.trouble.set_edge("out" if mine else "")
        if mine:
            more = [
                f"{findings_say.finding_title(one)} {findings_say.finding_sentence(one, self.unit, web)}"
                for one in mine[1:]
            ]
            lines = [findings_say.finding_sentence(mine[0], self.unit, web), *more]
            self.trouble.show_lines(findings_say.finding_title(mine[0]), lines)
        else:
            self.trouble.show_lines(say.THIS_ONE_IS_SOUND, (say.elsewhere(len(findings)),))

    def _show_card(self, former: Former) -> None:
        fuselage = self.fuselage
        figures = [
            Figure("thickness", "thickness", former.thickness),
            Figure("web", say.WEB, fuselage.framed.web),
        ]
        if former.sticks is not None:
            figures += [
                Figure("wide", "sticks wide", former.sticks[0]),
                Figure("deep", "sticks deep", former.sticks[1]),
            ]
        self.card.show_figures(layout_say.former(former.id), tuple(figures), self.unit)
        fitted = next(one for one in fitted_formers(fuselage) if one.id == former.id)
        spacer = "" if fitted.spacer is None else format_length(fitted.spacer, self.unit)
        thick = "" if former.thickness is None else format_length(former.thickness, self.unit)
        wood = wood_name(self.document.build, former.material)
        self._note.setText(
            say.former_words(thick, wood, format_angle(fitted.edge_bevel, 1), spacer)
        )
        self.split.setChecked(former.split)
        self.deck.setVisible(has_deck(former))
        self.deck.setChecked(former.deck_apart)
        key = former.joint if former.sticks is not None else ""
        self.made.setCurrentIndex(self.made.findData(key))
        self._show_ends(former)

    def _show_ends(self, former: Former) -> None:
        lines = say.end_lines(self.fuselage, former, self.unit)
        self.ends.show_lines("", lines)

    # -- what the hands do -------------------------------------------------------------------------

    def _on_large_picked(self, ref: str) -> None:
        former = self.former
        if former is None or ref != former.id:
            self.piece_chosen.emit(ref)

    def _on_figure(self, key: str, value: float) -> None:
        former = self.former
        if former is None:
            return
        if key == "web":
            self.apply(say.set_edit(say.WEB), edits.set_framing.of(web=value))
        elif key == "thickness":
            self.apply(
                say.set_edit(edits_say.thickness_of_edit(former.id)),
                edits.set_former.of(former.id, thickness=value),
            )
        else:
            wide, deep = former.sticks or _STICKS_START
            sticks = (value, deep) if key == "wide" else (wide, value)
            self.apply(
                say.set_edit(edits_say.sticks_of_edit(former.id)),
                edits.set_former.of(former.id, sticks=sticks),
            )

    def _on_split(self) -> None:
        former, on = self.former, self.split.isChecked()
        if former is not None:
            self.apply(
                say.set_edit(edits_say.split_edit(former.id)),
                edits.set_former.of(former.id, split=on),
            )

    def _on_deck(self) -> None:
        former, on = self.former, self.deck.isChecked()
        if former is not None:
            self.apply(
                say.set_edit(edits_say.deck_of_edit(former.id)),
                edits.set_former.of(former.id, deck_apart=on),
            )

    def _on_made(self) -> None:
        former = self.former
        if former is None:
            return
        joint = self.made.currentData()
        changes: dict[str, object] = (
            {"sticks": None}
            if not joint
            else {"sticks": former.sticks or _STICKS_START, "joint": joint}
        )
        self.apply(
            say.set_edit(edits_say.making_of_edit(former.id)),
            edits.set_former.of(former.id, **changes),
        )
        self.refresh()
