"""Files that the builder gives: read whole, or why not in a sentence."""

from pathlib import Path

from hardkeel.base.errors import BadInput


def bytes_of(path: Path) -> bytes:
    """All of a file.

    Raises
    ------
    BadInput
        Naming it, when it can't be read.
    """
    try:
        return path.read_bytes()
    except OSError as fault:
        raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from None
