"""Fuselage shapes to start from: stations and sections in proportion, and how each kind is built."""

from dataclasses import dataclass
from typing import Final

from hardkeel.fuselage.model import (
    TAIL_POST,
    Board,
    Bracing,
    Former,
    Fuselage,
    Longeron,
    Method,
    Section,
    TailPost,
)

_Share = tuple[float, float, float, float]  # of the length; bottom, top, half-width of the depth


@dataclass(frozen=True, slots=True)
class FuselageKind:
    """A kind of fuselage.

    Attributes
    ----------
    shares : tuple
        For each former its station as a share of the length, then bottom, top and half-width as
        shares of the depth at the wing; the tail post last.
    stretches : tuple of (first, last, method)
        Numbers of formers, −1 for the tail post.
    """

    shares: tuple[_Share, ...]
    stretches: tuple[tuple[int, int, Method], ...]
    side_thickness: float = 3.0
    side_material: str = "balsa-medium"
    skin: float = 1.5
    former: tuple[float, str] = (3.0, "light-ply")
    firewall: tuple[float, str] = (6.0, "birch-ply")
    longeron: float = 6.0
    corner: float = 0.0
    bracing: bool = False
    board: bool = False


_SPACERS_MM: Final = 25.0  # of the board under the lowest former: room for the hand that glues
_THINNEST_POST_MM: Final = 2.0  # half-width: a post of 4 mm, the thinnest that takes a hinge
_FULL_HALF: Final = 0.45  # half-width share at which a frame's corner is meant
# Drawn by eye, then faired until no pin stood out from what the others leave by more than a factor of
# 2.2 (three is called a bump): no starter of any size accuses itself.
_SPORT: Final = (
    (0.00, -0.3064, 0.2500, 0.2200),
    (0.10, -0.3945, 0.3950, 0.2780),
    (0.20, -0.4482, 0.4970, 0.3200),
    (0.42, -0.4184, 0.5300, 0.3200),
    (0.60, -0.2826, 0.4500, 0.2500),
    (0.78, -0.1177, 0.3700, 0.1700),
    (0.92, 0.0149, 0.3100, 0.1000),
    (1.00, 0.0829, 0.2800, 0.0500),
)
_SLIM: Final = (
    (0.00, -0.2606, 0.2402, 0.2000),
    (0.12, -0.3400, 0.3800, 0.2550),
    (0.26, -0.3993, 0.4997, 0.3000),
    (0.44, -0.3789, 0.5299, 0.3000),
    (0.56, -0.3114, 0.4901, 0.2700),
    (0.67, -0.2398, 0.4403, 0.2300),
    (0.78, -0.1604, 0.3897, 0.1800),
    (0.89, -0.0688, 0.3302, 0.1200),
    (1.00, 0.0393, 0.2700, 0.0500),
)
_ROUND: Final = (
    (0.00, -0.3040, 0.3004, 0.2817),
    (0.09, -0.3872, 0.4016, 0.3682),
    (0.19, -0.4553, 0.4829, 0.4295),
    (0.31, -0.4808, 0.5300, 0.4506),
    (0.44, -0.4495, 0.5299, 0.4295),
    (0.57, -0.3706, 0.4900, 0.3705),
    (0.70, -0.2602, 0.4300, 0.2897),
    (0.82, -0.1397, 0.3700, 0.2004),
    (0.92, -0.0303, 0.3200, 0.1195),
    (1.00, 0.0595, 0.2800, 0.0504),
)
SHEET_BOX: Final = FuselageKind(_SPORT, ((0, 3, "sheet-sides"), (3, -1, "stick-sides")))
STICK: Final = FuselageKind(
    _SLIM,
    ((0, 1, "sheet-sides"), (1, -1, "stick-sides")),
    side_thickness=1.5,
    skin=0.0,
    former=(2.0, "balsa-hard"),
    firewall=(4.0, "birch-ply"),
    longeron=5.0,
    bracing=True,
)
CRUTCH: Final = FuselageKind(
    _ROUND, ((0, -1, "crutch"),), side_thickness=2.0, skin=2.0, longeron=8.0, corner=0.30
)
ON_BOARD: Final = FuselageKind(
    _ROUND, ((0, -1, "board"),), side_thickness=1.5, longeron=3.0, corner=0.42, board=True
)


def fuselage_from(kind: FuselageKind, nose: float, length: float, depth: float) -> Fuselage:
    """A fuselage of this kind from the nose's station aft, mm."""
    formers = tuple(_former(kind, i, nose, length, depth) for i in range(len(kind.shares) - 1))
    share, low, high, half = kind.shares[-1]
    post = TailPost(
        station=round(nose + share * length, 1),
        bottom=round(low * depth, 1),
        top=round(high * depth, 1),
        half_width=round(max(half * depth, _THINNEST_POST_MM), 1),
    )

    def name(i: int) -> str:
        return TAIL_POST if i < 0 else formers[i].id

    sections = tuple(
        Section(from_=name(a), to=name(b), method=method) for a, b, method in kind.stretches
    )
    side = kind.longeron
    longerons = tuple(
        Longeron(id=place, section=(side, side), material="spruce") for place in ("upper", "lower")
    )
    more: dict[str, object] = {}
    if kind.bracing:
        stick = (side - 1, side - 1)
        more["bracing"] = Bracing(upright=stick, diagonal=stick, pattern="zigzag")
    if kind.board:
        lowest = min(former.bottom for former in formers)
        more["board"] = Board(z=round(lowest - _SPACERS_MM, 1), inverted=False)
    return Fuselage(
        side_thickness=kind.side_thickness,
        side_material=kind.side_material,
        bottom_skin=kind.skin,
        top_skin=kind.skin,
        formers=formers,
        tail_post=post,
        sections=sections,
        longerons=longerons,
        **more,  # type: ignore[arg-type]
    )


def _former(kind: FuselageKind, i: int, nose: float, length: float, depth: float) -> Former:
    share, low, high, half = kind.shares[i]
    thickness, material = kind.firewall if i == 0 else kind.former
    made = Former(
        id=f"F{i + 1}",
        station=round(nose + share * length, 1),
        bottom=round(low * depth, 1),
        top=round(high * depth, 1),
        half_width=round(half * depth, 1),
        thickness=thickness,
        material=material,
    )
    if not kind.corner:
        return made
    return made.but(corner=round(kind.corner * depth * half / _FULL_HALF, 1))
