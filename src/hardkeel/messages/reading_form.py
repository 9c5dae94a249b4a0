"""The rigging sheet: what stands on the paper, and what is said while it is typed in."""

from typing import Final

from hardkeel.messages.safety import LASER_CAUTION

TITLE: Final = "rigging sheet"
UNNAMED: Final = "Unnamed build"
HOW: Final = (
    "Strings and gauges carry their number in the drawing. Read from the top to the bottom, write what you see and not "
    "what you hope for; a second column is there for a second look. On True, “type the sheet in” asks in this order."
)
NOTHING_TO_READ: Final = (
    "There is nothing to read yet: describe the model and say which tools you have."
)
HEADS: Final = ("no.", "where", "with", "if true", "read", "again")
CAUTION: Final = f"Glue fumes and blades: window open, gloves on. Laser: {LASER_CAUTION.lower()}"
SHEET: Final = "sheet"
SHEET_TIP: Final = "The rigging sheet: to print, and to type in afterwards"
WRITE: Final = "Write the rigging sheet…"
TYPE_IN: Final = "Type the sheet in"
WHERE: Final = "Where shall the sheet go?"
FILES: Final = "PDF (*.pdf)"


def written(name: object) -> str:
    """``The sheet is in ….``."""
    return f"The sheet is in {name}."


def not_written(fault: object) -> str:
    """``No sheet: ….``."""
    return f"No sheet: {fault}."


def number_words(number: str, count: int) -> str:
    """``Sheet, 7 of 30``."""
    return f"Sheet, {number} of {count}"
