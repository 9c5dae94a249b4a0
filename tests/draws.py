"""How many draws a study takes: few, and always the same, in `make test`; many in `make soak`."""

import os
from typing import Final, TypeVar

LONG: Final = os.environ.get("HARDKEEL_DRAWS") == "long"
_T = TypeVar("_T")


def draws(short: _T, long: _T) -> _T:
    """The first in `make test`, the second in `make soak`: both must hold."""
    return long if LONG else short
