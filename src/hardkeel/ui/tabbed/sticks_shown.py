"""From a cut list to what is shown of it: one stick large, with its jig and what follows."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.airframe.framing import cut_off, pieces_cut
from hardkeel.airframe.parts import woods_of
from hardkeel.base.units import LengthUnit, format_angle, format_length, format_size
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.jig import JigStep, jig_order
from hardkeel.messages import frame as say
from hardkeel.picture.wood import lying, tone_of
from hardkeel.project.model import Build
from hardkeel.ui.widgets.cutting_view import StickShown


@dataclass(frozen=True, slots=True)
class Sticks:
    """All that is cut by angle, in the jig's order, and how far it is."""

    steps: tuple[JigStep, ...]
    done: tuple[int, ...]

    @property
    def wanted(self) -> int:
        """Sticks in all."""
        return sum(step.part.quantity for step in self.steps)

    @property
    def cut(self) -> int:
        """Sticks that are cut."""
        return sum(self.done)

    def is_cut(self, number: int) -> bool:
        """Whether a line is cut, all of it."""
        return self.done[number] >= self.steps[number].part.quantity

    def next_from(self, number: int) -> int | None:
        """The first line that is not cut, from this one on and round; ``None`` where all are."""
        count = len(self.steps)
        for i in range(count):
            at = (number + i) % count
            if not self.is_cut(at):
                return at
        return None


def sticks_of_build(build: Build) -> Sticks:
    """The sticks of the fuselage with what is cut of them."""
    fuselage = build.fuselage or Fuselage()
    if len(fuselage.stations) < 2:  # noqa: PLR2004  nothing between
        return Sticks((), ())
    return sticks_of(build, cut_list_of(fuselage))


def sticks_of(build: Build, parts: Iterable[CutPart]) -> Sticks:
    """The sticks of a cut list with what is cut of them."""
    steps = jig_order(parts)
    return Sticks(steps, tuple(min(pieces_cut(build, s.part), s.part.quantity) for s in steps))


def stick_shown(build: Build, sticks: Sticks, number: int, unit: LengthUnit) -> StickShown:
    """A line of the cut list, large."""
    step = sticks.steps[number]
    part = step.part
    left = part.quantity - sticks.done[number]
    wood = wood_name(build, part.material)
    about = [one for one in (wood, format_size(part.section, unit)) if one]
    if part.triangular:
        about.append("triangular")
    about.append(say.still_to_cut(left, part.quantity))
    angles = (_sharp(part.ends[0]), _sharp(part.ends[1]))
    off = cut_off(build, part)
    return StickShown(
        part.name[:1].upper() + part.name[1:],
        ", ".join(about),
        lying(part.outline, part.length, part.section[1]),
        format_length(part.length, unit),
        angles,
        (_said(part.ends[0], step.by_end[0]), _said(part.ends[1], step.by_end[1])),
        say.jig_words(*step.settings),
        _following(sticks, number),
        "" if off is None else say.other_length(off, part.length, unit),
        tone_of(part.material),
        left <= 0,
    )


def _sharp(faces: Sequence[float]) -> tuple[float, ...]:
    return tuple(faces)


def _said(faces: Sequence[float], setting: float | None) -> str:
    """An end's angles; the first as the jig is set for it, which is the same to a quarter of a degree."""
    if setting is None:
        return say.FIT_IT
    return " and ".join(format_angle(face, 1) for face in (setting, *faces[1:]))


def _following(sticks: Sticks, number: int) -> str:
    """What is cut next at a setting that stands."""
    step = sticks.steps[number]
    names = [
        other.part.name
        for i, other in enumerate(sticks.steps)
        if i != number and not sticks.is_cut(i) and set(other.settings) & set(step.settings)
        and other.part.section == step.part.section
    ]  # fmt: skip
    if not names:
        return ""
    more = f" and {len(names) - _NAMED} more" if len(names) > _NAMED else ""
    return say.next_at_this(", ".join(names[:_NAMED]) + more)


_NAMED: Final = 3


def wood_name(build: Build, material: str | None) -> str:
    """A wood as it is called."""
    if material is None:
        return ""
    return wood_names(build).get(material, material)


def wood_names(build: Build) -> Mapping[str, str]:
    """Names of all woods by id."""
    return {wood.id: wood.name for wood in woods_of(build).values()}
