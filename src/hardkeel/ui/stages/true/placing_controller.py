"""Takes where a body is held from the card and from clicks on the drawing."""

from collections.abc import Callable

from PyQt6.QtCore import QObject

from hardkeel.airframe.bodies import held_at
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits.named import Edit
from hardkeel.edits.seats import set_laid, set_struts
from hardkeel.messages import rigging as say
from hardkeel.messages.faults import told
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.true.places_card import PlacesCard, held_places, places_shown
from hardkeel.ui.widgets.three_view import ThreeView

_PERCENT = 100.0


class PlacingController(QObject):
    """Owns what is said of one body's seat.

    Parameters
    ----------
    apply : callable
        Applies an edit to the document under its name for undo.
    """

    def __init__(
        self,
        document: Document,
        card: PlacesCard,
        drawing: ThreeView,
        apply: Callable[[str, Edit], object],
    ) -> None:
        super().__init__(card)
        self._document, self._card, self._drawing, self._apply = document, card, drawing, apply
        self._body = ""
        self._unit: LengthUnit = "mm"
        card.figure_changed.connect(self._on_figure)
        card.confirmed.connect(lambda: self._place({}))
        card.clicking.connect(self._on_clicking)
        drawing.place_picked.connect(self._on_clicked)

    def lay(self) -> None:
        """Let it be asked where a body rests that nobody asked about: its corners, to be put right."""
        self._place({})

    def show_body(self, body: str, unit: LengthUnit) -> None:
        """The body whose seat is shown; none where it is empty."""
        if body != self._body:
            self._card.click.setChecked(False)
        self._body, self._unit = body, unit
        self._card.show_places(places_shown(self._document.build, body, unit), unit)
        self._drawing.show_places(held_places(self._document.build, body))

    def _on_clicking(self, is_on: bool) -> None:  # noqa: FBT001  a signal
        self._drawing.want("place" if is_on else "")

    def _on_figure(self, key: str, value: float) -> None:
        self._place({key: value / _PERCENT if key in say.SHARES else value})

    def _on_clicked(self, view: str, u: float, v: float) -> None:
        seat = next(
            (b.seat for b in self._document.build.surveyed.bodies if b.id == self._body), None
        )
        struts = seat is not None and seat.kind == "struts"
        if view not in ("plan", "behind") or (view == "behind" and not struts):
            return
        at = (v, u, 0.0) if view == "plan" else (0.0, u, -v)
        try:
            figures = held_at(self._document.build, self._body, at, from_above=view == "plan")
        except BadInput as fault:
            self._card.said.setText(told(fault, self._unit).capitalize() + ".")
            return
        self._place(figures)

    def _place(self, figures: dict[str, float]) -> None:
        seat = next(
            (b.seat for b in self._document.build.surveyed.bodies if b.id == self._body), None
        )
        kind = seat.kind if seat is not None else "saddle"
        edit = set_struts if kind == "struts" else set_laid
        self._apply(say.PLACES.get(kind, say.WHERE_IT_RESTS), edit.of(self._body, **figures))
