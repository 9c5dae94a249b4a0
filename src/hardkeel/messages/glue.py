"""Glue in words: kinds, joints, reasons, what to mix, what a coupon says."""

from collections.abc import Sequence
from datetime import datetime
from typing import Final

from hardkeel.base.units import decimal, shortest
from hardkeel.glue.choosing import Choice, JointKind, Reason
from hardkeel.glue.coupons import BatchVerdict
from hardkeel.glue.kinds import KINDS, Glue, Range
from hardkeel.glue.mixing import Mix
from hardkeel.glue.model import Batch, Broke, Coupon, GlueKind, Preparation
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import sentence_case
from hardkeel.messages.plan import clock_words, day_words, minutes_words
from hardkeel.schedule.model import local_time

GLUE: Final = "Glue"
COUPONS: Final = "Coupons"
WHICH: Final = "What is to be glued?"
ASKED: Final = "What is asked of it"
ANY: Final = "any"
AS_KIND: Final = "as its kind"
THERE_IS: Final = "handled within, minutes"
MUST_SAND: Final = "it is sanded flush afterwards"
MUST_MOVE: Final = "moved for, minutes"
WARM: Final = "warmth, °C"
BEST: Final = "Best for it"
REST: Final = "Why not the others"
SCHOOLS: Final = "Where builders disagree"
MIX: Final = "To mix"
AREA: Final = "joint, cm²"
RATIO: Final = "hardener for 100 of resin"
BY_WEIGHT: Final = "by weight"
BY_VOLUME: Final = "by volume"
RANGES: Final = "Times at 20 °C, as makers' sheets of each kind and builders have them; your bottle goes before."
BY_ITS_SHEET: Final = "By your bottle's sheet"
OPEN: Final = "open, minutes"
HANDLE: Final = "to handle, minutes"
CURE: Final = "through, hours"
NEW_BATCH: Final = "New batch"
BATCHES: Final = "Batches"
NO_BATCH: Final = "No batch yet: mix one, and what you glue with it is written down."
BROKE: Final[tuple[tuple[Broke, str], ...]] = (
    ("wood", "the wood broke"),
    ("joint", "the joint let go"),
    ("soft", "the glue was soft"),
)
HOW_TO: Final = (
    "Glue two scraps crosswise with each batch, let them cure as the joint does, break them over an edge "
    "(eyes covered): the wood should go, not the joint."
)
JOINT_WORDS: Final[dict[JointKind, str]] = {
    "wide lamination": "a wide lamination",
    "end grain": "end grain",
    "strip joint": "strips in a frame",
    "ply to balsa": "ply to balsa",
    "foam": "foam",
    "wire to ply": "wire to ply",
    "tail seat": "the tail's seat",
    "gusset": "a gusset",
    "hinge": "a hinge",
}
_REASONS: Final[dict[Reason, str]] = {
    "no water": "no water to warp wide faces",
    "time to square": "time to square it",
    "sands like wood": "sands like the wood",
    "light": "light",
    "fills": "fills what gapes",
    "grips at once": "grips at once",
    "soaks in": "soaks into the grain",
    "tough": "takes knocks",
    "foam is safe": "leaves foam whole",
    "flexible": "gives a little",
    "usual": "what most builders take",
    "warps": "its water can't get out of wide faces and warps them",
    "one try": "one try only, nothing can be moved",
    "too quick": "sets before it is in place",
    "ridges": "harder than the wood, leaves a ridge",
    "hard to sand": "hard to sand flush",
    "does not sand": "does not sand, it rolls",
    "eats foam": "eats foam",
    "brittle": "brittle where it takes knocks",
    "leaves gaps": "does not fill the gap",
    "too slow": "not to be handled in that time",
    "soaked up": "the grain drinks it",
    "heavy": "heavier than it need be",
    "weak here": "weak on this joint",
    "chalks": "too cold for it: it chalks and does not hold, however long it is left",
}
_SCHOOLS: Final[dict[JointKind, str]] = {
    "wide lamination": "Slow epoxy under weights, contact adhesive in one try, or PVA dried and ironed: all are built. Wide faces trap water, so we put epoxy first.",
    "strip joint": "Tacked at once with thin cyanoacrylate, or pinned and left with aliphatic: the tack is quick and brittle, the other sands.",
    "tail seat": "Tacked and filleted, or slow epoxy and measured again while it is wet: what can be moved for an hour can be put right.",
    "gusset": "Wipe the corner before a gusset is fitted, or it will not seat.",
}
_CAUTIONS: Final[dict[str, str]] = {
    "cyanoacrylate": "Cyanoacrylate: fumes and eyes; never near a face.",
    "epoxy": "Epoxy sensitises the skin: gloves and air, and the maker's sheet.",
    "solvent": "Solvent: window open, no flame.",
    "polyurethane": "Polyurethane: gloves and air; it foams, and sticks to skin.",
}


def kind_words(kind: GlueKind) -> str:
    """``Slow epoxy``."""
    return sentence_case("PVA" if kind == "pva" else kind)


def range_words(span: Range) -> str:
    """``20 to 30 min``, ``6 h to 10 h``, ``at once``."""
    least, most = span
    if most <= 1:
        return "at once"
    first, last = minutes_words(max(least, 1)), minutes_words(most)
    if first.endswith(" min") and last.endswith(" min"):
        first = first.removesuffix(" min")
    return f"{first} to {last}"


def glue_line(glue: Glue) -> str:
    """What a kind usually does."""
    return (
        f"open {range_words(glue.open)}; to handle {range_words(glue.handle)}; through {range_words(glue.cure)}; "
        f"fills {shortest(glue.gap)} mm; {decimal(glue.weight * 100, 1)} g on 100 cm²"
    )


def choice_why(choice: Choice) -> str:
    """What speaks for it."""
    why = ", ".join(_REASONS[one] for one in choice.speaks[:3])
    return f"{sentence_case(why)}." if why else ""


def about(minutes: float) -> str:
    """A time as finely as it is known: ``about 25 min``, ``about 7 h``."""
    if minutes < 1:
        return "no time"
    if minutes < 10:  # noqa: PLR2004  each minute counts
        return f"about {round(minutes)} min"
    step = 5 if minutes < 60 else 30 if minutes < 600 else 60  # noqa: PLR2004  finer is not known
    return f"about {minutes_words(step * round(minutes / step))}"


def choice_under(choice: Choice) -> str:
    """Its times as they are now, and what speaks against it."""
    times = choice.times
    told = (
        f"{about(times.open)} to put together, {about(times.handle)} to handle, "
        f"{about(times.cure)} to be through"
    )
    if times.loaded > times.handle:
        told += f", no load before {about(times.loaded).removeprefix('about ')}"
    if choice.against:
        told += f"; but {', '.join(_REASONS[one] for one in choice.against[:2])}"
    return f"{sentence_case(told)}."


def against_line(choice: Choice) -> str:
    """``Aliphatic: its water … .``."""
    why = ", ".join(_REASONS[one] for one in choice.against[:2]) or "nothing speaks for it"
    return f"{kind_words(choice.glue.kind)}: {why}."


def schools_words(joint: JointKind) -> str:
    """Both schools, where there are any."""
    return _SCHOOLS.get(joint, "")


def caution_words(glue: Glue) -> str:
    """What to mind."""
    return " ".join(_CAUTIONS[one] for one in glue.hazards)


def mix_words(mix: Mix) -> str:
    """``5.9 g of resin and 3.1 g of hardener; 1.0 g of it is left in the cup``."""
    unit = "ml" if mix.by_volume else "g"
    return (
        f"{decimal(mix.resin, 1)} {unit} of resin and {decimal(mix.hardener, 1)} {unit} of hardener: {decimal(mix.needed, 1)} g for the joint, "
        f"{decimal(mix.wasted, 1)} g are left over."
    )


def weigh_words(grams: float) -> str:
    """What a glue that is not mixed weighs in the joint."""
    return f"About {decimal(grams, 1)} g in the joint."


def batch_title(batch: Batch) -> str:
    """``Slow epoxy, mixed Fri 2 Oct 19:05``."""
    how = "mixed" if KINDS[batch.kind].two_parts else "opened"
    return f"{kind_words(batch.kind)}, {how} {_when(batch.mixed)}"


def mixed_words(batch: Batch) -> str:
    """What the diary says of the evening it was mixed: ``Mixed slow epoxy, 48 to 100, at 19 °C``."""
    told = [f"{'Mixed' if KINDS[batch.kind].two_parts else 'Opened'} {_low(batch.kind)}"]
    if batch.ratio is not None:
        told.append(f"{shortest(batch.ratio)} to 100")
    if batch.temperature is not None:
        told.append(f"at {shortest(batch.temperature)} °C")
    return ", ".join(told)


def coupon_words(batch: Batch, coupon: Coupon) -> str:
    """``Broke a coupon of slow epoxy, 26 h old: the wood broke``."""
    return f"Broke a coupon of {_low(batch.kind)}, {coupon.age_hours:.0f} h old: {dict(BROKE)[coupon.broke]}"


def wait_words(through: datetime, now: datetime) -> str:
    """``Judge them from Thu 3 Dec 8:00``; empty once they may be."""
    return f"Judge them from {_when(through.isoformat())}." if now < through else ""


def too_young(through: datetime) -> str:
    """Asked once where a coupon is broken before the glue is through."""
    return (
        f"It is through on {_when(through.isoformat())}: what breaks before says nothing. "
        "Press again to write it down as broken too early."
    )


def verdict_words(verdict: BatchVerdict) -> str:
    """What the count says."""
    early = (
        f" {number_of(verdict.early, 'coupon')} broken too early: not counted."
        if verdict.early
        else ""
    )
    if verdict.verdict == "untried":
        return early.strip() or "No coupon broken yet."
    told = f"{verdict.held} of {verdict.tried} broke in the wood"
    soft = " One was still soft though it had its time: trust none of it." if verdict.soft else ""
    if verdict.let_go:
        return f"{told}: the joint let go. Look at what was glued with it.{soft}{early}"
    if verdict.soft:
        return f"{told}.{soft}{early}"
    share = f"{100 * verdict.at_least:.0f} %"
    if verdict.verdict == "good":
        return f"{told}: at least {share} of such joints are stronger than the wood, 19 times in 20.{early}"
    return f"{told}: good so far, but so few prove only {share}; five would prove more than half.{early}"


def prepared_words(found: Sequence[tuple[Preparation, BatchVerdict]]) -> str:
    """``Sanded: 3 of 3 broke in the wood; glossy: 0 of 2.``; empty where nothing is said of the faces."""
    told = [
        f"{way}: {verdict.held} of {verdict.tried} broke in the wood"
        if verdict.tried
        else f"{way}: broken too early"
        for way, verdict in found
    ]
    words = "; ".join(told)
    return f"{sentence_case(words)}." if words else ""


PREPARED: Final = "faces: not said"


def _low(kind: GlueKind) -> str:
    return "PVA" if kind == "pva" else kind


def _when(iso: str) -> str:
    """``Fri 2 Oct 19:05``."""
    moment = local_time(iso)
    return f"{day_words(moment)} {clock_words(moment)}"


def named_joints(titles: list[str]) -> str:
    """The joints that hang on a batch."""
    return (
        f"Glued with it: {'; '.join(titles)}."
        if titles
        else "Nothing is written down as glued with it."
    )


def batch_edit(kind: GlueKind) -> str:
    """The step's name for undo."""
    return f"a batch of {kind}"


COUPON_EDIT: Final = "break a coupon"
JOINT_EDIT: Final = "glued with this batch"
ALSO_GLUED: Final = "also glued with it…"


def bottle_edit(kind: GlueKind) -> str:
    """The step's name for undo."""
    return f"your own {kind}"
