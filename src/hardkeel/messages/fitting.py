"""What is done at a slot, at a hole, at struts and at a cabane, in a builder's words and steps."""

from collections.abc import Sequence

from hardkeel.base.units import LengthUnit, format_length, format_small_length
from hardkeel.messages.names import contact_name
from hardkeel.survey.model import Survey, contacts_of
from hardkeel.survey.seat_step import SeatStep


def ways(step: SeatStep, unit: LengthUnit, *, plain: bool = False) -> list[str]:
    """``0.3 mm aft``, ``0.5 mm to starboard``; plain without the little word."""
    told = []
    if step.aft:
        way = "aft" if step.aft > 0 else "forward"
        told.append(f"{format_small_length(abs(step.aft), unit)} {way}")
    if step.starboard:
        side = "starboard" if step.starboard > 0 else "port"
        amount = format_small_length(abs(step.starboard), unit)
        told.append(f"{amount} {side}" if plain else f"{amount} to {side}")
    return told


def fitting_sentence(where: str, step: SeatStep, unit: LengthUnit) -> str:
    """One step at a seat that is neither shimmed nor sanded."""
    match step.act:
        case "edge":
            return _slot(where, step, unit)
        case "hole":
            upright = "up" if step.up > 0 else "down"
            told = [f"{format_small_length(abs(step.up), unit)} {upright}"] if step.up else []
            told += ways(step.but(starboard=0.0), unit)
            return f"Open the {where} hole {' and '.join(told)}{_strokes(step)}; fill it behind."
        case "strut":
            way = "longer" if step.up > 0 else "shorter"
            amount = format_small_length(abs(step.up), unit)
            length = (
                f": {format_length(step.length, unit)} between its holes" if step.length else ""
            )
            return f"Make the {where} strut {amount} {way}{length}."
        case "prop" | "upright" | "along" | "rib":
            return _beside_the_seat(where, step, unit)
        case "behind":
            return f"Put {format_small_length(step.mm, unit)} behind the {where}."
        case _:
            many = "washer" if abs(step.count) == 1 else "washers"
            thick = format_small_length(step.mm, unit)
            if step.count > 0:
                return f"Put {step.count} {many} ({thick}) under the {where}."
            return f"Take {-step.count} {many} ({thick}) from under the {where}."


def wedge_sentence(survey: Survey, body: str, steps: Sequence[SeatStep], unit: LengthUnit) -> str:
    """The same as packing behind each bolt in one piece of wood; empty where nothing is packed behind."""
    behind = [step for step in steps if step.act == "behind"]
    held = survey.body(body)
    if not behind or held is None:
        return ""
    thick = {contact.id: 0.0 for contact in contacts_of(held)}
    thick |= {contact: step.mm for step in behind for contact in step.contacts}
    most, least = max(thick, key=thick.__getitem__), min(thick, key=thick.__getitem__)
    if thick[most] == thick[least]:
        return f"Or one piece of {format_small_length(thick[most], unit)} behind the whole mount."
    thin = format_small_length(thick[least], unit) if thick[least] else "nothing"
    return (
        f"Or one wedge: {format_small_length(thick[most], unit)} at the {contact_name(survey, body, most)}, "
        f"{thin} at the {contact_name(survey, body, least)}."
    )


def _beside_the_seat(where: str, step: SeatStep, unit: LengthUnit) -> str:
    """What is moved by its tip, its top, along its tube or at its root rib."""
    match step.act:
        case "prop":
            way = "Raise" if step.up > 0 else "Lower"
            return f"{way} the prop under its tip by {format_small_length(abs(step.up), unit)}."
        case "upright":
            side = "starboard" if step.starboard > 0 else "port"
            amount = format_small_length(abs(step.starboard), unit)
            return f"Lean its top {amount} to {side}, propped until the glue holds."
        case "rib":
            amount = format_small_length(abs(step.up), unit)
            place = where.removeprefix("root ")
            if step.up > 0:
                return f"Pack the root rib by {amount} at the {place}."
            return f"Sand {amount} off the root rib at the {place}."
        case _:
            return f"Slide it {' '.join(ways(step, unit))} along its tube."


def _slot(where: str, step: SeatStep, unit: LengthUnit) -> str:
    told = []
    if step.up:
        edge, across = ("upper", "lower") if step.up > 0 else ("lower", "upper")
        amount = format_small_length(abs(step.up), unit)
        told.append(
            f"open the slot's {edge} edge {amount} at the {where}{_strokes(step)}, "
            f"pack the {across} edge by as much"
        )
    sideways = ways(step, unit)
    if sideways:
        told.append(f"open its end at the {where} {' and '.join(sideways)}, fill it behind")
    text = "; ".join(told)
    return f"{text[:1].upper()}{text[1:]}."


def _strokes(step: SeatStep) -> str:
    if not step.count:
        return ""
    return (
        " (one stroke of the file)" if step.count == 1 else f" ({step.count} strokes of the file)"
    )
