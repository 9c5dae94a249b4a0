"""A scan's known lengths held against its print."""

import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.paper import add_plan, carry_lengths
from hardkeel.messages.paper import THE_SCANNER_TOO, doubt_sentence
from hardkeel.paper.audit import audit
from hardkeel.paper.carrying import pairs_of
from hardkeel.paper.model import KnownLength, Pair, Plan

PX_PER_MM = 150 / 25.4


def _scan(along: float, across: float) -> Plan:
    """A flat scan at 150 dpi of a sheet that is stretched, each way by its own share."""
    lengths = []
    for i, mm in enumerate((400.0, 300.0, 500.0, 350.0)):
        px, py = mm * PX_PER_MM * along, mm * PX_PER_MM * across
        lengths.append(KnownLength(a=(10, 10 + i), b=(10 + px, 10 + i), length=mm))
        lengths.append(KnownLength(a=(10 + i, 10), b=(10 + i, 10 + py), length=mm))
    return Plan(id="old sheet", image="plans/old.png", lengths=tuple(lengths))


def test_each_length_is_a_dimension_each_way() -> None:
    pairs = pairs_of(_scan(1.012, 0.994), 150.0)
    assert [(one.direction, one.plan) for one in pairs[:2]] == [("x", 400.0), ("y", 400.0)]
    assert pairs[0].measured == pytest.approx(404.8)
    assert pairs[1].measured == pytest.approx(397.6)
    assert pairs_of(_scan(1, 1).but(photo=True), 150.0) == ()


def test_a_length_that_says_its_way_keeps_it() -> None:
    known = KnownLength(a=(0, 0), b=(100, 90), length=20.0, along="y")
    plan = Plan(id="p", image="plans/p.png", lengths=(known,))
    assert pairs_of(plan, 150.0)[0].direction == "y"


def test_the_print_check_tells_what_the_scan_saw() -> None:
    build = add_plan(demo_build(), _scan(1.012, 0.994))
    typed = Pair(part="F2", plan=70.0, measured=70.1)
    build = build.but(audit=())
    carried = carry_lengths(build, "old sheet", 150.0)
    (sheet,) = carried.audit
    found = audit(sheet.pairs)
    assert found.cause == "scale-xy"
    assert THE_SCANNER_TOO in doubt_sentence(sheet, found)  # it may be the scanner, not the print
    by_hand = sheet.but(pairs=tuple(one.but(part="F2") for one in sheet.pairs))
    assert THE_SCANNER_TOO not in doubt_sentence(by_hand, found)
    again = carry_lengths(carried, "old sheet", 150.0)
    assert again.audit == carried.audit  # none twice
    with_typed = carried.but(audit=(sheet.but(pairs=(typed, *sheet.pairs)),))
    assert carry_lengths(with_typed, "old sheet", 150.0).audit[0].pairs[0] == typed
