"""What several readings have in common: marks beside their places, zeros of tools, a fuselage that bends.

Each is an unknown of its own with a prior N(0, s²), adjusted together with all others (by the contract); a mark that
no reading names keeps its prior and says nothing.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from hardkeel.base.values import Point
from hardkeel.survey.columns import BEND, Bend, Columns, SharedPart
from hardkeel.survey.model import FUSELAGE, Survey, contacts_of, role_of
from hardkeel.survey.priors import Shared
from hardkeel.survey.proposing import tools_of
from hardkeel.survey.readings import Observation, marks_of

BOARD_POINT: Final = "board."  # a building board's own points are the reference
_LEAST_BEND_MM: Final = 1.0
_LEAST_PLACE_MM: Final = 1e-3  # nobody lays a label better
# what takes its zero from which key, and the tools that read it
ZEROS: Final = (
    # a level laid on the fuselage's datum reads an incidence too
    ("gauge", "incidence", frozenset({"incidence-gauge", "level", "digital-level"})),
    ("level", "tilt", frozenset({"level", "digital-level", "water-level", "stand-pair", "eye"})),
    ("tape_zero", "distance", frozenset({"tape"})),
    ("tape_stretch", "distance", frozenset({"tape"})),
)
CARRIED: Final = frozenset({"mark", *BEND})  # what stays as it is while the glue sets


def shared_parts(survey: Survey) -> tuple[SharedPart, ...]:
    """The unknowns that the readings of this survey share, whatever of them is in use."""
    shared = survey.shared
    if shared is None:
        return ()
    found: list[SharedPart] = []
    targets = {one.mark: one for one in survey.targets} if shared.target is not None else {}
    for mark in survey.marks:
        target = targets.get(mark.id)
        if target is not None and shared.target is not None:
            across, along = (max(one, _LEAST_PLACE_MM) for one in shared.target)
            normal = survey.normal_of(target)
            found.append(SharedPart("mark", mark.id, across, along, normal))
        elif shared.mark > 0 and not mark.id.startswith(BOARD_POINT):
            found.append(SharedPart("mark", mark.id, shared.mark))
    for key, kind, kinds in ZEROS:
        sigma = float(getattr(shared, key))
        if sigma > 0:
            own = [tool.id for tool in tools_of(survey) if tool.kind in kinds]
            named = [one.instrument or "" for one in survey.readings if one.kind == kind]
            found += [SharedPart(key, tool, sigma) for tool in dict.fromkeys((*own, *named))]
    if shared.gauge_seat > 0:
        found += [
            SharedPart("gauge_seat", body.id, shared.gauge_seat)
            for body in survey.bodies
            if body.id != FUSELAGE
        ]
    if bend_of(survey) is not None:
        found += [
            SharedPart(key, "", float(getattr(shared, key)))
            for key in BEND
            if getattr(shared, key) > 0
        ]
    return tuple(found)


def bend_of(survey: Survey) -> Bend | None:
    """From where to where the fuselage may bend; ``None`` without a wing or without a tail behind it."""
    shared = survey.shared
    if shared is None or not (shared.bend_y > 0 or shared.bend_z > 0):
        return None
    wing = next((body for body in survey.bodies if role_of(body) == "wing"), None)
    own = [mark.at[0] for mark in survey.marks if mark.body == FUSELAGE]
    if wing is None or not own:
        return None
    seat = [contact.at[0] for contact in contacts_of(wing)]
    first, last = max(seat, default=wing.origin[0]), max(own)
    return Bend(first, last) if last >= first + _LEAST_BEND_MM else None


def points_of(survey: Survey) -> list[tuple[str, Point]]:
    """By mark its body and its place, in the survey's order."""
    return [(mark.body, mark.at) for mark in survey.marks]


@dataclass(frozen=True, slots=True)
class SharedKey:
    """One of the things that readings share: ``gauge``, and whose; the fuselage's bends have no owner."""

    what: str
    owner: str


def keys_in_use(columns: Columns, readings: Iterable[Observation]) -> tuple[SharedKey, ...]:
    """What the readings in use share, in the columns' order."""
    used: set[tuple[str, str]] = {(key, "") for key in BEND}
    for one in readings:
        used |= {("mark", mark) for mark in marks_of(one)}
        tool = one.instrument or ""
        used |= {(key, tool) for key, kind, _ in ZEROS if kind == one.kind}
        if one.hung_on is not None:
            used.add(("gauge_seat", one.hung_on))
    return tuple(SharedKey(*key) for key in columns.shared if key in used)


def is_off(shared: Shared | None) -> bool:
    """Whether nothing is shared at all."""
    return shared is None or not any(getattr(shared, key) for key in type(shared).model_fields)
