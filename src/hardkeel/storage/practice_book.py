"""What was practised on this machine: a small file in the state folder, not in any build."""

from pathlib import Path
from typing import Final

from pydantic import ValidationError

from hardkeel.base.errors import CannotSave
from hardkeel.practice.progress import Book
from hardkeel.storage.atomic import write_atomically

_NAME: Final = "practised.json"
_MOST: Final = 500  # exercises kept


def read_book(state: Path) -> Book:
    """What the file holds; nothing where it is missing or no book: then practice begins anew and the file is kept aside."""
    path = state / _NAME
    try:
        return Book.model_validate_json(path.read_bytes())
    except OSError:
        return Book()
    except ValidationError:
        try:
            path.replace(path.with_suffix(".unread"))
        except OSError:
            return Book()
        return Book()


def write_book(state: Path, book: Book) -> None:
    """Keep it.

    Raises
    ------
    CannotSave
        When the folder can't be written.
    """
    kept = book.but(done=book.done[-_MOST:])
    try:  # on a machine where nothing was ever edited nobody has made it
        state.mkdir(parents=True, exist_ok=True)
    except OSError as fault:
        raise CannotSave(f"{_NAME} can't be saved: {fault.strerror or fault}") from fault
    write_atomically(state / _NAME, kept.model_dump_json(indent=1).encode(), versions=0)
