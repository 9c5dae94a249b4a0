"""Pure edits of the ledger, and of the masses and the balance that follow its weights."""

from typing import Final

from hardkeel.airframe.parts import followed, parts_of, weights_of
from hardkeel.balance.model import Balance, Battery, Mass
from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import with_fuselage
from hardkeel.edits.named import edit
from hardkeel.parts.handing import question_for
from hardkeel.parts.lists import read_list
from hardkeel.parts.model import CheckedPiece, Ledger, OwnWood, PairAnswer, State
from hardkeel.project.model import Build
from hardkeel.project.soundness import check_build

SWAPPED_KINDS: Final = ("former", "side")


class AskFirst(BadInput):
    """A pair must be held against each other before it goes further.

    Attributes
    ----------
    part : str
        Which pair.
    """

    def __init__(self, part: str) -> None:
        self.part = part
        super().__init__("", f"hold both hands of {part} against each other first")


# -- ledger ----------------------------------------------------------------------------------------


def _with_ledger(build: Build, **changes: object) -> Build:
    return build.but(ledger=build.listed.but(**changes))


@edit
def set_state(build: Build, part_id: str, state: State) -> Build:
    """Say how far a part is.

    Raises
    ------
    AskFirst
        When it is a handed pair that is about to be glued and was not held against each other.
    """
    part = next((one for one in parts_of(build) if one.id == part_id), None)
    if part is None:
        raise BadInput("", f'no part "{part_id}"')
    ledger: Ledger = build.listed
    if question_for(part, ledger, state) is not None:
        raise AskFirst(part_id)
    return _with_ledger(build, states={**ledger.states, part_id: state})


@edit
def answer_pair(build: Build, part_id: str, answer: PairAnswer) -> Build:
    """Note what holding a pair against each other showed."""
    return _with_ledger(build, pairs={**build.listed.pairs, part_id: answer})


@edit
def weigh(build: Build, part_id: str, grams: float | None) -> Build:
    """Note what the scale says of all pieces of a part; a mass for it follows."""
    weighed = {name: mass for name, mass in build.listed.weighed.items() if name != part_id}
    if grams is not None:
        if not grams > 0:
            raise BadInput("", "a weight must be more than 0")
        weighed[part_id] = grams
    return followed(build, _with_ledger(build, weighed=weighed), frozenset({part_id}))


@edit
def paste_printed(build: Build, text: str) -> Build:
    """Take a printed list pasted as CSV.

    Raises
    ------
    BadInput
        Naming the line that can't be read.
    """
    return _with_ledger(build, printed=read_list(text))


@edit
def count_box(build: Build, text: str) -> Build:
    """Take what lies in the box, as CSV.

    Raises
    ------
    BadInput
        Naming the line that can't be read.
    """
    return _with_ledger(build, box=read_list(text))


@edit
def note_check(build: Build, piece: str, checked: CheckedPiece) -> Build:
    """Note what a picture said of a cut piece, in place of what one before said."""
    return _with_ledger(build, checked={**build.listed.checked, piece: checked})


@edit
def set_wood(build: Build, material: str, own: OwnWood | None) -> Build:
    """Put the builder's own figure in the table's place, or take it back."""
    woods = {name: wood for name, wood in build.listed.woods.items() if name != material}
    if own is not None:
        woods[material] = own
    return followed(build, _with_ledger(build, woods=woods))


# -- masses and balance ----------------------------------------------------------------------------


@edit
def bring_parts_in(build: Build) -> Build:
    """Let every part with a weight and a place count in the balance."""
    parts = parts_of(build)
    weights = weights_of(build, parts)
    own = {part.id for part in parts}
    kept = [mass for mass in build.masses if mass.id not in own]
    whole = {mass.id for mass in kept if mass.weighed} & {surface.id for surface in build.tail}
    for part in parts:
        best = weights[part.id].best
        if part.of in whole and part.kind != "seat":
            continue  # it was weighed with its surface
        if best and part.x is not None:
            weighed = weights[part.id].weighed is not None
            kept.append(Mass(id=part.id, mass=best, x=part.x, weighed=weighed))
    return _balanced(build.but(masses=tuple(kept)))


@edit
def weigh_surface(build: Build, surface_id: str, grams: float) -> Build:
    """Take a tail surface's weight as it stands, covered and with its glue, in the place of its parts' masses.

    Raises
    ------
    BadInput
        When it weighs nothing, has no place yet, or is not there.
    """
    if not grams > 0:
        raise BadInput("", "a weight must be more than 0")
    parts = [part for part in parts_of(build) if part.of == surface_id and part.kind != "seat"]
    weights = weights_of(build, tuple(parts))
    placed = [(part.x, weights[part.id].best or 1.0) for part in parts if part.x is not None]
    if not placed:
        raise BadInput("", f"{surface_id} has no place yet")
    x = sum(at * mass for at, mass in placed) / sum(mass for _, mass in placed)
    gone = {part.id for part in parts} | {surface_id}
    rest = tuple(mass for mass in build.masses if mass.id not in gone)
    whole = Mass(id=surface_id, mass=grams, x=round(x, 1), weighed=True)
    return _balanced(build.but(masses=(*rest, whole)))


@edit
def put_mass(build: Build, mass: Mass) -> Build:
    """Put a mass in the place of the one with its id, or last."""
    rest = [mass if one.id == mass.id else one for one in build.masses]
    if mass not in rest:
        rest.append(mass)
    return _balanced(build.but(masses=tuple(rest)))


@edit
def delete_mass(build: Build, mass_id: str) -> Build:
    """Take a mass out."""
    return _balanced(build.but(masses=tuple(m for m in build.masses if m.id != mass_id)))


@edit
def set_balance(build: Build, /, **changes: object) -> Build:
    """Set what is wanted: ``target_percent``, ``target_x``, ``nose_weight_x``, ``hatches``."""
    wanted = build.balance or Balance(target_percent=30.0)
    return _balanced(build.but(balance=wanted.but(**changes)))


@edit
def set_pack(build: Build, /, **changes: object) -> Build:
    """Set the pack's ``mass``, or where its middle may sit, ``between``."""
    return set_balance(build, battery=_pack(build).but(**changes))


@edit
def set_pack_size(build: Build, size: tuple[float, ...]) -> Build:
    """Set the pack's length, width and height, mm; its bay keeps its ends.

    Raises
    ------
    BadInput
        When it is longer than its bay, or a size is not above zero.
    """
    pack = _pack(build)
    bay, changed = pack.bay, pack.but(size=size)
    return set_balance(build, battery=changed.in_bay(*bay) if bay is not None else changed)


@edit
def set_bay(build: Build, end: str, at: float) -> Build:
    """Set the ``front`` or ``rear`` end of the pack's bay, mm; a bay that was not given is as long as the pack.

    Raises
    ------
    BadInput
        When the pack is longer than the bay.
    """
    pack = _pack(build)
    front, rear = pack.bay or ((at, at + pack.length) if end == "front" else (at - pack.length, at))
    ends = (at, rear) if end == "front" else (front, at)
    return set_balance(build, battery=pack.in_bay(*ends))


def _pack(build: Build) -> Battery:
    wanted = build.balance or Balance(target_percent=30.0)
    return wanted.battery or Battery(id="pack", mass=150.0)


@edit
def swap_wood(build: Build, part_id: str, material: str, thickness: float) -> Build:
    """Make a part of another wood, mm thick; its mass in the balance follows.

    Raises
    ------
    BadInput
        When the part's wood is not drawn but guessed, as a wing's.
    """
    fuselage = build.fuselage
    part = next((one for one in parts_of(build) if one.id == part_id), None)
    if fuselage is None or part is None or part.kind not in SWAPPED_KINDS:
        raise BadInput("", "the wood of that part is not drawn here")
    if not thickness > 0:
        raise BadInput("", "a thickness must be more than 0")
    if part.kind == "side":
        changed = fuselage.but(side_material=material, side_thickness=thickness)
    else:
        former = fuselage.former(part_id)
        if former is None:
            raise BadInput("", f'no former "{part_id}"')
        made = former.but(material=material, thickness=thickness)
        changed = fuselage.but(
            formers=tuple(made if one.id == part_id else one for one in fuselage.formers)
        )
    weighed = {name: g for name, g in build.listed.weighed.items() if name != part_id}
    drawn = with_fuselage(build, changed)
    if weighed != build.listed.weighed:  # what was on the scale was the old one
        drawn = _with_ledger(drawn, weighed=weighed)
    return followed(build, drawn, frozenset({part_id}))


def _balanced(build: Build) -> Build:
    check_build(build)
    return build
