"""A tail's figures as the command prints them: ribs, sticks and hinges, plain and unrounded."""

from typing import Any

from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.tail.controls import HingeStation, hinge_places, hinge_stations
from hardkeel.tail.grillage import Choice
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import cut_list_of_tail
from hardkeel.tail.ribs import CutRib, cut_ribs
from hardkeel.tail.stacking import stack_of, trimmed_of


def ribs_json(surface: TailSurface, profiles: Profiles, place: str) -> list[dict[str, Any]]:
    """Each rib with its true outline and what is cut.

    Raises
    ------
    BadInput
        When a figure or a section is missing, naming the place.
    """
    return [_rib_json(surface, rib) for rib in cut_ribs(surface, profiles, place)]


def _rib_json(surface: TailSurface, rib: CutRib) -> dict[str, Any]:
    lofted = rib.lofted
    parts = (*rib.fixed, *rib.moving)
    return {
        "surface": surface.id,
        "y": lofted.y,
        "chord": lofted.chord,
        "le_x": lofted.le_x,
        "max_thickness": lofted.thickness,
        "outline": [list(point) for point in lofted.outline],
        "template": [list(point) for point in parts[0]] if parts else [],
        "parts": [
            {"moving": i >= len(rib.fixed), "outline": [list(point) for point in ring]}
            for i, ring in enumerate(parts)
        ],
        "holes": [[list(point) for point in hole] for hole in rib.holes],
        "notches": [
            {
                "spar": notch.spar,
                "face": notch.face,
                "x": list(notch.x),
                "floor": notch.floor,
                "depth": notch.depth,
            }
            for notch in rib.notches
        ],
        "half": rib.half,
    }


def sticks_json(surface: TailSurface, profiles: Profiles) -> list[dict[str, Any]]:
    """Each line of the cut list, as `frame` prints its own.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    return [stick_json(surface, part) for part in cut_list_of_tail(surface, profiles)]


def stick_json(surface: TailSurface, part: CutPart) -> dict[str, Any]:
    """One line; a pointed end gives both its angles, a stick that is trimmed in place none."""
    ends = [list(end) if len(end) > 1 else end[0] if end else None for end in part.ends]
    a, b = ends if len(ends) == 2 else (None, None)  # noqa: PLR2004  two ends
    return {
        "surface": surface.id,
        "part": part.name,
        "kind": part.kind,
        "quantity": part.quantity,
        "section": list(part.section),
        "length": part.length,
        "angle_a": a,
        "angle_b": b,
        "material": part.material,
        "outline": [list(point) for point in part.outline],
    }


def hinges_json(surface: TailSurface, profiles: Profiles) -> list[dict[str, Any]]:
    """The hinge line at both ends and in the middle of what moves.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    stations = hinge_stations(surface, profiles)
    places = list(hinge_places(surface))
    return [_hinge_json(surface, one, places) for one in stations]


def _hinge_json(surface: TailSurface, one: HingeStation, places: list[float]) -> dict[str, Any]:
    return {
        "surface": surface.id,
        "y": one.y,
        "x": one.x,
        "thickness": one.thickness[0],
        "moving_thickness": one.thickness[1],
        "chord": one.chord,
        "bevel_up": one.bevel_up,
        "bevel_down": one.bevel_down,
        "edge_up": one.edge_up,
        "edge_down": one.edge_down,
        "taper": one.taper,
        "hinges_at": places,
    }


def by_hand_json(surface: TailSurface, profiles: Profiles) -> dict[str, Any]:
    """For those who stack and sand, and for those who trim in place.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    stack = stack_of(surface, profiles)
    return {
        "surface": surface.id,
        "blanks": stack.blanks,
        "blank": list(stack.size),
        "proud": [{"y": one.y, "excess": one.excess, "at": list(one.at)} for one in stack.ribs],
        "trimmed": [
            {
                "y": one.y,
                "trim": one.trim,
                "notches": dict(one.notches),
                "sanding": one.sanding,
                "lacking": one.lacking,
            }
            for one in trimmed_of(surface, profiles)
        ],
    }


def choice_json(choice: Choice) -> dict[str, Any]:
    """One bracing with its mass and its give."""
    return {
        "pattern": choice.pattern,
        "material": choice.material,
        "mass": choice.mass,
        "give": choice.twist.give,
        "degrees": choice.twist.degrees,
    }


def piece_json(piece: FlatPiece) -> dict[str, Any]:
    """A flat piece."""
    return {
        "name": piece.name,
        "kind": piece.kind,
        "part": piece.part,
        "material": piece.material,
        "thickness": piece.thickness,
        "quantity": piece.quantity,
        "pair": piece.pair,
        "outline": [list(point) for point in piece.outline],
        "holes": [[list(point) for point in hole] for hole in piece.holes],
    }
