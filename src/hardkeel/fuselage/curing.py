"""What to do about a frame: a whole that is off is cured as a whole, then only formers that are out are moved."""

from dataclasses import dataclass
from typing import Final

from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.fuselage.shaping import Name, Named, Shape, name_frame, parts_of, shape_of_frame
from hardkeel.fuselage.squaring import CHECKED, CORNERS, Squared, square
from hardkeel.survey.checking import verdict_of
from hardkeel.survey.readings import Phase

_UNKNOWN_OF: Final = {kind: unknown for kind, unknown, _ in CHECKED}


@dataclass(frozen=True, slots=True)
class Move:
    """Where a former's corner must go: design place less estimated place, board axes, mm."""

    former: str
    point: str
    dx: float
    dy: float
    dz: float


@dataclass(frozen=True, slots=True)
class Cure:
    """What the whole frame is to be given, former by former.

    Attributes
    ----------
    formers : tuple of (former, {kind: mm or degrees})
        By station: how far each must go, the shape's part with its sign turned.
    """

    name: Name
    formers: tuple[tuple[str, dict[str, float]], ...]

    def of(self, former: str, kind: str) -> float:
        """How far a former must go; 0 where the cure does not touch that."""
        return next((given.get(kind, 0.0) for name, given in self.formers if name == former), 0.0)


@dataclass(frozen=True, slots=True)
class JudgedFrame:
    """A frame with its shape, its name and what to do about it.

    Attributes
    ----------
    cure : Cure, optional
        Of a whole that is twisted, bowed, racked or leaning; it goes before all moves.
    moves : tuple of Move
        Of formers with a figure that is out, after the cure.
    """

    squared: Squared
    shape: Shape
    named: Named
    cure: Cure | None
    moves: tuple[Move, ...]


def judge_frame(
    fuselage: Fuselage, phase: Phase | None = None, *, near: Squared | None = None
) -> JudgedFrame:
    """Adjust the readings, name the frame, and say what to do.

    Raises
    ------
    BadInput
        When the frame has no board, a reading points at nothing, or the figures can't be adjusted.
    """
    squared = square(fuselage, phase, near=near)
    shape = shape_of_frame(squared)
    named = name_frame(squared, fuselage.squaring or Squaring(), shape)
    cure = cure_of(squared, named)
    return JudgedFrame(squared, shape, named, cure, moves_of(squared, cure))


def cure_of(squared: Squared, named: Named) -> Cure | None:
    """The cure of the whole; ``None`` for any name that is no shape."""
    parts = parts_of(squared, named.name)
    if not parts:
        return None
    formers = tuple(
        (name, {kind: -float(values[i]) for kind, values in parts.items()})
        for i, name in enumerate(squared.formers)
    )
    return Cure(named.name, formers)


def moves_of(squared: Squared, cure: Cure | None) -> tuple[Move, ...]:
    """For each former with a figure out by two sigma once the cure is done: its four corners."""
    net, found = squared.net, []
    cured = squared.solution.unknowns.copy()
    out = []
    for name in squared.formers:
        given = {
            check.kind: cure.of(name, check.kind) if cure else 0.0
            for check in squared.checks_on(name)
        }
        for kind, amount in given.items():
            column = net.columns.column(name, _UNKNOWN_OF[kind])
            if column is not None:
                cured[column] += amount
        if any(
            verdict_of(check.value + given[check.kind], check.sigma, check.tolerance) == "out"
            for check in squared.checks_on(name)
        ):
            out.append(name)
    design = {mark.id: mark.at for mark in net.survey.marks}
    corners = [(name, f"{name}.{corner}") for name in out for corner in CORNERS]
    # the wood goes home, wherever its pencil marks sit
    wood = net.placer_of([(name, design[point]) for name, point in corners])
    for (name, point), now in zip(corners, wood.place(cured).airframe, strict=True):
        dx, dy, dz = (float(a - b) for a, b in zip(design[point], now, strict=True))
        found.append(Move(name, point, dx, dy, dz))
    return tuple(found)
