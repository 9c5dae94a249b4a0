"""What stands on templates: names, tiles, check bars."""

from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, format_length

if TYPE_CHECKING:
    from hardkeel.joinery.flat import FlatPiece  # polygons load late

MEASURES_100: Final = "100 mm on the print, or it was scaled"
SOLID_CUTS: Final = "Solid: cut. Dashed: mark. Chain: centre line."
FULL_SIZE: Final = "full size, to build over"
CAUTION: Final = "Models only. Blade away from the other hand."


def piece_words(piece: "FlatPiece", unit: LengthUnit) -> str:
    """``F3, light-ply 3 mm``."""
    wood = " ".join(
        one
        for one in (
            piece.material or "",
            format_length(piece.thickness, unit) if piece.thickness else "",
        )
        if one
    )
    return ", ".join(one for one in (piece.name.replace("_", " "), wood) if one)


def other_hand(name: str) -> str:
    """The mirrored one of a pair."""
    return f"{name}, other hand"


def page_of_pieces(number: int) -> str:
    """A page with several pieces."""
    return f"pieces, page {number}"


def tile_words(number: int, count: int) -> str:
    """Which page of a drawing."""
    return f"page {number} of {count}; crosses of neighbours lie over each other"


def corrected(x: float, y: float) -> str:
    """That the printer is made up for."""
    return f"drawn for this printer: across the page by {1 / x:.4f}, along it by {1 / y:.4f}"
