"""What is wrong with a frame as it is drawn, in words: what, by how much, and the way out."""

from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, format_length

if TYPE_CHECKING:
    from hardkeel.fuselage.inspecting import Finding

_SIDES: Final = {
    "port": "to port",
    "starboard": "to starboard",
    "above": "above",
    "below": "below",
    "corner": "at a corner",
}


def finding_title(one: "Finding") -> str:
    """What is wrong, in a few words."""
    named = one.ref
    return {
        "nothing": "Nothing of it is left inside the skins.",
        "parted": _parted(one),
        "opened": f"The {named} runs out over its edge.",
        "thin": f"Little wood is left beside the {named}.",
        "meet": f"Its {named} notches come too close."
        if named == one.other
        else f"{named} and {one.other} come too close.",
        "neck": "The wood narrows too much.",
        "unfit": f"The {named} longeron is too large for it.",
        "crowded": f"It stands in {named}.",
        "barred": f"The {named} can't be put in past it.",
        "outside": f"The {named} behind it lies outside.",
        "unlanded": f"The {named}'s {one.other} edge lands on no former.",
        "caught": f"The {named} behind it runs into the {_named(one.other)}.",
        "unseated": f"The {named} behind it reaches over the edge of the {one.other}."
        if one.other
        else f"The {named} behind it has no tray.",
        "wide": f"The {named} behind it finds no room at the post.",
    }[one.kind]


def _named(ref: str) -> str:
    """``longeron_upper`` is the upper longeron."""
    kind, _, which = ref.partition("_")
    return f"{which} longeron" if kind == "longeron" else ref


def _parted(one: "Finding") -> str:
    if one.ref:
        return f"The {one.ref} cuts it in {one.figure:.0f}."
    return f"It falls in {one.figure:.0f} pieces."


def finding_sentence(one: "Finding", unit: LengthUnit, web: float) -> str:
    """The figure, where it is, and the way out."""

    def mm(value: float) -> str:
        return format_length(value, unit)

    match one.kind:
        case "thin" | "opened":
            left = ", ".join(
                f"{mm(value)} {_SIDES[side]}" if value > 0 else f"none {_SIDES[side]}"
                for side, value in one.left
                if value < web
            )
            told = f"Wood left: {left}; {mm(web)} are wanted."
        case "meet":
            told = "They touch" if one.figure <= 0 else f"{mm(one.figure)} between them"
            told = f"{told}; {mm(web)} are wanted."
        case "neck":
            told = f"{mm(one.figure)} at the narrowest; {mm(web)} are wanted."
        case "outside" | "unlanded":
            return _lies_outside(one, unit) if one.kind == "outside" else _lands_nowhere(one, unit)
        case "caught" | "unseated":
            told = f"At {mm(one.figure)}."
        case _:
            told = _FIGURED.get(one.kind, "").format(mm(one.figure))
    return f"{told} {_CURES[one.kind]}".strip()


_FIGURED: Final = {
    "unfit": "{} are lacking to the middle.",
    "wide": "{} are lacking.",
    "crowded": "{} too near for their thicknesses.",
    "barred": "It needs an opening {} wide there.",
    "parted": "What is cut out reaches through.",
    "nothing": "Its half-width is no more than the sides are thick.",
}
_CURES: Final = {
    "thin": "Make it smaller, or move it.",
    "opened": "Make it smaller, or move it.",
    "meet": "Move one, or take a smaller section.",
    "neck": "Move what narrows it, or make it smaller.",
    "wide": "Make it narrower or shorter, or move it ahead.",
    "caught": "Move a place of its way, or end it before.",
    "unseated": "Put a tray under it, make the tray larger, or move it.",
    "unfit": "Take a smaller section, or end it before.",
    "crowded": "Move one.",
    "barred": "Cut one out, make it narrower, or end it before this former.",
    "parted": "Make it smaller, or part it on purpose: split it.",
    "nothing": "Make it wider, the sides thinner, or end the sides before it.",
}


def _lands_nowhere(one: "Finding", unit: LengthUnit) -> str:
    gap = format_length(one.figure, unit)
    return f"It lies {gap} from this one. End it on a former, or add one there."


def _lies_outside(one: "Finding", unit: LengthUnit) -> str:
    if not one.left:
        return "Nowhere between its formers is there room for it. Make it thinner, or set it between others."
    at, low, high = (format_length(z, unit) for z in (one.figure, *(z for _, z in one.left)))
    return f"At {at} it lies outside the skin. Set it between {low} and {high}."
