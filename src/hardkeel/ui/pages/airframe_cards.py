"""What is known of the former or part in hand: smooth lines, figures, template, skins."""

from typing import TYPE_CHECKING, Final

from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.fairing import Bump
from hardkeel.fuselage.model import METHODS, Former, Fuselage
from hardkeel.project.airframe import marks_from
from hardkeel.survey.model import FUSELAGE
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cards import Card, label
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.voice.airframe import (
    FIGURE_WORDS,
    METHOD_WORDS,
    bump_sentence,
    caution_sentence,
    cutouts_text,
    misfit_sentence,
)
from hardkeel.voice.names import body_name, mark_name, sentence_case

if TYPE_CHECKING:
    from hardkeel.balance.model import Wing
    from hardkeel.project.build import Build, TailSurface

SURFACE_FIGURES: Final = (
    ("span", "span", "length"),
    ("le_x", "leading edge at", "length"),
    ("root_chord", "root chord", "length"),
    ("z", "height", "length"),
    ("tip_chord", "tip chord", "length"),
    ("incidence", "incidence", "angle"),
    ("sweep_le", "sweep of the tip", "length"),
    ("dihedral", "dihedral", "angle"),
    ("seat_width", "seat width", "length"),
)


class AirframeCards(CardColumn):
    """The cards beside the board; they show, the page does."""

    def __init__(self, theme: Theme, told: QLabel) -> None:
        self.former = FiguresCard("In hand")
        self.template = FiguresCard("Its template, as measured")
        self.surface = FiguresCard("In hand")
        self.skins = FiguresCard("Skins and longerons")
        self._parts = Card("Wing, tail and marks")
        self._parts_says = label("soft")
        self.put_on = QPushButton("Put wing and tail on")
        self.above = QPushButton("A wing above it")
        self.take_off = QPushButton("Take it off")
        self.mark = QLineEdit()
        self._smooth = Card("Smooth lines")
        self._bump_text = label("answer")
        self._wood = label("soft")
        self.fair = QPushButton("Fair it")
        self.add = QPushButton("Add one behind")
        self.remove = QPushButton("Take it out")
        self.write = QPushButton("Write its template…")
        self.bring = QPushButton("Outline from a drawing…")
        self.name = QLineEdit()
        self.own_marks = QComboBox()
        self.unmark = QPushButton("Take that mark away")
        self.cutouts = QLineEdit()
        self.lightened = QCheckBox("lightening holes")
        self.method = QComboBox()
        super().__init__(
            (
                told,
                self._smooth,
                self.former,
                self.surface,
                self.template,
                self._parts,
                self.skins,
            ),
            theme,
        )
        self._dress()

    def _dress(self) -> None:
        self.fair.setObjectName("primary")
        row = QHBoxLayout()
        row.addWidget(self._bump_text, 1)
        row.addWidget(self.fair)
        self._smooth.column.addLayout(row)
        self.cutouts.setPlaceholderText("battery 40 x 32 at -12; tank 30 x 30 at 0")
        self.cutouts.setAccessibleName("cut-outs")
        for method in METHODS:
            self.method.addItem(METHOD_WORDS[method], method)
        self.name.setAccessibleName("name of the former")
        name_row = QHBoxLayout()
        name_row.addWidget(label("soft", "called", wrap=False))
        name_row.addWidget(self.name, 1)
        cut_row = QHBoxLayout()
        cut_row.addWidget(label("soft", "cut out", wrap=False))
        cut_row.addWidget(self.cutouts, 1)
        column = self.former.column
        column.addLayout(name_row)
        column.addLayout(cut_row)
        column.addWidget(self._wood)
        method_row = QHBoxLayout()
        method_row.addWidget(self.lightened)
        method_row.addStretch(1)
        method_row.addWidget(label("soft", "aft of it", wrap=False))
        method_row.addWidget(self.method)
        column.addLayout(method_row)
        buttons = QHBoxLayout()
        for button in (self.add, self.remove, self.write):
            button.setObjectName("tool")
            buttons.addWidget(button)
        buttons.addStretch(1)
        column.addLayout(buttons)
        self.bring.setObjectName("tool")
        self.template.column.addWidget(self.bring)
        self._dress_parts()

    def _dress_parts(self) -> None:
        row = QHBoxLayout()
        for button in (self.above, self.take_off):
            button.setObjectName("tool")
            row.addWidget(button)
        row.addStretch(1)
        self.surface.column.addLayout(row)
        self.put_on.setObjectName("primary")
        self.mark.setAccessibleName("a mark of your own")
        self.mark.setPlaceholderText("a mark of your own: name, x, y, z")
        for widget in (self._parts_says, self.put_on, self.mark):
            self._parts.column.addWidget(widget)
        self.unmark.setObjectName("tool")
        row = QHBoxLayout()
        row.addWidget(self.own_marks, 1)
        row.addWidget(self.unmark)
        self._parts.column.addLayout(row)

    def show_parts(self, build: "Build", body: str) -> None:
        """Say which parts and marks there are; offer what is missing."""
        survey = build.surveyed
        drawn = {mark.id for mark in marks_from(build)}
        own = [mark for mark in survey.marks if mark.id not in drawn]
        self.own_marks.clear()
        for mark in own:
            self.own_marks.addItem(mark_name(survey, mark.id), mark.id)
        for widget in (self.own_marks, self.unmark):
            widget.setVisible(bool(own))
        names = [body_name(survey, one.id) for one in survey.bodies if one.id != FUSELAGE]
        missing = not build.wings or {"stab", "fin"} - {tail.id for tail in build.tail}
        words = f"{', '.join(names) or 'Only a fuselage yet'}. {len(survey.marks)} marks for truing"
        words += f", {len(own)} of your own." if own else "."
        self._parts_says.setText(sentence_case(words))
        self.put_on.setVisible(bool(missing))
        self.mark.setVisible(bool(names))
        on = body_name(survey, body) if body else "fuselage"
        self.mark.setToolTip(f"It belongs to the {on}. Lengths from the datum: aft, starboard, up.")
        self.above.setVisible(any(wing.id == body for wing in build.wings))

    def show_smooth(self, bumps: tuple[Bump, ...], unit: LengthUnit) -> None:
        """Name the worst bump, or say that there is none."""
        self.fair.setVisible(bool(bumps))
        self._smooth.set_edge("out" if bumps else "")
        if bumps:
            more = f"  ({len(bumps) - 1} more)" if len(bumps) > 1 else ""
            self._bump_text.setText(bump_sentence(bumps[0], unit) + more)
        else:
            self._bump_text.setText("All three lines run fair.")

    def show_stop(self, fuselage: Fuselage, name: str, unit: LengthUnit) -> None:
        """Show the figures of a former or the tail post."""
        stop = dict(fuselage.stops)[name]
        figures = [
            Figure(key, FIGURE_WORDS[key], getattr(stop, key))
            for key in ("station", "half_width", "top", "bottom")
        ]
        said = ""
        if isinstance(stop, Former):
            figures += [
                Figure("thickness", "thickness", stop.thickness),
                Figure("corner", "corner radius", stop.corner),
            ]
            if not self.cutouts.hasFocus():
                self.cutouts.setText(cutouts_text(stop.cutouts, unit))
            self.lightened.setChecked(stop.lightened)
            self._show_method(fuselage, name)
            said = _wood_words(fuselage, stop)
        title = f"Former {stop.id}" if isinstance(stop, Former) else "Tail post"
        self.former.show_figures(title, tuple(figures), unit)
        self._wood.setText(said)
        self._wood.setVisible(bool(said))
        self.former.show()
        if not self.name.hasFocus():
            self.name.setText(name if isinstance(stop, Former) else "")
        for widget in (
            self.name,
            self.cutouts,
            self.lightened,
            self.method,
            self.remove,
            self.write,
            self.add,
        ):
            widget.setEnabled(isinstance(stop, Former))
        self._show_template(stop if isinstance(stop, Former) else None, unit)

    def _show_method(self, fuselage: Fuselage, name: str) -> None:
        names = [one for one, _ in fuselage.stops]
        here = names.index(name)
        for section in fuselage.sections:
            if names.index(section.from_) <= here < names.index(section.to):
                self.method.setCurrentIndex(METHODS.index(section.method))
                return
        self.method.setCurrentIndex(-1)

    def _show_template(self, former: Former | None, unit: LengthUnit) -> None:
        self.template.setVisible(former is not None)
        if former is None:
            return
        from hardkeel.fuselage.cutting import misfit_of  # noqa: PLC0415  polygons load late

        template = former.template
        figures = tuple(
            Figure(key, FIGURE_WORDS[key], getattr(template, key) if template else None)
            for key in ("half_width", "top", "bottom")
        )
        said = "Measure the template of this former, and it is held against the loft."
        if template is not None:
            said = misfit_sentence(misfit_of(former, template), unit)
        self.template.show_figures("", figures, unit, said)

    def show_surface(self, build: "Build", body: str, unit: LengthUnit) -> None:
        """Show the figures of a wing or tail surface; nothing for another body."""
        surfaces: dict[str, Wing | TailSurface] = {wing.id: wing for wing in build.wings}
        surfaces |= {tail.id: tail for tail in build.tail}
        found = surfaces.get(body)
        self.surface.setVisible(found is not None)
        if found is None:
            return
        self.former.hide()  # one thing is in hand at a time
        self.template.hide()
        figures = tuple(
            Figure(key, words, getattr(found, key), kind)  # type: ignore[arg-type]
            for key, words, kind in SURFACE_FIGURES
        )
        self.surface.show_figures(sentence_case(body_name(build.surveyed, found.id)), figures, unit)

    def show_skins(self, fuselage: Fuselage, unit: LengthUnit) -> None:
        """Show skins and longerons."""
        longeron = fuselage.longerons[0] if fuselage.longerons else None
        figures = (
            Figure("side_thickness", "sides", fuselage.side_thickness),
            Figure("top_skin", "top skin", fuselage.top_skin),
            Figure("bottom_skin", "bottom skin", fuselage.bottom_skin),
            Figure("longeron", "longerons", longeron.section[0] if longeron else None),
        )
        self.skins.show_figures("", figures, unit)


def _wood_words(fuselage: Fuselage, former: Former) -> str:
    from hardkeel.fuselage.cutting import shape_of  # noqa: PLC0415  polygons load late

    try:
        shape = shape_of(fuselage, former)
    except BadInput as fault:
        return str(fault)
    count = len(shape.lightening)
    holes = f", {count} lightening hole{'s' if count > 1 else ''}" if count else ""
    caution = caution_sentence(former, shape.cautions)
    return caution or f"{shape.area / 100:.1f} cm² of wood{holes}."
