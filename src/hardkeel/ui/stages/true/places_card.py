"""Where a body is held: struts and their feet, bolts, tube and pin, legs, corners."""

from dataclasses import dataclass

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.airframe.bodies import laid_of, struts_contacts, struts_of
from hardkeel.airframe.strutting import strut_length
from hardkeel.base.units import LengthUnit
from hardkeel.geometry.hull import Point2
from hardkeel.messages import rigging as say
from hardkeel.picture.truing import View, project
from hardkeel.project.model import Build
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard

_PERCENT = 100.0


@dataclass(frozen=True, slots=True)
class PlacesShown:
    """What a card says of where a body is held."""

    title: str
    figures: tuple[Figure, ...]
    words: str
    said: bool
    hint: str


def places_shown(build: Build, body: str, unit: LengthUnit) -> PlacesShown | None:
    """Where a body is held, as far as that is asked; ``None`` for what rests at its corners and nobody said otherwise."""
    held = build.surveyed.body(body)
    seat = held.seat if held is not None else None
    if seat is None:
        return None
    if seat.kind == "struts":
        if not any(wing.id == body for wing in build.wings):
            return None
        struts, said = struts_of(build, body), seat.struts is not None
        lengths = {one.id: strut_length(one) for one in struts_contacts(build, body)}
        front, rear = (lengths.get(f"{place}_port") for place in ("front", "rear"))
        words = say.struts_words(front, rear, struts.end, unit, said=said)
        figures = _figures(struts, say.STRUT_FIGURES)
        return PlacesShown(say.PLACES["struts"], figures, words, said, say.CLICK_STRUTS)
    laid = laid_of(build, body)
    if laid is None or seat.laid is None:  # it rests at its corners, or a file says itself where
        return None
    title = say.PLACES.get(seat.kind, say.WHERE_IT_RESTS)
    words = say.laid_words(said=laid.said)
    return PlacesShown(title, _figures(laid, say.LAID_FIGURES), words, laid.said, say.CLICK_LAID)


def held_places(build: Build, body: str) -> tuple[tuple[View, Point2], ...]:
    """Where a body is held in the views where that is clicked: from above, a strut's foot from behind."""
    held = build.surveyed.body(body)
    seat = held.seat if held is not None else None
    if seat is None or (seat.laid is None and seat.kind != "struts"):
        return ()
    contacts = struts_contacts(build, body) if seat.kind == "struts" else seat.contacts
    found: list[tuple[View, Point2]] = [("plan", project("plan", [one.at])[0]) for one in contacts]
    found += [("behind", project("behind", [one.foot])[0]) for one in contacts if one.foot]
    return tuple(found)


def _figures(places: object, words: dict[str, str]) -> tuple[Figure, ...]:
    return tuple(
        Figure(
            key,
            text,
            getattr(places, key) * (_PERCENT if key in say.SHARES else 1.0),
            "percent" if key in say.SHARES else "length",
        )
        for key, text in words.items()
    )


class PlacesCard(FiguresCard):
    """The figures of where a body is held, to type, to confirm, or to click on the drawing.

    Signals
    -------
    confirmed : (nothing)
        They stand as proposed.
    clicking : bool
        Whether clicks on the drawing are to be taken.
    """

    confirmed = pyqtSignal()
    clicking = pyqtSignal(bool)

    def __init__(self) -> None:
        super().__init__(say.WHERE_IT_RESTS)
        self.click = QPushButton(say.CLICK_THEM)
        self.click.setObjectName("tool")
        self.click.setCheckable(True)
        self.click.toggled.connect(self._on_click)
        self.confirm = QPushButton(say.THEY_STAND_SO)
        self.confirm.clicked.connect(self.confirmed)
        row = QHBoxLayout()
        row.addWidget(self.click)
        row.addStretch(1)
        row.addWidget(self.confirm)
        self.column.addLayout(row)
        self.places: PlacesShown | None = None
        self.hide()

    def show_places(self, shown: PlacesShown | None, unit: LengthUnit) -> None:
        """These places; hidden where none are asked."""
        self.places = shown
        self.setVisible(shown is not None)
        if shown is None:
            self.click.setChecked(False)
            return
        self.eyebrow.setText(shown.title)
        hint = shown.hint if self.click.isChecked() else shown.words
        self.show_figures("", shown.figures, unit, hint)
        self.confirm.setVisible(not shown.said)
        self.set_edge("" if shown.said else "act")

    def _on_click(self, is_on: bool) -> None:  # noqa: FBT001  a signal's slot
        if self.places is not None:
            self.said.setText(self.places.hint if is_on else self.places.words)
            self.said.setVisible(bool(self.said.text()))
        self.clicking.emit(is_on)
