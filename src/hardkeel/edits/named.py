"""An edit as a value: what is done to a build, and with which figures.

Every change goes into the document as an `Edit`: it can be told, logged, compared and followed to the function
that does it, which no closure could.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import update_wrapper
from typing import Any, Concatenate, Generic, ParamSpec

from hardkeel.project.model import Build

_P = ParamSpec("_P")


@dataclass(frozen=True, slots=True)
class Edit:
    """A named edit with its figures; called with a build it gives the build after it.

    Attributes
    ----------
    name : str
        Of the function that does it: ``set_station``.
    does : callable
        That function: the build, then the figures.
    figures : tuple
        In their order.
    named : tuple of (str, value)
        Those that are given by name.
    """

    name: str
    does: Callable[..., Build]
    figures: tuple[Any, ...] = ()
    named: tuple[tuple[str, Any], ...] = ()

    def __call__(self, build: Build) -> Build:
        """Do it.

        Raises
        ------
        BadInput
            When it can't be done to this build.
        """
        return self.does(build, *self.figures, **dict(self.named))

    def __str__(self) -> str:
        """``set_station('F4', half_width=40.5)``."""
        given = [repr(one) for one in self.figures]
        given += [f"{name}={value!r}" for name, value in self.named]
        return f"{self.name}({', '.join(given)})"


class NamedEdit(Generic[_P]):
    """A function that edits a build; `of` makes a value of it with its figures."""

    def __init__(self, does: Callable[Concatenate[Build, _P], Build]) -> None:
        self._does = does
        self.name: str = getattr(does, "__name__", "edit")
        update_wrapper(self, does)

    def __call__(self, build: Build, /, *figures: _P.args, **named: _P.kwargs) -> Build:
        """Do it to a build at once."""
        return self._does(build, *figures, **named)

    def of(self, *figures: _P.args, **named: _P.kwargs) -> Edit:
        """The edit with these figures, to be done to whatever build is on the bench."""
        return Edit(self.name, self._does, figures, tuple(named.items()))


def edit(does: Callable[Concatenate[Build, _P], Build]) -> NamedEdit[_P]:
    """Make a named edit of a function whose first argument is the build that it edits."""
    return NamedEdit(does)


@edit
def in_turn(build: Build, *edits: Edit) -> Build:
    """Several edits as one step, each on what the one before left."""
    for one in edits:
        build = one(build)
    return build


@edit
def go_back(_build: Build, older: Build) -> Build:
    """Take up an older state of the same build, whole."""
    return older
