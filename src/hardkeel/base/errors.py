"""The error tree.  Errors carry data; the interface and the command line choose how to show them."""

from collections.abc import Sequence


class HardKeelError(Exception):
    """Everything that the application raises on purpose."""


class BadInput(HardKeelError):
    """Something given by the builder or a file can't be used.

    Attributes
    ----------
    place : str
        Where, in the file's own terms: ``survey.readings[4].to``.  Empty where there is no place.
    fault : str
        What is wrong, one clause without the place.
    """

    def __init__(self, place: str, fault: str) -> None:
        self.place = one_line(place)
        self.fault = one_line(fault)
        super().__init__(self.sentence)

    @property
    def sentence(self) -> str:
        """The place and the fault in one line."""
        return f"{self.place}: {self.fault}" if self.place else self.fault


class Unusual(BadInput):
    """A figure is possible and far from what is usual: the same again is taken."""


class GivenUp(HardKeelError):
    """Long work was stopped because the builder asked for it."""


class CannotSave(HardKeelError):
    """The disk, or a change made to the file behind our back, does not let us save."""


class WouldLose(CannotSave):
    """A save would drop something that came with the build.

    Attributes
    ----------
    names : tuple of str
        What can't be carried along.
    """

    def __init__(self, file: str, names: Sequence[str]) -> None:
        self.names = tuple(names)
        more = f" and {len(names) - 1} more" if len(names) > 1 else ""
        super().__init__(
            one_line(f"{names[0]}{more} came with {file}, which does not give it any more")
        )


class NotOurs(CannotSave):
    """An export would write over files that are not this build's.

    Attributes
    ----------
    names : tuple of str
        What stands in the way.
    """

    def __init__(self, folder: str, names: Sequence[str]) -> None:
        self.names = tuple(names)
        more = f" and {len(names) - 1} more" if len(names) > 1 else ""
        super().__init__(one_line(f"{names[0]}{more} in {folder} is not of this build's export"))


class FileInUse(HardKeelError):
    """Another window holds this file.

    Attributes
    ----------
    holder : str
        Who holds it, in words.
    """

    def __init__(self, holder: str) -> None:
        self.holder = holder
        super().__init__(f"this build is already open in {holder}")


def one_line(text: str, limit: int = 300) -> str:
    """Fold white space and cut, so that a message stays one line whatever a file had in it."""
    folded = " ".join("".join(c if c.isprintable() else " " for c in text).split())
    return folded if len(folded) <= limit else folded[: limit - 1] + "…"
