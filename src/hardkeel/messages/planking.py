"""Planks in words: how many, which run out, how they bend on edge, in what order they are laid, a table to mark from."""

from collections.abc import Iterable
from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_length, format_size
from hardkeel.fuselage.bending import Limits
from hardkeel.fuselage.model import Planking
from hardkeel.fuselage.planking import Planked

PLANKING: Final = "Planking"
PLANK_IT: Final = "Plank it"
NO_PLANKS: Final = "No planks"
FULL_SIZE: Final = "planks at full size among the templates"
FULL_SIZE_TIP: Final = (
    "Each laid out straight about its middle, the formers across it; both hands are alike"
)
FIGURES: Final = {"width": "strip width", "thickness": "thickness", "keel_width": "keel"}
NONE_YET: Final = "Strips over the formers from keel to crown, for round sections."
ORDER: Final = "Laid from the keel up, port and starboard turn about; one more to a side and it pulls the frame over."


def planking_edit(key: str) -> str:
    """The step's name for undo."""
    return f"set {FIGURES.get(key, 'planking')} of the planking"


def planking_answer(planked: Planked, planking: Planking, unit: LengthUnit) -> str:
    """``23 planks a side of 6 × 2 mm``."""
    count = len(planked.planks) // 2
    size = format_size((planking.width, planking.thickness), unit)
    return f"{count} planks a side of {size}"


def planking_lines(
    planked: Planked, planking: Planking, limits: Limits, unit: LengthUnit
) -> list[str]:
    """How narrow they get, which run out, and what their bend on edge wants."""
    if not planked.planks:
        return []
    wides = [
        (wide, plank.number, former) for plank in planked.planks for former, wide in plank.widths
    ]
    narrow, number, former = min(wides)
    told = [f"Narrowest {format_length(narrow, unit)}, plank {number} at {former}."]
    if planked.stealers:
        told.append(
            f"{_listed(planked.stealers)} run out, where they would be narrower than half a strip: "
            "the next ones close over their ends."
        )
    worst = max(planked.planks, key=lambda one: one.edgewise)
    told.append(
        _edgewise(worst.number, worst.edgewise, worst.at, limits.get(planking.material or ""), unit)
    )
    told.append(ORDER)
    return told


def _edgewise(
    number: int, strain: float, at: float, limit: tuple[float, float] | None, unit: LengthUnit
) -> str:
    where = f"plank {number} at {format_length(at, unit)}"
    stretch = f"On edge they bend by at most {decimal(strain, 2)} %, {where}"
    if limit is None:
        return f"{stretch}."
    dry, soaked = limit
    if strain <= dry:
        return f"{stretch}: less than this wood takes dry ({decimal(dry, 1)} %)."
    if strain <= soaked:
        return (
            f"{stretch}: soak it there, or use narrower strips (dry it takes {decimal(dry, 1)} %)."
        )
    return f"{stretch}: more than it takes even soaked ({decimal(soaked, 1)} %). Use narrower strips there, or taper one plank to a point."


def planking_table(planked: Planked, unit: LengthUnit) -> list[str]:
    """A line a plank, a column a former, widths to mark from; both sides alike."""
    head = "  plank " + "".join(f"{name:>9}" for name in planked.formers)
    lines = [head]
    for plank in planked.planks:
        if plank.side != "port":
            continue
        wide = dict(plank.widths)
        cells = (
            format_length(wide[name], unit) if name in wide else "–" for name in planked.formers
        )
        lines.append(
            f"  {plank.number:<6}" + "".join(f"{cell.removesuffix(' mm'):>9}" for cell in cells)
        )
    return lines


def _listed(numbers: Iterable[int]) -> str:
    words = [str(one) for one in numbers]
    plural = "Planks" if len(words) > 1 else "Plank"
    return f"{plural} {' and '.join(filter(None, [', '.join(words[:-1]), words[-1]]))}"
