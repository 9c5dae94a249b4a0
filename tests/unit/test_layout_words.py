"""What is said of paper, parts, woods and balance: short, with its number, and the way out."""

import numpy as np
import pytest

from hardkeel.balance.balancing import balance_of
from hardkeel.balance.model import Balance, Battery, Hatch, Mass, Wing
from hardkeel.base.errors import BadInput
from hardkeel.base.units import parse_number
from hardkeel.messages.balance import balance_sentence, bay_sentence, hatch_sentence
from hardkeel.messages.paper import calibration_sentence, cure_sentence, finding_sentence
from hardkeel.messages.parts import difference_sentence, hand_words, weight_sentence
from hardkeel.messages.swaps import laminate_sentence, swap_sentences
from hardkeel.paper.audit import Cause, audit
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.model import KnownLength, KnownPoint, Plan
from hardkeel.parts.lists import Difference
from hardkeel.parts.model import Part
from hardkeel.parts.swapping import Choice, Ply, figures_of, laminate_of
from hardkeel.parts.weighing import weight_of
from hardkeel.parts.woods import woods_with
from tests.audits import random_sheet

WOODS = woods_with({})

SAID: list[tuple[Cause, str, str]] = [
    ("right", "The sheet is right", "as it is"),
    ("scale", "printed at another scale", "Reprint it at"),
    ("scale-xy", "across it", "Reprint it at"),
    ("constant", "whatever its size", "line all round"),
    ("development", "drawn developed", "Do not correct"),
    ("one-part", "the rest of the sheet is right", "loft it anew"),
]


@pytest.mark.parametrize(("cause", "says", "cures"), SAID)
@pytest.mark.parametrize("unit", ["mm", "in"])
def test_every_cause_is_said_with_how_sure_and_what_to_do(
    cause: Cause, says: str, cures: str, unit: str
) -> None:
    rng = np.random.default_rng(4)
    found = audit(random_sheet(rng, cause))
    while found.cause != cause:
        found = audit(random_sheet(rng, cause))
    sentence = finding_sentence(found, unit)  # type: ignore[arg-type]
    assert says in sentence
    assert "% sure" in sentence
    cure = cure_sentence(found, unit)  # type: ignore[arg-type]
    assert cures in cure
    for text in (sentence, cure):
        assert text.endswith(".")
        assert "None" not in text
        assert len(text) < 150


def test_a_sheet_is_never_said_to_be_all_sure() -> None:
    rng = np.random.default_rng(2)
    assert "100% sure" not in finding_sentence(audit(random_sheet(rng, "scale", count=14)))


def _points(matrix: np.ndarray, count: int) -> tuple[KnownPoint, ...]:
    plan = np.array([[0.0, 0], [800, 10], [790, 150], [10, 140], [400, 75]])[:count]
    return tuple(
        KnownPoint(pixel=(float(u), float(v)), plan=(float(x), float(y)))
        for (u, v), (x, y) in zip(plan @ matrix.T, plan, strict=True)
    )


def test_a_scan_is_said_by_its_true_size_where_its_resolution_is_known() -> None:
    dots = 300 / 25.4
    stretched = np.array([[dots * 1.02, 0.0], [0.0, -dots * 0.99]])
    fit = calibrate(Plan(id="p", image="plans/p.png", points=_points(stretched, 5)))
    said = calibration_sentence(fit, 300.0)
    assert "102.00% of true size along" in said
    assert "99.00% of true size across" in said
    assert "longer" in said
    assert "mm a pixel" in calibration_sentence(fit, None)
    assert "306.0 pixels an inch along, 297.0 across" in calibration_sentence(fit, None, "in")
    leaning = stretched @ np.array([[1.0, 0.02], [0.0, 1.0]])
    skew = calibrate(Plan(id="p", image="plans/p.png", points=_points(leaning, 5)))
    assert "out of square" in calibration_sentence(skew, None)
    one = KnownLength(a=(0.0, 0.0), b=(1000.0, 0.0), length=100.0)
    single = calibrate(Plan(id="p", image="plans/p.png", lengths=(one,)))
    assert "across" not in calibration_sentence(single, 254.0)
    photo = calibrate(Plan(id="p", image="plans/p.png", photo=True, points=_points(stretched, 5)))
    assert "perspective" in calibration_sentence(photo, 300.0)


@pytest.mark.parametrize(
    ("one", "words"),
    [
        (Difference("side", 2, 0, None), "not on the printed list"),
        (Difference("side", 2, 0, 2), "but in the box"),
        (Difference("side", 2, 0, 0), "nor in the box"),
        (Difference("side", 2, 2, 0), "not in the box; 2 wanted"),
        (Difference("side", 2, 2, 1), "too few"),
        (Difference("side", 2, 2, 3), "too many"),
        (Difference("side", 2, 1, None), "the printed list says 1, the drawing 2"),
        (Difference("tray", 0, 1, None), "in the printed list"),
        (Difference("tray", 0, None, 1), "in the box"),
    ],
)
def test_every_disagreement_is_said(one: Difference, words: str) -> None:
    said = difference_sentence(one)
    assert words in said
    assert said[0].isupper()


def test_weights_are_said_by_what_is_known() -> None:
    part = Part(id="a", name="a", kind="x", material="spruce", size=(100.0, 10.0, 10.0))
    assert weight_sentence(weight_of(part, WOODS, None)) == "4.0 g by its size"
    assert weight_sentence(weight_of(part, WOODS, 4.2)) == "420 kg/m³ by the scale"
    unknown = part.but(material=None)
    assert weight_sentence(weight_of(unknown, WOODS, 4.2)) == "4.2 g weighed"
    assert weight_sentence(weight_of(unknown, WOODS, None)) == ""
    assert hand_words(part) == ""
    assert hand_words(part.but(hand="pair")) == "both hands"


def test_a_swap_is_said_in_grams_times_and_grams_in_the_nose() -> None:
    ply = figures_of(Choice("light-ply", 100.0, 40.0, 3.0), WOODS)
    balsa = figures_of(Choice("balsa-light", 100.0, 40.0, 3.0), WOODS)
    told, more = swap_sentences(("light ply", "balsa, light"), (ply, balsa), -6.2)
    assert told.startswith("Balsa, light is 4.0 g lighter")
    assert "0.3 times as stiff" in told
    assert "6.2 g less in the nose" in more
    same, rest = swap_sentences(("ply", "ply"), (ply, ply), 0.0)
    assert "as heavy" in same
    assert "nose" not in rest


def test_a_laminate_is_said_with_its_thickness_and_stiffness() -> None:
    made = laminate_of(
        [Ply("birch-ply", 0.4), Ply("carbon-strip", 0.2), Ply("birch-ply", 0.4)], 10.0, 100.0, WOODS
    )
    said = laminate_sentence(made, "mm")
    assert said.startswith("1.00 mm thick")
    assert "without glue" in said


WING = Wing(id="wing", le_x=200, span=1000, root_chord=200, tip_chord=200)
HEAVY_TAIL = (Mass(id="all", mass=600, x=300),)


def test_balance_is_said_for_every_case() -> None:
    bare = Balance(target_percent=50)
    assert balance_sentence(balance_of(HEAVY_TAIL, [WING], bare), bare).startswith(
        "It balances at 300 mm"
    )
    assert "No pack yet" in bay_sentence(balance_of(HEAVY_TAIL, [WING], bare), bare)
    free = Balance(target_percent=40, battery=Battery(mass=200))
    assert "bay is not given" in bay_sentence(balance_of(HEAVY_TAIL, [WING], free), free)
    assert hatch_sentence(free) == ""
    hatched = free.but(hatches=(Hatch(id="top hatch", between=(0, 90), width=50),))
    assert "Give the pack's size" in hatch_sentence(hatched)
    lost = Balance(target_percent=30)
    found = balance_of(HEAVY_TAIL, [WING], lost)
    assert found.nose_weight is None
    assert "40.0 mm behind the mark: move something heavy forward" in balance_sentence(found, lost)


@pytest.mark.parametrize(
    ("text", "value"),
    [("168", 168.0), (" 4,4 g", 4.4), ("-3.5", -3.5), ("30 %", 30.0), ("+.5", 0.5)],
)
def test_plain_numbers_are_read(text: str, value: float) -> None:
    assert parse_number(text) == value


@pytest.mark.parametrize("text", ["", "much", "1/2", "3 mm", "1e400", "9" * 30])
def test_what_is_no_number_is_told(text: str) -> None:
    with pytest.raises(BadInput):
        parse_number(text)
