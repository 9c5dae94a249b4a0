"""The true shape of a ribbed surface at any place: root and tip section mixed in millimetres.

z = (1−η)·c_root·z_root(f) + η·c_tip·z_tip(f) at equal shares f of the chord, η = y / (half span); where a
tip is curved the mix shrinks with its chord.  A rib's plane: x aft from its own leading edge, z up, mm.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.tail.model import TailSurface
from hardkeel.tail.own_sections import own_section
from hardkeel.tail.planform import Planform, planform_of, straight_chord
from hardkeel.tail.sections import Section, read_section

Profiles = Mapping[str, str]
_LEAST_CHORD_MM: Final = 5.0  # shorter ribs are whittled, not cut


@dataclass(frozen=True)
class LoftedRib:
    """A rib before anything is taken off.

    Attributes
    ----------
    y : float
        From the middle, mm.
    le_x : float
        Its leading edge, aft of the root's.
    upper, lower : Array
        Shape (n, 2): the surfaces (x, z) from the nose aft, washout in.
    thickness : float
        The greatest height difference at one x, before it is turned.
    """

    y: float
    chord: float
    le_x: float
    upper: Array
    lower: Array
    thickness: float

    @property
    def outline(self) -> tuple[Point2, ...]:
        """One ring: trailing edge, upper surface, leading edge, lower surface."""
        ring = np.concatenate([self.upper[::-1], self.lower])
        kept = np.any(np.diff(ring, axis=0, prepend=ring[:1] - 1.0) != 0, axis=1)
        points = ring[kept].tolist()
        if points[-1] == points[0]:
            points.pop()
        return tuple(map(tuple, points))

    @property
    def polygon(self) -> BaseGeometry:
        """The outline as a shapely polygon."""
        ring = np.concatenate([self.upper[::-1], self.lower, self.upper[-1:]])
        whole = shapely.polygons(ring)
        return whole if whole.is_valid else whole.buffer(0)

    def heights(self, x: Array | float) -> tuple[Array, Array]:
        """Upper and lower surface at x, in the shape of `x`."""
        return (
            np.asarray(np.interp(x, self.upper[:, 0], self.upper[:, 1])),
            np.asarray(np.interp(x, self.lower[:, 0], self.lower[:, 1])),
        )


@dataclass(frozen=True)
class TailLoft:
    """A surface between its root and its tip section."""

    surface: TailSurface
    planform: Planform
    root: Section
    tip: Section
    places: Array

    def rib(self, y: float) -> LoftedRib:
        """The true section at y."""
        surface, shares = self.surface, self.places
        eta = y / surface.half
        chord = float(self.planform.chord(y))
        shrink = chord / float(straight_chord(surface, y)) if not surface.outline else 1.0
        root_chord = surface.root_chord or float(self.planform.chord(0.0))
        tip_chord = surface.tip_size
        if surface.outline:  # no straight taper to mix by: both sections at this rib's own chord
            root_chord = tip_chord = chord
        (ru, rl), (tu, tl) = self.root.heights(shares), self.tip.heights(shares)
        upper = ((1 - eta) * root_chord * ru + eta * tip_chord * tu) * shrink
        lower = ((1 - eta) * root_chord * rl + eta * tip_chord * tl) * shrink
        x = shares * chord
        turn = np.radians(surface.washout * eta)
        c, s = np.cos(turn), np.sin(turn)

        def turned(z: Array) -> Array:
            # trailing edge up by washout, about the leading edge
            return np.column_stack([c * x - s * z, s * x + c * z])

        front = float(self.planform.leading(y))
        return LoftedRib(
            y, chord, front, turned(upper), turned(lower), float(np.max(upper - lower))
        )


def section_named(name: str, profiles: Profiles, place: str) -> Section:
    """A section of the build's files, or one that comes with the app.

    Raises
    ------
    BadInput
        When there is none of that name, or its file can't be read; the file is named.
    """
    text = profiles.get(name)
    if text is not None:
        return read_section(text, name)
    own = own_section(name)
    if own is None:
        raise BadInput(place, f'no section "{name}" beside the build')
    return own


def loft_of_tail(surface: TailSurface, profiles: Profiles, place: str = "") -> TailLoft:
    """The loft of a ribbed or cored surface.

    Raises
    ------
    BadInput
        When a figure or a section is missing, naming the place.
    """
    place = place or f"tail {surface.id}"
    if surface.root_profile is None:
        raise BadInput(f"{place}.root_profile", "is missing: a rib needs its section")
    texts = tuple(
        (n, profiles[n]) for n in (surface.root_profile, surface.tip_profile) if n and n in profiles
    )
    return _loft(surface, texts, place)


@lru_cache(maxsize=32)
def _loft(surface: TailSurface, texts: tuple[tuple[str, str], ...], place: str) -> TailLoft:
    profiles = dict(texts)
    planform = planform_of(surface)
    root = section_named(surface.root_profile or "", profiles, f"{place}.root_profile")
    tip = root
    if surface.tip_profile is not None:
        tip = section_named(surface.tip_profile, profiles, f"{place}.tip_profile")
    if surface.tip_thickness is not None and surface.tip_size > 0:
        tip = tip.scaled(surface.tip_thickness / surface.tip_size / tip.thickness)
    return TailLoft(surface, planform, root, tip, np.union1d(root.places, tip.places))


def rib_places(surface: TailSurface) -> tuple[float, ...]:
    """Where there are ribs, from the middle out; those beyond the outline, or with no chord, are left out."""
    planform = planform_of(surface)
    inside = sorted({y for y in surface.ribs if y <= planform.half + 1e-9})
    return tuple(y for y in inside if float(planform.chord(y)) > _LEAST_CHORD_MM)


def resized(was: TailSurface, now: TailSurface) -> TailSurface:
    """What lies along the span goes with it: ribs, tubes, the tip, the half-width of the centre stays the builder's."""
    if not was.half or was.half == now.half:
        return now
    by = now.half / was.half
    changed: dict[str, object] = {}
    if was.ribs and now.ribs == was.ribs:
        changed["ribs"] = tuple(round(y * by, 2) for y in was.ribs)
    if was.tubes and now.tubes == was.tubes:
        changed["tubes"] = tuple(one.but(length=round(one.length * by, 1)) for one in was.tubes)
    if was.tip is not None and now.tip == was.tip:
        changed["tip"] = was.tip.but(length=round(was.tip.length * by, 1))
    return now.but(**changed) if changed else now


def even_ribs(surface: TailSurface, count: int) -> tuple[float, ...]:
    """Places of so many ribs from the middle to the tip, evenly; mm.

    Raises
    ------
    BadInput
        When there would be fewer than two.
    """
    if count < 2:  # noqa: PLR2004  root and tip
        raise BadInput("", "a surface needs a rib at its root and one at its tip")
    end = surface.half
    tip = surface.tip
    if tip is not None:
        end -= tip.length if tip.shape == "block" else 0.25 * tip.length
    return tuple(round(end * i / (count - 1), 2) for i in range(count))
