"""The safety word, once, where it belongs."""

from typing import Final

SAFETY: Final = (
    "For model aircraft only. Follow your local rules and the makers' sheets for glue, solvents, "
    "batteries and tools first. Nothing here clears anything that carries people: there a licensed "
    "inspector decides, not this program."
)
GLUE_CAUTION: Final = (
    "Before slow epoxy: gloves, an open window, and the maker's sheet for ratio and pot life."
)
SANDING_CAUTION: Final = "Dust mask on when you sand; blade away from the other hand."
LASER_CAUTION: Final = "Never into eyes."
PACK_CAUTION: Final = "Lithium packs by their maker's sheet; never one that is puffed or dented. Propeller off on the bench."
CARBON_CAUTION: Final = (
    "Mask and extraction when you cut or sand carbon or glass; gloves for the splinters."
)
