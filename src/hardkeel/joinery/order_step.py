"""A step of building as the trade knows it, before it is planned."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any


@dataclass(frozen=True, slots=True)
class OrderStep:
    """One step of the order in which something is built.

    Attributes
    ----------
    name : str
        Its own among the steps of what is built; its words follow from `key`, or from this without one.
    after : tuple of str
        Names of those before it, as far as there are such.
    panel : bool
        Whether the whole surface is what is worked on.
    looks : bool
        Something must be seen or read before it.
    about, parts : tuple of str
        What its words name; parts of the ledger that it glues in.
    figures : mapping
        The rest, as `schedule.model.Step` has it.
    """

    name: str
    after: tuple[str, ...] = ()
    panel: bool = False
    looks: bool = False
    figures: Mapping[str, Any] = field(default_factory=dict)
    key: str = ""
    about: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
