"""The former or tail post in hand: its figures, its wood, how the fuselage is built behind it."""

from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QLineEdit, QPushButton

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_area
from hardkeel.fuselage.contours import (
    area_of,
    girth_of,
    radius_of,
    ring_diameter,
    rises_of,
    widest_of,
)
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.model import METHODS, Former, Fuselage
from hardkeel.fuselage.naming import numbered_anew
from hardkeel.messages import layout as say
from hardkeel.messages.airframe import (
    CUT_OUT_LIKE,
    FIGURE_WORDS,
    METHOD_WORDS,
    caution_sentence,
    cutouts_text,
)
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class FormerCard(FiguresCard):
    """A former's figures and what is done with it; of the tail post, figures alone."""

    def __init__(self) -> None:
        super().__init__(say.IN_HAND)
        self.add = QPushButton(say.ADD_ONE_BEHIND)
        self.remove = QPushButton(say.TAKE_IT_OUT)
        self.write = QPushButton(say.WRITE_ITS_TEMPLATE)
        self.cut_unit: LengthUnit = "mm"  # what a figure without a unit meant when it was typed
        self.name = QLineEdit()
        self.name.setAccessibleName("name of the former")
        self.renumber = QPushButton(say.RENUMBER)
        self.renumber.setObjectName("tool")
        self.cutouts = QLineEdit()
        self.cutouts.setAccessibleName("cut-outs")
        self.lightened = QCheckBox("lightening holes")
        self.shape = QComboBox()
        self.shape.setAccessibleName(say.ITS_SHAPE)
        for key, words in say.SECTION_SHAPES.items():
            self.shape.addItem(words, key)
        self.all_so = QPushButton(say.ALL_FORMERS_SO)
        self.all_so.setObjectName("tool")
        self.method = QComboBox()
        self.method.setAccessibleName("how the fuselage is built aft of it")
        for method in METHODS:
            self.method.addItem(METHOD_WORDS[method], method)
        self._wood = label("soft")
        self._lay_out()

    def _lay_out(self) -> None:
        name_row = QHBoxLayout()
        name_row.addWidget(label("soft", "called", wrap=False))
        name_row.addWidget(self.name, 1)
        name_row.addWidget(self.renumber)
        cut_row = QHBoxLayout()
        cut_row.addWidget(label("soft", "cut out", wrap=False))
        cut_row.addWidget(self.cutouts, 1)
        shape_row = QHBoxLayout()
        shape_row.addWidget(label("soft", say.ITS_SHAPE, wrap=False))
        shape_row.addWidget(self.shape, 1)
        shape_row.addWidget(self.all_so)
        self.column.addLayout(name_row)
        self.column.addLayout(shape_row)
        self.column.addLayout(cut_row)
        self.column.addWidget(self._wood)
        method_row = QHBoxLayout()
        method_row.addWidget(self.lightened)
        method_row.addStretch(1)
        method_row.addWidget(label("soft", "aft of it", wrap=False))
        method_row.addWidget(self.method)
        self.column.addLayout(method_row)
        buttons = QHBoxLayout()
        for button in (self.add, self.remove, self.write):
            button.setObjectName("tool")
            buttons.addWidget(button)
        buttons.addStretch(1)
        self.column.addLayout(buttons)

    def show_stop(self, fuselage: Fuselage, name: str, unit: LengthUnit) -> None:
        """Show the figures of a former or the tail post."""
        stop = dict(fuselage.stations)[name]
        figures = [
            Figure(key, FIGURE_WORDS[key], getattr(stop, key))
            for key in ("station", "half_width", "top", "bottom")
        ]
        said = ""
        if isinstance(stop, Former):
            figures += [Figure("thickness", "thickness", stop.thickness), *_shape_figures(stop)]
            self.shape.setCurrentIndex(self.shape.findData(_shape_of(stop)))
            if not (self.cutouts.hasFocus() and self.cutouts.isModified()):
                self.cut_unit = unit
                self.cutouts.setPlaceholderText(CUT_OUT_LIKE[unit])
                self.cutouts.setText(cutouts_text(stop.cutouts, unit))
            self.lightened.setChecked(stop.lightened)
            self._show_method(fuselage, name)
            said = _wood_words(fuselage, stop, unit)
        title = say.former(stop.id) if isinstance(stop, Former) else say.TAIL_POST
        self.show_figures(title, tuple(figures), unit)
        for key in ("full_top", "full_bottom"):
            if key in self.fields:
                self.fields[key].line.setToolTip(say.FULLNESS_TIP)
        if "ring" in self.fields:
            self.fields["ring"].line.setToolTip(say.RING_TIP)
        self._wood.setText(said)
        self._wood.setVisible(bool(said))
        self.renumber.setVisible(bool(numbered_anew(fuselage)))
        if not self.name.hasFocus():
            self.name.setText(name if isinstance(stop, Former) else "")
        for widget in (
            self.name,
            self.shape,
            self.all_so,
            self.cutouts,
            self.lightened,
            self.method,
            self.remove,
            self.write,
            self.add,
        ):
            widget.setEnabled(isinstance(stop, Former))

    def _show_method(self, fuselage: Fuselage, name: str) -> None:
        names = [one for one, _ in fuselage.stations]
        here = names.index(name)
        for section in fuselage.sections:
            if names.index(section.from_) <= here < names.index(section.to):
                self.method.setCurrentIndex(METHODS.index(section.method))
                return
        self.method.setCurrentIndex(-1)


def _shape_of(former: Former) -> str:
    if former.outline or former.section is None:
        return "drawn" if former.outline else "box"
    return "flat-sides" if former.section.kind == "flat-sides" else "round"


def _shape_figures(former: Former) -> list[Figure]:
    shape = former.section
    if former.outline:
        return []
    if shape is None:
        return [Figure("corner", "corner radius", former.corner)]
    if shape.kind == "flat-sides":
        belly, deck = rises_of(former)
        return [
            Figure("deck", say.DECK_HIGH, deck),
            Figure("deck_radius", say.DECK_RADIUS, radius_of(former.half_width, deck)),
            Figure("belly", say.BELLY_DEEP, belly),
            Figure("belly_radius", say.BELLY_RADIUS, radius_of(former.half_width, belly)),
        ]
    return [
        Figure("widest", say.WIDEST_AT, widest_of(former)),
        Figure("full_top", say.FULL_ABOVE, shape.top, "number"),
        Figure("full_bottom", say.FULL_BELOW, shape.bottom, "number"),
        Figure("ring", say.RING_OF, ring_diameter(former)),
    ]


def _wood_words(fuselage: Fuselage, former: Former, unit: LengthUnit) -> str:
    try:
        shape = shape_of(fuselage, former)
    except BadInput as fault:
        return str(fault)
    holes = say.holes_words(len(shape.lightening))
    caution = caution_sentence(former, shape.cautions)
    loft = say.girth_words(girth_of(former), area_of(former), unit)
    return f"{caution or f'{format_area(shape.area, unit)} of wood{holes}.'} {loft}"
