"""What a step asks of the hands, by its key: tools to lay out, what stands in for a second hand, what to beware of.

A caution is bound to what brings it, a tool, a glue or a material, so that none is forgotten where a step is the
builder's own.
"""

from collections.abc import Iterable, Mapping
from typing import TYPE_CHECKING, Final, Literal, TypeVar

from hardkeel.glue.kinds import KINDS, middle
from hardkeel.schedule.model import Step

if TYPE_CHECKING:
    from hardkeel.glue.model import GlueKind

_Found = TypeVar("_Found")
# what a tool brings, by its name as it stands in a list
TOOL_HAZARDS: Final[dict[str, str]] = {
    "knife": "blade",
    "razor saw": "blade",
    "plane": "blade",
    "chisel": "blade",
    "power saw": "saw",
    "laser cutter": "laser",
    "sanding block": "dust",
    "long sanding block": "dust",
    "drill": "drill",
    "pins": "pins",
    "iron": "iron",
    "covering iron": "iron",
    "soldering iron": "iron",
    "kettle": "steam",
    "hot wire": "foam",
    "alcohol and cloth": "solvent",
    "pack": "lithium",
}
_BENCH: Final = ("pins", "film", "square")
_CUTTING: Final = ("knife", "metal rule")
_TOOLS: Final[dict[str, tuple[str, ...]]] = {
    "frame.cut": (*_CUTTING, "razor saw", "sanding block"),
    "frame.drill": ("drill", "backing block", "square"),
    "frame.openings": (*_CUTTING, "drill"),
    "frame.nuts": ("drill", "bolts to pull them in"),
    "frame.board": ("level", "long rule", "string"),
    "frame.doublers": ("weights", "film", "iron"),
    "frame.strips": ("pins", "film", "razor saw"),
    "frame.port side": (*_BENCH, "razor saw", "sanding block"),
    "frame.starboard side": (*_BENCH, "razor saw", "sanding block"),
    "frame.part sides": ("card", "knife", "pins"),
    "frame.seats": ("level", "square", "clamps"),
    "frame.try in": ("sanding block", "square"),
    "frame.soak": ("kettle", "clamps", "film"),
    "frame.pull in": ("square", "clamps", "string"),
    "frame.glue in": ("square", "clamps", "string"),
    "frame.side down": (*_BENCH, "weights"),
    "frame.formers upright": ("square", "weights"),
    "frame.second side": ("square", "weights", "string"),
    "frame.keel down": _BENCH,
    "frame.first half": _BENCH,
    "frame.first strips": ("pins", "clamps", "razor saw"),
    "frame.other half": ("clamps", "string"),
    "frame.other strips": ("clamps", "razor saw", "string"),
    "frame.crutch": (*_BENCH, "string"),
    "frame.lower formers": ("square", "clamps"),
    "frame.lower sides": ("clamps", "square"),
    "frame.upper formers": ("square", "clamps"),
    "frame.upper sides": ("clamps", "square"),
    "frame.thread": ("wax", "pliers"),
    "frame.wires out": ("pliers",),
    "frame.rods out": ("pliers",),
    "frame.formers up": ("pins", "square", "string"),
    "frame.formers tacked": ("square", "string"),
    "frame.stringers": ("pins", "clamps", "string"),
    "frame.keel in": ("clamps", "string"),
    "frame.others": ("clamps", "square"),
    "frame.canopy": ("pencil", "tape", "drill", "sanding block"),
    "frame.close tail": ("clamps", "string"),
    "frame.sides": ("clamps", "film"),
    "frame.bearers": ("clamps", "square", "level"),
    "frame.gussets": ("clamps",),
    "frame.plates": ("square", "level", "clamps"),
    "frame.hatch": ("clamps", "film"),
    "frame.decks": ("pins", "batten"),
    "frame.nose": ("knife", "plane", "sanding block", "square"),
    "frame.guides": ("drill", "round file", "pliers"),
    "frame.bracket": ("drill", "square"),
    "frame.leads": ("string", "tape", "extension leads"),
    "frame.access": ("pack", "servos", "mirror and lamp"),
    "frame.read": ("calipers", "string", "level"),
    "frame.lift": ("card", "pliers", "thin blade"),
    "frame.fair": ("long sanding block", "knife", "batten"),
    "frame.panels": (*_CUTTING, "sanding block", "tape", "kettle"),
    "frame.top sheet": ("pins", "tape", "batten", "clamps"),
    "frame.bottom sheet": ("pins", "tape", "batten", "clamps"),
    "frame.planks": ("knife", "pins", "tape", "sanding block"),
    "tail.stick.cut": ("razor saw", "sanding block", "metal rule"),
    "tail.stick.pin": ("pins", "film", "metal rule"),
    "tail.stick.glue": ("pins", "clamps"),
    "tail.stick.flat": ("weights", "card"),
    "tail.ribbed.cut": (*_CUTTING, "sanding block"),
    "tail.ribbed.slots": ("knife", "sanding block"),
    "tail.ribbed.feet": ("pins", "film", "square"),
    "tail.ribbed.spar": ("pins", "film", "square"),
    "tail.ribbed.strips": ("pins", "film", "square"),
    "tail.ribbed.glue": ("pins", "square", "clamps"),
    "tail.ribbed.flat": ("weights", "card"),
    "tail.ribbed.skin": ("weights", "film", "tape"),
    "tail.foam.cut": ("hot wire", "knife"),
    "tail.foam.tubes": ("drill", "level", "square"),
    "tail.foam.skin": ("weights", "film"),
    "tail.foam.edges": ("knife", "sanding block", "tape"),
    "tail.foam.flat": ("weights",),
    "tail.bevel": ("sanding block", "metal rule", "pencil"),
    "tail.hinges": ("knife", "pencil", "tape"),
    "tail.pivot": ("drill", "square"),
    "tail.bare": ("pencil", "metal rule"),
    "tail.props": ("level", "stop blocks", "weights"),
    "tail.seat": ("weights", "string", "timer"),
    "tail.seat.upright": ("square", "string", "timer"),
    "tail.cover": ("covering iron", "knife", "metal rule"),
    "tail.hinge all": ("pins", "cloth"),
    "tail.throws": ("metal rule",),
    "true.level": ("level",),
    "true.set": ("level", "string", "sanding block"),
    "own.repair": ("knife", "clamps", "sanding block"),
    "own.repair.crushed": ("iron", "cloth"),
    "own.repair.ooze": ("chisel", "sanding block"),
}
# what holds while two hands are elsewhere, by a word that `messages.steps` says
_JIGS: Final[dict[str, str]] = {
    "frame.doublers": "faces",
    "frame.pull in": "nose block",
    "frame.glue in": "blocks",
    "frame.second side": "blocks",
    "frame.starboard side": "blocks",
    "frame.soak": "battens",
    "frame.top sheet": "tapes",
    "frame.bottom sheet": "tapes",
    "frame.sides": "tapes",
    "frame.other half": "clips",
    "tail.foam.tubes": "rod",
    "tail.seat": "props",
    "tail.seat.upright": "cheeks",
    "true.set": "cradle",
}
_OOZES: Final = ("tail.seat", "frame.seats")
_BROUGHT: Final = {  # what a material brings where it is cut, by how its name begins
    "carbon": "carbon",
    "glass": "carbon",
    "foam": "foam",
}


# where what squeezes out is wiped while it is wet
_WIPED: Final = (
    "frame.doublers", "frame.strips", "frame.port side", "frame.starboard side", "frame.pull in", "frame.glue in",
    "frame.bracket", "frame.top sheet", "tail.stick.glue", "tail.ribbed.glue", "tail.seat",
)  # fmt: skip

Repair = Literal["cracked", "stripped", "starved", "crushed", "ooze"]
# minutes of the hands, and the glue, of what is mended
REPAIRS: Final[dict[Repair, tuple[float, str | None]]] = {
    "cracked": (20.0, "thin cyanoacrylate"),
    "stripped": (25.0, "aliphatic"),
    "starved": (10.0, "thin cyanoacrylate"),
    "crushed": (15.0, None),
    "ooze": (15.0, None),
}


def of_key(table: Mapping[str, _Found], key: str) -> _Found | None:
    """What a table says of a key, or of the longest beginning of it that it knows."""
    while key:
        if key in table:
            return table[key]
        key = key.rpartition(".")[0]
    return None


def tools_of(step: Step) -> tuple[str, ...]:
    """What to lay out for a step: what the builder said, or what our own step takes."""
    if "tools" in step.by_hand:
        return step.tools
    usual = of_key(_TOOLS, step.key) or step.tools
    if is_wiped(step) and step.glue:
        cloth = "alcohol and cloth" if "epoxy" in step.glue else "cloth"
        usual = tuple(dict.fromkeys((*usual, cloth)))
    return usual


def look_again_minutes(step: Step) -> float:
    """After how long what oozes out of a seat is looked at again: half the time in which its glue stays open; 0 for none.

    Glue goes on creeping out of a joint under weight as long as it flows; by the end of its open time it drags.
    """
    glue = next((one for kind, one in KINDS.items() if kind == step.glue), None)
    if glue is None or not step.key.startswith(_OOZES):
        return 0.0
    return round(middle(glue.open) / 2)


def is_wiped(step: Step) -> bool:
    """Whether what squeezes out of its joints is to be wiped while it is wet."""
    return of_key(dict.fromkeys(_WIPED, True), step.key) or False


def jig_of(step: Step) -> str:
    """What stands in for a second hand, as a word; empty where two hands do."""
    return of_key(_JIGS, step.key) or ""


def cautions_of(step: Step) -> tuple[str, ...]:
    """All that a step's hands beware of, each once: what it says itself, then what its glue and its tools bring."""
    glue: GlueKind | None = next((kind for kind in KINDS if kind == step.glue), None)
    brought = KINDS[glue].hazards if glue is not None else ()
    tools = (TOOL_HAZARDS[one] for one in tools_of(step) if one in TOOL_HAZARDS)
    return tuple(dict.fromkeys((*step.hazards, *brought, *tools)))


def brought_by(materials: Iterable[str | None]) -> tuple[str, ...]:
    """What materials bring where they are cut."""
    found = (
        hazard
        for material in materials
        for name, hazard in _BROUGHT.items()
        if (material or "").startswith(name)
    )
    return tuple(dict.fromkeys(found))
