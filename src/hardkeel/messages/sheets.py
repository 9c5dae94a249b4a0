"""What stands on templates: names, tiles, check bars."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, decimal, format_length, shortest

if TYPE_CHECKING:
    from hardkeel.joinery.flat import FlatPiece  # polygons load late

MEASURES_100: Final = "100 mm on the print, or it was scaled"
SOLID_CUTS: Final = "Solid: cut. Dashed: mark. Chain: centre line."
GRAIN: Final = "grain"
TOP: Final = "top"
REAR_FACE: Final = "rear face"
FULL_SIZE: Final = "full size, to build over"
CAUTION: Final = "Models only. Blade away from the other hand."


def label_lines(
    names: Sequence[str], piece: "FlatPiece", counts: tuple[int, int], unit: LengthUnit
) -> list[str]:
    """What is written on a template: its name, its wood, how many, which face.

    Parameters
    ----------
    counts : (int, int)
        As drawn, and turned over.
    """
    thick = format_length(piece.thickness, unit) if piece.thickness else ""
    wood = " ".join(one for one in ((piece.material or "").replace("-", " "), thick) if one)
    lines = [names_words([name.replace("_", " ") for name in names])]
    if wood:
        lines.append(wood)
    drawn, over = counts
    if over:
        lines.append(f"cut {drawn + over}, {over} of them turned over")
    elif drawn > 1:
        lines.append(f"cut {drawn}")
    if piece.kind == "former":
        lines.append(REAR_FACE)
    return lines


def names_words(names: Sequence[str]) -> str:
    """``gusset 1 to 4, 7``; what has no numbers is named one by one."""
    if len(names) == 1:
        return names[0]
    heads = {name.rpartition(" ")[0] for name in names}
    numbers = [name.rpartition(" ")[2] for name in names]
    if len(heads) > 1 or not all(one.isdigit() for one in numbers):
        return ", ".join(names)
    runs: list[list[int]] = []
    for number in sorted(map(int, numbers)):
        if runs and number == runs[-1][-1] + 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    told = [f"{run[0]} to {run[-1]}" if len(run) > 2 else ", ".join(map(str, run)) for run in runs]  # noqa: PLR2004
    return f"{heads.pop()} {', '.join(told)}"


def cutter_note(kerf: float, tag: float) -> str:
    """What a cutter's file says of itself."""
    grown = f"kerf {shortest(kerf)} mm is in the outlines and holes" if kerf else "no kerf is in it"
    held = f"tags of {shortest(tag)} mm are left" if tag else "no tags"
    return f"millimetres, 1:1; {grown}; {held}; layers CUT, HOLES, SCORE (half through, where a side is bent), MARKS, CENTRE, TEXT; what lies inside is cut first"


def page_of_pieces(number: int) -> str:
    """A sheet with several pieces; a long one takes several pages."""
    return f"Pieces, sheet {number}"


def tile_words(number: int, count: int) -> str:
    """Which page of a drawing."""
    return f"page {number} of {count}; crosses of neighbours lie over each other"


def corrected(x: float, y: float) -> str:
    """That the printer is made up for."""
    return f"drawn for this printer: across the page by {decimal(1 / x, 4)}, along it by {decimal(1 / y, 4)}"
