"""The template of a former as it was cut, held against the loft."""

from PyQt6.QtWidgets import QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.cutting import misfit_of
from hardkeel.fuselage.model import Former
from hardkeel.messages import layout as say
from hardkeel.messages.airframe import FIGURE_WORDS, misfit_sentence
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class TemplateCard(FiguresCard):
    """Three measures of a template, and what they say of it."""

    def __init__(self) -> None:
        super().__init__(say.ITS_TEMPLATE_AS_MEASURED)
        self.bring = QPushButton(say.BRING_AN_OUTLINE)
        self.bring.setObjectName("tool")
        self.column.addWidget(self.bring)

    def show_template(self, former: Former | None, unit: LengthUnit) -> None:
        """Show the template of a former; nothing for what has none."""
        self.setVisible(former is not None)
        if former is None:
            return
        template = former.template
        figures = tuple(
            Figure(key, FIGURE_WORDS[key], getattr(template, key) if template else None)
            for key in ("half_width", "top", "bottom")
        )
        said = say.MEASURE_ITS_TEMPLATE
        if template is not None:
            said = misfit_sentence(misfit_of(former, template), unit)
        self.show_figures("", figures, unit, said)
