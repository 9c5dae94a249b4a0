"""The sheet that goes to the board: every reading of a frame, what it would be if square, a blank to write in."""

from typing import Any, Final

from hardkeel.base.units import LengthUnit
from hardkeel.export.stationery import (
    Flowable,
    KeepTogether,
    Paragraph,
    Styles,
    mm,
    register_fonts,
    ruled_table,
    safe,
    sheet_pdf,
)
from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.fuselage.squaring import square
from hardkeel.fuselage.squaring_next import expected, readings_at_hand
from hardkeel.messages import square as say
from hardkeel.survey.readings import AngleAt, Distance, DistanceDifference, Reading

_MARGIN_MM: Final = 16.0


def reading_form_pdf(
    fuselage: Fuselage, title: str, size: tuple[float, float], unit: LengthUnit
) -> bytes:
    """Former by former, then bay by bay; angles in an opening are left to its diagonals.

    Parameters
    ----------
    size : (float, float)
        Of the paper, mm.

    Raises
    ------
    BadInput
        When the frame has no board to be read from.
    """
    register_fonts()
    styles = Styles()
    true = square(fuselage.but(squaring=Squaring()))
    groups: dict[str, list[Reading]] = {}
    for reading in readings_at_hand(true.formers):
        if not isinstance(reading, AngleAt):
            groups.setdefault(_group(reading), []).append(reading)
    wide = (size[0] - 2 * _MARGIN_MM) * mm
    story: list[Flowable] = [
        Paragraph(safe(title), styles.title),
        Paragraph(safe(say.SHEET_HOW), styles.text),
    ]
    for name, readings in groups.items():
        rows: list[list[Any]] = [list(say.SHEET_HEADS)]
        rows += [
            [
                Paragraph(safe(say.reading_words(one)), styles.small),
                say.value_words(one.but(value=expected(true, one)), unit),
                "",
                "",
            ]
            for one in readings
        ]
        table = ruled_table(rows, [wide - 100 * mm, 28 * mm, 36 * mm, 36 * mm], (1,), whole=True)
        story.append(KeepTogether([Paragraph(safe(name), styles.heading), table]))
    return sheet_pdf(story, size, _MARGIN_MM, f"{title}: {say.SHEET}")


def _group(reading: Reading) -> str:
    """The former that is read, or the bay between two."""
    if isinstance(reading, Distance):
        first, second = (end.rpartition(".")[0] for end in (reading.from_, reading.to))
        return first if first == second else f"{first} to {second}"
    if isinstance(reading, DistanceDifference):
        first, second = (end.rpartition(".")[0] for end in (reading.from_, reading.to[0]))
        return f"{first} to {second}"
    body = getattr(reading, "body", "")
    place = getattr(reading, "mark", "") or getattr(reading, "to", "")
    return body or place.rpartition(".")[0]
