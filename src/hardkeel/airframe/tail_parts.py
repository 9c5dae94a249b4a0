"""The parts of a tail surface that says how it is built: what it weighs follows from its own wood."""

from hardkeel.base.errors import BadInput
from hardkeel.base.values import LARGEST_FIGURE
from hardkeel.parts.model import Part
from hardkeel.parts.woods import woods_with
from hardkeel.project.model import Build
from hardkeel.tail.kinds import kind_of
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import wood_volume


def built_surfaces(build: Build) -> dict[str, TailSurface]:
    """Surfaces that say how they are built, by id."""
    return {surface.id: surface for surface in build.tail if surface.kind is not None}


def as_built(parts: list[Part], surface: TailSurface, build: Build) -> list[Part]:
    """The panel with the wood of its frame, ribs or foam; a tip that is part of it is no part of its own.

    Wood of another kind counts by its weight, as so much more of the panel's own.  What can't be reckoned
    yet, for want of a section, keeps its first guess.
    """
    try:
        volumes = wood_volume(surface, build.profiles)
    except BadInput:
        return parts
    woods = woods_with(build.listed.woods)
    usual = kind_of(surface).wood
    material = surface.material if surface.material in woods else usual
    density = woods[material].density
    alike = sum(
        v * woods.get(name or usual, woods[usual]).density / density for name, v in volumes.items()
    )
    found = []
    for part in parts:
        if part.kind == "tip":
            continue
        if part.kind == "panel":
            volume = min(alike / part.pieces, LARGEST_FIGURE)
            found.append(part.but(material=material, volume=volume))
        else:
            found.append(part)
    return found
