"""A library that is heavy to read, read when something of it is first asked for.

Start-up is felt, and most of what is heavy is wanted once in an evening.  A name made by `late` stands
at the head of a file like any import; the type checker and the linter of layers see the plain import::

    if TYPE_CHECKING:
        import shapely
    else:
        shapely = late("shapely")
"""

from importlib import import_module
from typing import Any


class _Late:
    """Stands for a module until it is wanted."""

    def __init__(self, name: str) -> None:
        self._name = name

    def __getattr__(self, wanted: str) -> Any:
        found = getattr(import_module(self._name), wanted)
        self.__dict__[wanted] = found  # asked for once, then at hand
        return found


def late(name: str) -> Any:
    """The module of this name, not read yet.

    Raises
    ------
    ImportError, AttributeError
        When something of it is asked for and it, or the thing, is not there.
    """
    return _Late(name)
