"""Readings as rows of a list: the name that cards and paper call them by, what was held, its value, how far it is off, a note."""

from dataclasses import dataclass
from enum import IntEnum
from typing import Final, Literal

from hardkeel.messages import true as say
from hardkeel.ui.widgets.cells import Column, Row

State = Literal["fits", "doubtful", "ignored", "wanted"]


class ReadingColumn(IntEnum):
    """Columns of the list of readings, in order."""

    NAME = 0
    WHAT = 1
    VALUE = 2
    OFF = 3
    NOTE = 4


READING_COLUMNS: Final = (
    Column(""),
    Column(say.READING),
    Column(say.VALUE, right=True, typed=True),
    Column(say.OFF, right=True),
    Column(""),
)


@dataclass(frozen=True, slots=True)
class ReadingRow:
    """A reading in the list, in the builder's units.

    Attributes
    ----------
    id : str
        Of the reading, or of the plan's entry for one not yet taken.
    state : str
        ``fits``, ``doubtful`` (set aside), ``ignored`` or ``wanted`` (not yet taken).
    """

    id: str
    what: str
    value: str
    residual: str
    note: str
    state: State


def reading_cells(rows: tuple[ReadingRow, ...]) -> tuple[Row, ...]:
    """The list of readings as a table shows it."""
    return tuple(_cells(row) for row in rows)


def _cells(row: ReadingRow) -> Row:
    doubtful, taken = row.state == "doubtful", row.state != "wanted"
    aside = {int(ReadingColumn.NAME): "soft", int(ReadingColumn.NOTE): "soft"}
    return Row(
        key=row.id,
        cells=(row.id if taken else "·", row.what, row.value, row.residual, row.note),
        colour="out" if doubtful else "ink" if row.state == "fits" else "soft",
        tip=f"{row.id}: {row.what}  {row.note}".strip(),
        weight=600 if doubtful else 400,
        struck=row.state == "ignored",
        typed=taken,
        cell_colours={} if doubtful else aside,
    )
