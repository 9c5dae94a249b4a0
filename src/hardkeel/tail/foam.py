"""Foam surfaces: cores and their templates, skins with their seams, edge strips, tubes, seal channels.  mm."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.joinery.flat import FlatPiece, Mark, open_ring, ring_of
from hardkeel.tail.lofting import LoftedRib, Profiles, loft_of_tail
from hardkeel.tail.model import Controls, TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x, tube_x
from hardkeel.tail.stick_frame import frame_thickness

SHEET_WIDE_MM: Final = 100.0  # the wider sheet that balsa is sold in
SEAL_MM: Final = (6.0, 0.2)  # width and thickness of a strip of film in the gap
_SEAL_SLACK_MM: Final = 0.2
_OVERHANG_MM: Final = 5.0  # a skin is cut so much larger all round, and trimmed


@dataclass(frozen=True)
class Core:
    """A foam core of one half, cut between two templates.

    Attributes
    ----------
    root, tip : ring
        Templates: the loft less its skin, mm.
    length : float
        Between them.
    """

    root: tuple[Point2, ...]
    tip: tuple[Point2, ...]
    length: float


@dataclass(frozen=True, slots=True)
class SkinPanel:
    """A skin of one half, rolled out.

    Attributes
    ----------
    face : str
        ``top`` or ``bottom``.
    root, tip : float
        Along the surface from the leading to the trailing edge, mm.
    length : float
    seams : tuple of float
        Where sheets are joined, as distances from the trailing edge at the root.
    """

    face: str
    root: float
    tip: float
    length: float
    seams: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class TubeHole:
    """A tube through the fuselage, in the surface's own axes: x aft of the root leading edge, z from its chord line."""

    id: str
    x: float
    z: float
    diameter: float
    length: float
    inside: float


@dataclass(frozen=True, slots=True)
class SealChannel:
    """A channel along the hinge faces for a strip that closes the gap.

    Attributes
    ----------
    width, depth : float
        Of the saw's cut, and how far it goes in on either side of the gap.
    """

    width: float
    depth: float


def core_of(surface: TailSurface, profiles: Profiles) -> Core | None:
    """Templates of a cut core; ``None`` for flat sheet foam.

    Raises
    ------
    BadInput
        When the skin leaves nothing of a core.
    """
    if surface.root_profile is None:
        return None
    loft = loft_of_tail(surface, profiles)
    tip = surface.tip
    end = surface.half - (tip.length if tip is not None else 0.0)
    rings = []
    for y in (0.0, end):
        whole = shapely.Polygon(loft.rib(y).outline)
        left = whole.buffer(0).buffer(-surface.skin, join_style="mitre") if surface.skin else whole
        if left.is_empty:
            raise BadInput(f"tail {surface.id}.skin", f"leaves no foam at {y:g} mm")
        part = max(shapely.get_parts(left), key=lambda one: one.area)
        rings.append(open_ring(part.exterior.coords))
    return Core(rings[0], rings[1], end)


def skins_of(surface: TailSurface, profiles: Profiles) -> tuple[SkinPanel, ...]:
    """Upper and lower skin of one half with their seams; none without a skin.

    Raises
    ------
    BadInput
        When a section is missing.
    """
    if not surface.skin:
        return ()
    planform = planform_of(surface)
    tip = surface.tip
    end = planform.half - (tip.length if tip is not None else 0.0)
    if surface.root_profile is None:
        chords = (float(planform.chord(0.0)), float(planform.chord(end)))
        lengths = {"top": chords, "bottom": chords}
    else:
        loft = loft_of_tail(surface, profiles)
        ribs = (loft.rib(0.0), loft.rib(end))
        lengths = {
            "top": (_along(ribs[0].upper), _along(ribs[1].upper)),
            "bottom": (_along(ribs[0].lower), _along(ribs[1].lower)),
        }
    found = []
    for face, (root, far) in lengths.items():
        need = max(root, far) + 2 * _OVERHANG_MM
        sheets = math.ceil(need / SHEET_WIDE_MM)
        seams = tuple(SHEET_WIDE_MM * i - _OVERHANG_MM for i in range(1, sheets))
        found.append(SkinPanel(face, root, far, end, seams))
    return tuple(found)


def skin_pieces(surface: TailSurface, profiles: Profiles) -> tuple[FlatPiece, ...]:
    """Skins as flat pieces: u along the trailing edge from root to tip, v towards the leading edge."""
    found = []
    for panel in skins_of(surface, profiles):
        o = _OVERHANG_MM
        ring = ring_of(
            [
                (-o, -o),
                (panel.length + o, -o),
                (panel.length + o, panel.tip + o),
                (-o, panel.root + o),
            ]
        )
        marks = tuple(
            Mark("drawn", ((-o, at), (panel.length + o, at)), "seam") for at in panel.seams
        )
        found.append(
            FlatPiece(
                name=f"{surface.id} {panel.face} skin",
                kind="skin",
                part=surface.id,
                outline=ring,
                marks=marks,
                thickness=surface.skin,
                material=surface.skin_material,
                quantity=1 if surface.upright else 2,
                pair=not surface.upright,
                grain="u",
            )
        )
    return tuple(found)


def tube_holes(surface: TailSurface, profiles: Profiles, half_width: float) -> tuple[TubeHole, ...]:
    """Where tubes pass a fuselage side that stands `half_width` from the middle.

    Raises
    ------
    BadInput
        When a section is missing.
    """
    found = []
    for tube in surface.tubes:
        x = tube_x(surface, tube)
        found.append(
            TubeHole(
                tube.id,
                x,
                _middle(surface, profiles, x, min(half_width, surface.half)),
                tube.diameter,
                tube.length,
                tube.length - 2 * half_width,
            )
        )
    return tuple(found)


def _middle(surface: TailSurface, profiles: Profiles, x: float, y: float) -> float:
    """Height of the section's middle line at x aft of the root's leading edge, mm over the chord line."""
    if surface.root_profile is None:
        return 0.0
    rib = loft_of_tail(surface, profiles).rib(y)
    top, low = rib.heights(x - rib.le_x)
    return float(top + low) / 2


def seal_channel(surface: TailSurface, seal: tuple[float, float] = SEAL_MM) -> SealChannel | None:
    """The cut that a sealing strip lies in; ``None`` without a hinge line."""
    if surface.hinge_at_chord is None:
        return None
    gap = (surface.controls or Controls()).gap
    wide, thick = seal
    return SealChannel(thick + _SEAL_SLACK_MM, (wide - gap) / 2 + _SEAL_SLACK_MM)


@dataclass(frozen=True, slots=True)
class FoamStrip:
    """An edge of wood on foam, or a block at the tip: its size, mm."""

    name: str
    length: float
    section: tuple[float, float]


def edge_strips(surface: TailSurface, profiles: Profiles) -> tuple[FoamStrip, ...]:
    """Leading and trailing edge, hinge faces and tip blocks of one half."""
    planform = planform_of(surface)
    tip = surface.tip
    end = planform.half - (tip.length if tip is not None else 0.0)
    found = []

    def length(xs: tuple[float, ...]) -> float:
        return math.hypot(end, xs[1] - xs[0])

    ends = (0.0, end)
    front = tuple(float(planform.leading(y)) for y in ends)
    rear = tuple(float(planform.trailing(y)) for y in ends)
    if surface.leading_edge is not None:
        found.append(FoamStrip("leading edge", length(front), surface.leading_edge))
    if surface.trailing_edge is not None:
        found.append(FoamStrip("trailing edge", length(rear), surface.trailing_edge))
    if surface.hinge_at_chord is not None and surface.hinge_edge is not None:
        hinge = tuple(hinge_x(surface, y) or 0.0 for y in ends)
        thick = _thick(surface, profiles, 0.0)
        faces = ("fixed hinge face", "moving hinge face")
        found += [FoamStrip(one, length(hinge), (surface.hinge_edge, thick)) for one in faces]
    if tip is not None:
        found.append(
            FoamStrip(
                "tip block",
                float(planform.chord(end)),
                (tip.length, _thick(surface, profiles, end)),
            )
        )
    return tuple(found)


def _thick(surface: TailSurface, profiles: Profiles, y: float) -> float:
    if surface.root_profile is None:
        return frame_thickness(surface)
    return loft_of_tail(surface, profiles).rib(y).thickness


def _along(line: Array) -> float:
    return float(np.sum(np.hypot(*np.diff(line, axis=0).T)))


def core_volume(surface: TailSurface, profiles: Profiles) -> float:
    """mm³ of foam of both halves: the mean of the sections times their distance (Simpson's rule)."""
    sides = 1 if surface.upright else 2
    if surface.root_profile is None:
        return planform_of(surface).area * sides / 2 * frame_thickness(surface)
    loft = loft_of_tail(surface, profiles)

    def area(rib: LoftedRib) -> float:
        return float(shapely.Polygon(rib.outline).buffer(-surface.skin).area)

    a, m, b = (area(loft.rib(surface.half * share)) for share in (0.0, 0.5, 0.98))
    return sides * surface.half * (a + 4 * m + b) / 6
