"""The rest of the Kettlewick's bench: its audited sheet, parts, masses and pack; all made up."""

from typing import Final

import numpy as np

from hardkeel.airframe.parts import parts_of
from hardkeel.balance.model import Balance, Battery, Hatch, Mass
from hardkeel.edits import framing as framing_edits
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits.ledger import bring_parts_in
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.model import CutOut, Fuselage, MemberKind, Template
from hardkeel.joinery.cut_part import Stock
from hardkeel.paper.model import Pair, PrintedSheet
from hardkeel.parts.model import CutPiece, Ledger, Listed
from hardkeel.project.model import Build

_SCALE: Final = 1.016  # the template sheet was printed this much too large
_SEED: Final = 41
_NOISE_MM: Final = 0.25
_SHEET: Final = (
    ("F2", "y", "outline", 70.0),
    ("F3", "y", "outline", 84.4),
    ("F4", "x", "outline", 55.8),
    ("F5", "x", "outline", 43.6),
    ("F4", "y", "outline", 82.8),
    ("hatch", "x", "outline", 118.0),
    ("register marks", "x", "spacing", 180.0),
    ("register marks", "y", "spacing", 240.0),
)
_FITTINGS: Final = (
    ("motor and mount", 84.0, -8.0, True),
    ("propeller", 22.0, -32.0, True),
    ("controller", 31.0, 60.0, True),
    ("receiver", 9.0, 250.0, True),
    ("elevator servo", 12.0, 420.0, True),
    ("rudder servo", 12.0, 420.0, True),
    ("aileron servos", 22.0, 290.0, True),
    ("undercarriage", 74.0, 195.0, True),
    ("tail wheel", 13.0, 890.0, True),
    ("covering and paint, guessed", 78.0, 400.0, False),
)
_WEIGHED: Final = {
    "F1": 5.8,
    "F2": 1.9,
    "F3": 2.8,
    "F4": 9.8,  # cut from birch by mistake: the scale tells
    "wing_half": 142.0,
    "stab_half": 21.0,
    "fin_panel": 5.2,
    "doubler": 20.5,
}
_STICKS_CUT: Final = 3  # lines of the cut list
_STATES: Final = {
    "F1": "glued",
    "F2": "glued",
    "F3": "glued",
    "F4": "glued",
    "F5": "glued",
    "F6": "glued",
    "F7": "dry-fitted",
    "side_F1_F4": "glued",
    "longeron_upper": "glued",
    "longeron_lower": "glued",
    "wing_half": "trued",
    "wing_tip": "glued",
    "wing_seat": "glued",
    "stab_half": "dry-fitted",
    "fin_panel": "dry-fitted",
    "doubler": "cleaned",
    "undercarriage plate": "glued",
    "dowel plate": "glued",
    "battery tray": "glued",
    "servo tray": "dry-fitted",
    "hatch frame": "cut",
    "top_sheet": "cut",
    "bottom_sheet": "cut",
}


_MEMBERS: Final[tuple[tuple[MemberKind, str, str, str, dict[str, object]], ...]] = (
    ("battery-tray", "battery tray", "F2", "F3", {"z": -29.5, "width": 40.0}),
    ("dowel-plate", "dowel plate", "F3", "F4", {"z": 40.0, "width": 40.0}),
    ("hatch-frame", "hatch frame", "F2", "F3", {"station": 110.0, "z": -20.0}),
    ("rod", "rod", "F3", "F4", {"station": 300.0, "z": -20.0, "diameter": 4.0}),
)


def furnish(build: Build) -> Build:
    """The build with its audit, cut-outs, ledger, masses and balance."""
    rng = np.random.default_rng(_SEED)
    pairs = tuple(
        Pair(
            part=part,
            direction=direction,  # type: ignore[arg-type]
            kind=kind,  # type: ignore[arg-type]
            plan=plan,
            measured=round(float(plan * _SCALE + rng.normal() * _NOISE_MM), 1),
        )
        for part, direction, kind, plan in _SHEET
    )
    build = build.but(audit=(PrintedSheet(id="former templates", pairs=pairs),))
    build = _framed(_cut_out(build))
    build = build.but(ledger=_ledger(build))
    masses = tuple(
        Mass(id=name, mass=mass, x=x, weighed=weighed) for name, mass, x, weighed in _FITTINGS
    )
    build = build.but(
        masses=masses,
        balance=Balance(
            target_percent=30.0,
            battery=Battery(id="pack", mass=168.0, between=(40.0, 150.0), size=(104.0, 35.0, 27.0)),
            nose_weight_x=-25.0,
            hatches=(Hatch(id="belly hatch", between=(45.0, 168.0), width=46.0),),
        ),
    )
    return bring_parts_in(build)


def _cut_out(build: Build) -> Build:
    pack = CutOut(id="pack", kind="battery", width=40.0, height=32.0, z=-12.0)
    build = drawing_edits.set_cutouts(build, "F2", [pack], lightened=False)
    build = drawing_edits.set_cutouts(build, "F3", [pack], lightened=True)
    for name in ("F4", "F5"):
        build = drawing_edits.set_cutouts(build, name, [], lightened=True)
    fuselage = build.fuselage
    third = fuselage.former("F4") if fuselage is not None else None
    if third is None:
        return build
    template = Template(
        half_width=round(third.half_width * _SCALE, 1),
        bottom=round(third.bottom * _SCALE, 1),
        top=round(third.top * _SCALE, 1),
    )
    return drawing_edits.set_template(build, "F4", template)


def _framed(build: Build) -> Build:
    """Doublers, firewall key, plates and trays, a hatch; open behind the wing with zigzag bracing."""
    build = framing_edits.frame_as_usual(build)
    for kind, name, start, end, figures in _MEMBERS:
        build = framing_edits.add_member(build, kind, start, end)
        build = framing_edits.set_member(build, name, **figures)
    rack = Stock(section=(5.0, 5.0), length=610.0, pieces=2, material="balsa-medium")
    return framing_edits.set_framing(build, kerf=0.6, stock=(rack,))


def _ledger(build: Build) -> Ledger:
    parts = parts_of(build)
    printed = [
        Listed(name=part.name, quantity=part.pieces)
        for part in parts
        if part.id not in ("F7", "wing_tip")
    ]
    printed.append(Listed(name="cowl block", quantity=1))
    box = [
        Listed(name=part.name, quantity=part.pieces - (1 if part.id == "stab_seat" else 0))
        for part in parts
    ]
    box.append(Listed(name="cowl block", quantity=1))
    box.append(Listed(name="spruce strip, loose", quantity=3))
    known = {part.id for part in parts}
    return Ledger(
        states={name: state for name, state in _STATES.items() if name in known},  # type: ignore[misc]
        weighed={name: mass for name, mass in _WEIGHED.items() if name in known},
        pairs={
            "side_F1_F4": "mirrored",
            "wing_half": "mirrored",
            "wing_tip": "mirrored",
            "wing_seat": "mirrored",
        },
        cut={
            part.key: CutPiece(pieces=part.quantity, length=part.length)
            for part in cut_list_of(build.fuselage or Fuselage())[:_STICKS_CUT]
        },
        printed=tuple(printed),
        box=tuple(box),
    )
