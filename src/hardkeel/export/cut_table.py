"""Sticks as a table of the record: how many, how thick and long, the cut at each end, of what."""

from collections.abc import Sequence
from typing import Any

from hardkeel.base.units import LengthUnit, format_length, format_size
from hardkeel.export.stationery import WIDTH, Flowable, Paragraph, Styles, mm, ruled_table, safe
from hardkeel.joinery.cut_part import CutPart
from hardkeel.messages.frame import end_words


def cut_table(parts: Sequence[CutPart], named: str, unit: LengthUnit, styles: Styles) -> Flowable:
    """One line each, both ends in columns of their own; `named` heads the names."""
    rows: list[list[Any]] = [["", named, "Section", "Length", "One end", "Other end", "Wood"]]
    for part in parts:
        ends = [end_words(end) for end in part.ends] if len(part.ends) == 2 else ["", ""]  # noqa: PLR2004  a stick has two
        rows.append(
            [
                str(part.quantity),
                Paragraph(safe(part.name), styles.small),
                format_size(part.section, unit),
                format_length(part.length, unit),
                *ends,
                Paragraph(safe(part.material or ""), styles.small),
            ]
        )
    widths = [8 * mm, WIDTH - 142 * mm, 28 * mm, 24 * mm, 28 * mm, 28 * mm, 26 * mm]
    return ruled_table(rows, widths, (0, 2, 3, 4, 5))
