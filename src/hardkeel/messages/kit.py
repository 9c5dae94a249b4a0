"""What the things say that several stages share."""

from typing import Final

# fields
TYPE_WHAT_YOU_READ: Final = "Type what you read."

# three view
THREE_VIEWS: Final = "Drawing of the model from above, from behind and from port"

# vial
FOLD_UP: Final = "Fold these checks up"


def unfold(name: object) -> str:
    """``Show the checks of …``."""
    return f"Show the checks of {name}"
