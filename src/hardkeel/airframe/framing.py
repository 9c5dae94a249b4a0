"""What framing a fuselage needs to know of the rest of the build, and what it is usually framed of."""

from collections.abc import Iterator
from functools import lru_cache
from typing import Final

from hardkeel.airframe.parts import woods_of
from hardkeel.balance.model import Wing
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.bending import Limits
from hardkeel.fuselage.flexing import Moduli
from hardkeel.fuselage.methods import method_named
from hardkeel.fuselage.methods.method import free_name
from hardkeel.fuselage.model import Framing, Fuselage, Member
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.fuselage.sheeted import Side, blanks_of, seat_mark
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, Mark
from hardkeel.project.model import Build

SAME_LENGTH_MM: Final = 0.2  # a sanding stroke: a stick within it fits
_UNDERCARRIAGE_MM: Final = 3.0
_TRAY_MM: Final = 2.0
_TRAY_DOWN: Final = 0.15  # of the depth below the datum: a servo stands on it


def limits_of(build: Build) -> Limits:
    """Strain in percent that each wood of the build takes dry, and soaked or steamed."""
    return {wood.id: wood.bend for wood in woods_of(build).values() if wood.bend[0] > 0}


def stiffness_of(build: Build) -> Moduli:
    """Young's modulus along the grain of each wood of the build bent over so many mm, GPa."""
    woods = woods_of(build)
    return lambda material, thick: woods[material].flat(thick) if material in woods else None


def build_pieces(build: Build) -> tuple[FlatPiece, ...]:
    """Every flat piece of the fuselage, with the lines where wings sit on its sides.

    Raises
    ------
    BadInput
        When there is no fuselage to frame, or a former's outline crosses itself.
    """
    if build.fuselage is None:
        raise BadInput("fuselage", "is missing: there is nothing to frame")
    return _pieces(build.fuselage.drawn, build.wings)


@lru_cache(maxsize=16)
def _pieces(fuselage: Fuselage, wings: tuple[Wing, ...]) -> tuple[FlatPiece, ...]:
    return pieces_of(fuselage, _seats(fuselage, wings))


def side_blanks(build: Build) -> tuple[FlatPiece, ...]:
    """The sides alone, with the lines where wings sit.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    fuselage = build.fuselage or Fuselage()
    blanks = blanks_of(fuselage, _seats(fuselage, build.wings))
    return tuple(piece for piece in blanks if piece.kind == "side")


def seat_marks(fuselage: Fuselage, wings: tuple[Wing, ...]) -> list[tuple[Wing, Mark]]:
    """Wings that sit on the sides, each with its line on the side as it lies flat.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    side = Side(fuselage)
    marks = ((w, seat_mark(side, w.le_x, w.root_chord, w.z, w.incidence)) for w in wings)
    return [(wing, mark) for wing, mark in marks if mark is not None and _on_side(side, mark)]


def _seats(fuselage: Fuselage, wings: tuple[Wing, ...]) -> list[Mark]:
    return [mark for _, mark in seat_marks(fuselage, wings)]


def _on_side(side: Side, mark: Mark) -> bool:
    """Whether a wing's chord line crosses the side at all: one over the fuselage stands on a cabane."""
    low = min(stop.bottom for _, stop in side.fuselage.stations)
    high = max(stop.top for _, stop in side.fuselage.stations)
    return all(low - 1 <= z <= high + 1 for _, z in mark.points)


def pieces_cut(build: Build, part: CutPart) -> int:
    """How many sticks of a line are cut to the length that is wanted now."""
    noted = build.listed.cut.get(part.key)
    return noted.pieces if noted is not None and cut_off(build, part) is None else 0


def cut_off(build: Build, part: CutPart) -> float | None:
    """The length a line was cut to, mm, where the drawing wants another since; else ``None``."""
    noted = build.listed.cut.get(part.key)
    if noted is None or abs(noted.length - part.length) <= SAME_LENGTH_MM:
        return None
    return noted.length


def usual_framing(build: Build) -> Framing:
    """Members that such a fuselage usually has, section by section, to be put right by the builder.

    Raises
    ------
    BadInput
        When there is no fuselage to frame.
    """
    fuselage = build.fuselage
    if fuselage is None or not fuselage.formers:
        raise BadInput("fuselage", "is missing: there is nothing to frame")
    members: list[Member] = []
    for section in fuselage.sections:
        taken = frozenset(one.id for one in members)
        for member in method_named(section.method).usual(fuselage, section, taken):
            name = free_name(member.id, {one.id for one in members})  # two crutches are two
            members.append(member.but(id=name))
    members += _plates(build, fuselage)
    return fuselage.framed.but(members=tuple(members))


def _plates(build: Build, fuselage: Fuselage) -> Iterator[Member]:
    """The undercarriage's plate in the bay under the wing's leading edge, the servos' in the next."""
    if not build.wings:
        return
    formers = fuselage.formers
    at = build.wings[0].le_x
    bay = next(
        (i for i in range(len(formers) - 1) if formers[i].station <= at < formers[i + 1].station),
        None,
    )
    if bay is None:
        return
    before, behind = formers[bay], formers[bay + 1]
    foot = max(before.bottom, behind.bottom) + fuselage.bottom_skin
    yield Member.model_validate(
        {
            "id": "undercarriage plate",
            "kind": "undercarriage-plate",
            "from": before.id,
            "to": behind.id,
            "z": round(foot + _UNDERCARRIAGE_MM / 2, 1),
            "thickness": _UNDERCARRIAGE_MM,
            "material": "birch-ply",
        }
    )
    if bay + 2 < len(formers):
        depth = behind.top - behind.bottom
        yield Member.model_validate(
            {
                "id": "servo tray",
                "kind": "servo-tray",
                "from": behind.id,
                "to": formers[bay + 2].id,
                "z": round(-_TRAY_DOWN * depth, 1),
                "thickness": _TRAY_MM,
                "material": "light-ply",
            }
        )
