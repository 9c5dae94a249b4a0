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
class Frame:
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


_FULL_HALF: Final = 0.45  # half-width share at which a frame's corner is meant
_SPORT: Final = (
    (0.0, -0.30, 0.25, 0.22),
    (0.10, -0.40, 0.395, 0.278),
    (0.20, -0.45, 0.497, 0.32),
    (0.42, -0.42, 0.53, 0.32),
    (0.60, -0.28, 0.45, 0.25),
    (0.78, -0.12, 0.37, 0.17),
    (0.92, 0.02, 0.31, 0.10),
    (1.0, 0.08, 0.28, 0.05),
)
_SLIM: Final = (
    (0.0, -0.26, 0.24, 0.20),
    (0.12, -0.34, 0.38, 0.255),
    (0.26, -0.40, 0.50, 0.30),
    (0.44, -0.38, 0.53, 0.30),
    (0.56, -0.31, 0.49, 0.27),
    (0.67, -0.24, 0.44, 0.23),
    (0.78, -0.16, 0.39, 0.18),
    (0.89, -0.07, 0.33, 0.12),
    (1.0, 0.04, 0.27, 0.05),
)
_ROUND: Final = (
    (0.0, -0.30, 0.30, 0.28),
    (0.09, -0.388, 0.402, 0.37),
    (0.19, -0.46, 0.483, 0.43),
    (0.31, -0.48, 0.53, 0.45),
    (0.44, -0.45, 0.53, 0.43),
    (0.57, -0.37, 0.49, 0.37),
    (0.70, -0.26, 0.43, 0.29),
    (0.82, -0.14, 0.37, 0.20),
    (0.92, -0.03, 0.32, 0.12),
    (1.0, 0.06, 0.28, 0.05),
)
SHEET_BOX: Final = Frame(_SPORT, ((0, 3, "sheet-sides"), (3, -1, "stick-sides")))
STICK: Final = Frame(
    _SLIM,
    ((0, 1, "sheet-sides"), (1, -1, "stick-sides")),
    side_thickness=1.5,
    skin=0.0,
    former=(2.0, "balsa-hard"),
    firewall=(4.0, "birch-ply"),
    longeron=5.0,
    bracing=True,
)
CRUTCH: Final = Frame(
    _ROUND, ((0, -1, "crutch"),), side_thickness=2.0, skin=2.0, longeron=8.0, corner=0.30
)
ON_BOARD: Final = Frame(
    _ROUND, ((0, -1, "board"),), side_thickness=1.5, longeron=3.0, corner=0.42, board=True
)


def fuselage_from(frame: Frame, nose: float, length: float, depth: float) -> Fuselage:
    """A fuselage of this kind from the nose's station aft, mm."""
    formers = tuple(_former(frame, i, nose, length, depth) for i in range(len(frame.shares) - 1))
    share, low, high, half = frame.shares[-1]
    post = TailPost(
        station=round(nose + share * length, 1),
        bottom=round(low * depth, 1),
        top=round(high * depth, 1),
        half_width=round(max(half * depth, 2.0), 1),
    )

    def name(i: int) -> str:
        return TAIL_POST if i < 0 else formers[i].id

    sections = tuple(
        Section(from_=name(a), to=name(b), method=method) for a, b, method in frame.stretches
    )
    side = frame.longeron
    longerons = tuple(
        Longeron(id=place, section=(side, side), material="spruce") for place in ("upper", "lower")
    )
    more: dict[str, object] = {}
    if frame.bracing:
        stick = (side - 1, side - 1)
        more["bracing"] = Bracing(upright=stick, diagonal=stick, pattern="zigzag")
    if frame.board:
        lowest = min(former.bottom for former in formers)
        more["board"] = Board(z=round(lowest - 25.0, 1), inverted=False)
    return Fuselage(
        side_thickness=frame.side_thickness,
        side_material=frame.side_material,
        bottom_skin=frame.skin,
        top_skin=frame.skin,
        formers=formers,
        tail_post=post,
        sections=sections,
        longerons=longerons,
        **more,  # type: ignore[arg-type]
    )


def _former(frame: Frame, i: int, nose: float, length: float, depth: float) -> Former:
    share, low, high, half = frame.shares[i]
    thickness, material = frame.firewall if i == 0 else frame.former
    made = Former(
        id=f"F{i + 1}",
        station=round(nose + share * length, 1),
        bottom=round(low * depth, 1),
        top=round(high * depth, 1),
        half_width=round(half * depth, 1),
        thickness=thickness,
        material=material,
    )
    if not frame.corner:
        return made
    return made.but(corner=round(frame.corner * depth * half / _FULL_HALF, 1))  # type: ignore[no-any-return]
