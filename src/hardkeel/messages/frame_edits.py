"""What undo calls the steps of Frame."""

from typing import Final

SCALLOP: Final = "scallop"
BRACING_EDIT: Final = "bracing"
SHEETING: Final = "sheeting"
PRINTER: Final = "printer"


def wood_of_edit(bent: str) -> str:
    """``wood of …``."""
    return f"wood of {bent}"


def thickness_of_edit(former: str) -> str:
    """``thickness of …``."""
    return f"thickness of {former}"


def sticks_of_edit(former: str) -> str:
    """``sticks of …``."""
    return f"sticks of {former}"


def split_edit(former: str) -> str:
    """``… split``."""
    return f"{former} split"


def deck_of_edit(former: str) -> str:
    """``deck of …``."""
    return f"deck of {former}"


def making_of_edit(former: str) -> str:
    """``making of …``."""
    return f"making of {former}"


def take_member_out_edit(member: str) -> str:
    """``take out …``."""
    return f"take out {member}"


def add_edit(what: str) -> str:
    """``add …``."""
    return f"add {what}"
