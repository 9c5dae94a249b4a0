"""Edits that no page makes: a test's own, in the document's form."""

from collections.abc import Callable

from hardkeel.edits.named import Edit
from hardkeel.project.model import Build


def by_hand(does: Callable[[Build], Build]) -> Edit:
    """Any change as an edit."""
    return Edit("by hand", does)
