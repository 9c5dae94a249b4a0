"""What framing a fuselage needs to know of the rest of the build, and what it is usually framed of."""

from collections.abc import Iterator
from functools import lru_cache
from typing import Final

from hardkeel.airframe.parts import woods_of
from hardkeel.balance.model import Wing
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.bending import Limits
from hardkeel.fuselage.flexing import Moduli
from hardkeel.fuselage.model import Former, Framing, Fuselage, Member, Section
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.fuselage.sheeted import Side, blanks_of, seat_mark
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, Mark
from hardkeel.project.model import Build

SAME_LENGTH_MM: Final = 0.2  # a sanding stroke: a stick within it fits
_DOUBLER_MM: Final = 1.5
_DOUBLER_SHORT: Final = (
    0.2  # of its stretch: it stops short of the next former, so that the side bends there
)
_KEY_SHARE: Final = 0.35  # of the firewall's height
_STRIP_MM: Final = 6.0
_STRIP_GAP_MM: Final = 0.5
_CRUTCH_MM: Final = (8.0, 6.0)  # a rail as wide as a thumb, as thick as a sheet of it is sold
_KEEL_MM: Final = (12.0, 3.0)
_STRINGERS: Final = (0.0, 45.0, 90.0, 135.0)
_BETWEEN_LONGERONS: Final = (0.0, 90.0)
_STRINGER_MM: Final = (3.0, 3.0)
_WIRE_MM: Final = 2.0
_WIRE_OUT: Final = 0.5  # of the narrowest former's half-width
_WIRE_NEEDS_MM: Final = 12.0  # of half-width, for a hole with wood around it
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


def _seats(fuselage: Fuselage, wings: tuple[Wing, ...]) -> list[Mark]:
    side = Side(fuselage)
    marks = (seat_mark(side, w.le_x, w.root_chord, w.z, w.incidence) for w in wings)
    return [mark for mark in marks if mark is not None and _on_side(side, mark)]


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
        if section.method == "sheet-sides":
            members += _of_sheet(fuselage, section, {one.id for one in members})
        elif section.method == "crutch":
            members.append(_crutch(fuselage, section))
        elif section.method == "board":
            members += _on_board(fuselage, section)
    members += _plates(build, fuselage)
    return fuselage.framed.but(members=tuple(members))


def _running(name: str, within: Section, /, **figures: object) -> Member:
    return Member.model_validate({"id": name, "from": within.from_, "to": within.to, **figures})


def _crutch(fuselage: Fuselage, section: Section) -> Member:
    """On the datum line, as far aft as the fuselage is around it."""
    wide, thick = _CRUTCH_MM
    stations = dict(fuselage.stations)
    names = list(stations)
    inside = [
        name
        for name in names[names.index(section.from_) : names.index(section.to) + 1]
        if stations[name].bottom + fuselage.bottom_skin < -thick / 2
        and stations[name].top - fuselage.top_skin > thick / 2
    ]
    last = inside[-1] if len(inside) > 1 else section.to
    return _running(
        "crutch",
        section.but(to=last),
        kind="crutch",
        width=wide,
        thickness=thick,
        material="balsa-hard",
    )


def _free(name: str, taken: set[str]) -> str:
    """A name, with a number where it is taken."""
    number = 2
    free = name
    while free in taken:
        free, number = f"{name} {number}", number + 1
    return free


def _of_sheet(fuselage: Fuselage, section: Section, taken: set[str]) -> Iterator[Member]:
    stations = dict(fuselage.stations)
    length = stations[section.to].station - stations[section.from_].station
    depth = max((one.section[1] for one in fuselage.longerons), default=0.0)
    yield _running(
        _free("doubler", taken),
        section,
        kind="doubler",
        thickness=_DOUBLER_MM,
        inset=depth,
        short=round(_DOUBLER_SHORT * length, 1),
        material="light-ply",
    )
    first = fuselage.stations[0][1]
    if isinstance(first, Former) and section.from_ == first.id:
        tall = first.top - first.bottom
        yield Member.model_validate(
            {
                "id": "firewall key",
                "kind": "key",
                "from": first.id,
                "height": round(_KEY_SHARE * tall),
            }
        )
    if not fuselage.longerons:
        yield _running(
            _free("corner strip", taken),
            section,
            kind="corner-strip",
            section=(_STRIP_MM, _STRIP_MM),
            triangular=True,
            gap=_STRIP_GAP_MM,
            material="balsa-medium",
        )


def _on_board(fuselage: Fuselage, section: Section) -> Iterator[Member]:
    tall, thick = _KEEL_MM
    last = fuselage.formers[-1].id if section.to == "tail_post" else section.to
    reach = section.but(to=last)
    yield _running("keel", reach, kind="keel", height=tall, thickness=thick, material="light-ply")
    angles = _BETWEEN_LONGERONS if fuselage.longerons else _STRINGERS
    for number, angle in enumerate(angles, start=1):
        yield _running(
            f"stringer {number}",
            reach,
            kind="stringer",
            section=_STRINGER_MM,
            angle=angle,
            material="spruce",
        )
    inside = [
        f for f in fuselage.formers if f.half_width - fuselage.side_thickness >= _WIRE_NEEDS_MM
    ]
    narrow = min((f.half_width - fuselage.side_thickness for f in inside), default=0.0)
    low = max(f.bottom for f in inside) if inside else 0.0
    high = min(f.top for f in inside) if inside else 0.0
    if high > low:
        yield _running(
            "wire",
            reach.but(to=inside[-1].id),
            kind="wire",
            y=round(_WIRE_OUT * narrow, 1),
            z=round((low + high) / 2, 1),
            diameter=_WIRE_MM,
            material="steel-wire",
        )


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
