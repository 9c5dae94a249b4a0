"""The tails of the demo builds: one of flat sticks, one that lifts on ribs, one of foam; all made up."""

from typing import Final

from hardkeel.edits import tail as edits
from hardkeel.project.model import Build
from hardkeel.tail.flatness import corner_places

# heights over the board, by place: a frame that was pulled a little crooked while it was pinned
_CROOKED: Final = {
    "starboard_le": 22.4, "starboard_te": 20.2, "port_te": 20.9, "port_le": 20.4, "mid_le": 20.1, "mid_te": 20.0,
}  # fmt: skip


def of_sticks(build: Build) -> Build:
    """Stabilizer and fin of flat sticks, a zigzag between the edges; the stabilizer's corners are read once."""
    made = edits.set_built(build, "stab", "stick")
    made = edits.set_bracing(made, "stab", pitch=44.0, gusset=9.0, curved_gussets=True)
    made = edits.set_built(made, "fin", "stick")
    for place in corner_places(edits.surface_of(made, "stab")):
        made = edits.read_corner(made, "stab", place, _CROOKED[place], "dry")
    return made


def with_bent_tips(build: Build) -> Build:
    """A light stick tail with tips laminated from strips."""
    made = edits.set_built(build, "stab", "stick")
    made = edits.set_figures(
        made, "stab", thickness=3.0, leading_edge=(5.0, 3.0), trailing_edge=(5.0, 3.0), centre=24.0
    )
    made = edits.set_bracing(made, "stab", pitch=34.0, width=3.0)
    made = edits.set_tip(made, "stab", "laminated", 45.0)
    surface = edits.surface_of(made, "stab")
    tip = surface.tip
    if tip is not None:
        made = edits.put_surface(made, surface.but(tip=tip.but(layers=4, strip=1.0)))
    return edits.set_built(made, "fin", "stick")


def that_lifts(build: Build) -> Build:
    """A stabilizer with a lifting section on ribs that stand on feet; a fin of flat sticks."""
    made = edits.from_root_rib(build, "stab", "lifting", 11.0, 9)
    made = edits.set_figures(made, "stab", feet=14.0, half_ribs=True)
    made = edits.set_tip(made, "stab", "block", 14.0)
    made = edits.set_figures(made, "stab", rib_count=9)
    return edits.set_built(made, "fin", "stick")


def of_foam(build: Build) -> Build:
    """A cored stabilizer with skins and a tube spar; a fin of sheet foam."""
    made = edits.set_built(build, "stab", "foam")
    made = edits.set_figures(made, "stab", root_profile="thin", skin=1.0)
    made = edits.set_tip(made, "stab", "block", 12.0)
    return edits.set_built(made, "fin", "foam")
