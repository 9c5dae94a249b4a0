"""A surface or a section taken off a sheet on the paper desk."""

from dataclasses import dataclass

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.edits.named import edit
from hardkeel.edits.paper import clear_trace, plan_named
from hardkeel.edits.tail import put_surface, set_outline, set_section, surface_of, usual_inner
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.picking import picked_outline
from hardkeel.project.model import Build
from hardkeel.tail.lying import Lying, laid_out
from hardkeel.tail.model import Controls
from hardkeel.tail.planform import planform_of
from hardkeel.tail.sections import read_section
from hardkeel.tail.tracing import hinge_share, rib_places, section_text


@dataclass(frozen=True, slots=True)
class SurfaceRead:
    """What a sheet shows of a surface.

    Attributes
    ----------
    ring : tuple of Point2
        Its outline as it lies on the sheet, mm.
    hinge : (float, float), optional
        Share of the chord at which its hinge line lies, and how far the line runs off that.
    ribs : tuple of float, optional
        From the middle, mm.
    """

    ring: tuple[Point2, ...]
    lying: Lying
    hinge: tuple[float, float] | None
    ribs: tuple[float, ...] | None


def read_surface(build: Build, surface_id: str, plan_id: str) -> SurfaceRead:
    """What was clicked of a surface on a plan: its outline, hinge line and ribs.

    Raises
    ------
    BadInput
        As `set_outline`; or when hinge line or ribs do not lie on it.
    """
    plan = plan_named(build, plan_id)
    fit = calibrate(plan)
    ring = picked_outline(plan, fit, half=False)
    lying = laid_out(ring, surface_of(build, surface_id))
    planform = planform_of(surface_of(set_outline(build, surface_id, ring), surface_id))
    clicked = {
        kind: [p for t in plan.traces if t.kind == kind for p in t.pixels]
        for kind in ("hinge", "ribs")
    }
    hinge, ribs = (
        lying.carried(fit.to_plan(np.array(pixels))) if pixels else None
        for pixels in (clicked["hinge"], clicked["ribs"])
    )
    return SurfaceRead(
        ring,
        lying,
        hinge_share(planform, hinge) if hinge is not None else None,
        rib_places(planform, ribs) if ribs is not None else None,
    )


@edit
def surface_from_desk(build: Build, surface_id: str, plan_id: str) -> Build:
    """Take a surface off a sheet as `read_surface` reads it; the clicks are wiped off.

    Raises
    ------
    BadInput
        As `read_surface`.
    """
    read = read_surface(build, surface_id, plan_id)
    made = set_outline(build, surface_id, read.ring)
    surface = surface_of(made, surface_id)
    if read.hinge is not None:
        moves = surface.controls or Controls(inner=usual_inner(build, surface))
        surface = surface.but(hinge_at_chord=round(read.hinge[0], 4), controls=moves)
    if read.ribs is not None:
        surface = surface.but(ribs=read.ribs)
    made = put_surface(made, surface)
    for kind in ("outline", "hinge", "ribs"):
        made = clear_trace(made, plan_id, kind)
    return made


@edit
def section_from_desk(build: Build, surface_id: str, plan_id: str) -> Build:
    """Make an outline off a sheet the section at a surface's root; without an id the wings'.

    Raises
    ------
    BadInput
        When it is no section.
    """
    plan = plan_named(build, plan_id)
    ring = picked_outline(plan, calibrate(plan), half=False)
    whose = surface_id or "wing"
    name, number = f"{whose}-root.dat", 2
    text = section_text(ring, whose)
    while build.profiles.get(name, text) != text:
        name, number = f"{whose}-root-{number}.dat", number + 1
    read_section(text, name)
    made = build.but(profiles={**build.profiles, name: text})
    if surface_id:
        made = set_section(made, surface_id, name)
    else:
        made = made.but(wings=tuple(wing.but(profile=name) for wing in made.wings))
    return clear_trace(made, plan_id, "outline")
