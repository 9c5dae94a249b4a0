"""Does a stabilizer pass its slot?  A rigid body pushed sideways through an opening in both fuselage sides.

While it is pushed it may be shifted fore and aft and tilted level, but not turned: what the two sides leave of
a shift for the sections that lie in them is the play.  mm, x aft from the root leading edge as it sits.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.tail.model import Controls, TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x

Hinged = Literal["none", "one", "both"]
ALL_HINGED: Final[tuple[Hinged, ...]] = ("none", "one", "both")
_STEPS: Final = 240


@dataclass(frozen=True, slots=True)
class Slot:
    """The opening in each side.

    Attributes
    ----------
    front, rear : float
        Where it begins and ends; `rear` is infinite where it is open behind.
    height : float
    width : float
        Between the outer faces of both sides.
    """

    front: float
    rear: float
    height: float
    width: float


@dataclass(frozen=True, slots=True)
class Passing:
    """One way of pushing it through.

    Attributes
    ----------
    play : float
        The least that is left along the chord, mm; negative where it does not pass.
    over : float
        The least that is left in height, mm.
    at : float
        How far it is pushed in where the least is, from tip first.
    """

    hinged: Hinged
    passes: bool
    play: float
    over: float
    at: float


def passing_of(
    surface: TailSurface, slot: Slot, thickness: Callable[[float], float]
) -> tuple[Passing, ...]:
    """Whether it passes with none, one or both elevators hinged.

    With one, it is pushed through bare half first; without a hinge line all three are the same.

    Parameters
    ----------
    thickness : callable
        Greatest thickness at y, mm.

    Raises
    ------
    BadInput
        When the surface has no outline.
    """
    found = []
    for hinged in ALL_HINGED:
        first = _edges(surface, moving=hinged == "both")
        found.append(_pushed(hinged, first, surface.half, slot, thickness))
    return tuple(found)


def _edges(surface: TailSurface, *, moving: bool) -> Callable[[Array], tuple[Array, Array]]:
    """Front and rear of what is pushed through at y."""
    planform = planform_of(surface)
    controls = surface.controls or Controls()

    def edges(y: Array) -> tuple[Array, Array]:
        front, rear = planform.leading(y), planform.trailing(y)
        if surface.hinge_at_chord is None:
            return front, rear
        hinge = np.array([hinge_x(surface, float(one)) or 0.0 for one in y])
        bare = np.minimum(rear, hinge - controls.gap / 2)
        if not moving:
            return front, bare
        return front, np.where(y >= controls.inner, rear, bare)

    return edges


def _pushed(
    hinged: Hinged,
    edges: Callable[[Array], tuple[Array, Array]],
    half: float,
    slot: Slot,
    thickness: Callable[[float], float],
) -> Passing:
    # how far from the middle the section is that lies in the near side; the far side's is further out
    near = np.linspace(slot.width / 2, half + slot.width, _STEPS)
    play, over, at = np.inf, np.inf, 0.0
    for inner in near:
        places = np.array([y for y in (inner, inner - slot.width) if y <= half])
        places = np.abs(places)
        if not len(places):
            continue
        front, rear = edges(places)
        # shifts s with slot.front <= front + s and rear + s <= slot.rear, for both sides at once
        least, most = float(np.max(slot.front - front)), float(np.min(slot.rear - rear))
        if most - least < play:
            play, at = most - least, half - float(np.max(places))
        over = min(over, slot.height - max(thickness(float(y)) for y in places))
    return Passing(hinged, play >= 0 and over >= 0, float(play), float(over), at)
