"""What stands on the page of coded labels, and what is told of those found on a plan."""

from typing import Final

from hardkeel.base.units import shortest

TITLE: Final = "Labels for a photographed plan"
HOW_TO_LAY_THEM: Final = (
    "Print at full size, cut along the hairlines, lay four to six of them flat on the plan: at its corners and between.",
    "Photograph all of them at once, from as straight above as you can; then the picture is to scale by itself.",
)
BAR: Final = "This bar is 100 mm on the print, or the labels are of another size, too."
PRINT_LABELS: Final = "Labels to print…"
FIND_LABELS: Final = "Find its labels"
LOOKING: Final = "Looking for labels…"
LABELS_FILE: Final = "labels-for-plans.pdf"
PDF_FILES: Final = "PDF (*.pdf)"


def written(name: str) -> str:
    """``labels.pdf is written: print it at full size.``."""
    return f"{name} is written: print it at full size."


def label_words(code: int, side: float) -> str:
    """``no. 90, 25 mm``."""
    return f"no. {code}, {shortest(side)} mm"


def labels_told(count: int) -> str:
    """What was found on a picture."""
    if count == 0:
        return "No label is seen: are they flat, whole and not in glare?"
    if count < 3:  # noqa: PLR2004  for a perspective
        return f"{count} of the labels seen: three at least, well apart, tell how the camera stood."
    return (
        f"{count} labels found: the picture is to scale by them. "
        "Click a length along the datum line, too: it tells how the sheet is turned."
    )


# -- steps as undo names them -----------------------------------------------------------------------

NOTE_ITS_LABELS: Final = "note its labels"
