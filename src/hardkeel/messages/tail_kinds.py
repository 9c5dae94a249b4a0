"""The words of each kind of tail surface, and of the steps in which one is built: by kind and step."""

from typing import Final

from hardkeel.messages.wording import Wording

KIND_WORDS: Final = {"stick": "flat sticks", "ribbed": "ribs", "foam": "foam"}
KIND_STEPS: Final[dict[str, Wording]] = {
    "stick.cut": Wording("Cut the sticks of the {first}, both halves at one setting"),
    "stick.cut.upright": Wording("Cut the sticks of the {first}"),
    "stick.pin": Wording(
        "Pin the {first} over its drawing, dry; pins beside the wood",
        "look along it: flex it true before any glue",
    ),
    "stick.glue": Wording(
        "Glue the {first}'s joints, one side of the drawing after the other",
        "read the corners while it is dry",
        then="coat end grain twice; light pressure, no pin through the wood; wipe before gussets go in",
    ),
    "stick.flat": Wording(
        "Free the {first}, read its corners, flex what is twisted, dry it flat under weight",
        "pins twisted out with a finger beside, a card slid under it; the reverse of its joints: a starved one gets glue now",
        "once it is dry it keeps the twist that it has",
    ),
    "ribbed.cut": Wording("Cut the ribs of the {first}"),
    "ribbed.slots": Wording(
        "Slot the {first}'s edges and try every rib in",
        "a rib slides in by its own weight: dampen it where it is loose, pinch it where it is tight",
    ),
    "ribbed.feet": Wording("Stand the {first}'s ribs on their feet, chord lines level"),
    "ribbed.spar": Wording(
        "Pin the {first}'s lower spar down over its drawing and stand the ribs on it",
        "pins beside the spar, none through it; a strip under the trailing edge as high as the drawing says, chord lines level",
    ),
    "ribbed.strips": Wording(
        "Stand the {first}'s ribs over its drawing on strips under nose and tail",
        "strips as high as the section leaves room for, pinned; chord lines level, every rib upright",
    ),
    "ribbed.glue": Wording(
        "Glue the {first}'s edges and spars to its ribs",
        "the spar touches the floor of every notch",
        then="wipe what squeezes out before the skin: a hard bead shows through it",
    ),
    "ribbed.flat": Wording(
        "Free the {first}, read its corners, flex what is twisted, let it dry",
        "pins twisted out with a finger beside, a card slid under it; feet stay on until it is skinned",
    ),
    "ribbed.skin": Wording(
        "Glue the {first}'s skins on",
        "hinge points, horn and tube seats are in place",
        "the skin closes the frame and keeps whatever twist it has then",
    ),
    "foam.cut": Wording("Cut the {first}'s foam along its templates"),
    "foam.tubes": Wording(
        "Let the {first}'s tubes in, level with each other and square to the fin",
        "a rod through both holes reads level both ways round",
        "a tube that is glued askew turns both halves with it",
    ),
    "foam.skin": Wording(
        "Glue the {first}'s skins on, in its own cut-offs as a cradle",
        "only a glue that foam stands; the cradle lies flat",
        "the skin keeps whatever twist the cradle has",
    ),
    "foam.edges": Wording("Glue the {first}'s edges and tip blocks on, sand them to the section"),
    "foam.flat": Wording("Read the {first}'s corners on the board"),
}
