"""The order of work of every arrangement of the tail: nothing waits for itself, each is glued on what it stands on."""

import pytest

from hardkeel.airframe.arranging import Arrangement
from hardkeel.airframe.figures import Figures, build_from
from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.airframe.orders.tail import seating_order
from hardkeel.edits.tail import arrange, arrangement_of, set_built
from hardkeel.messages.steps import step_title
from hardkeel.project.model import Build
from hardkeel.tail.kinds import tail_kinds
from hardkeel.tail.model import Kind

WAYS: tuple[Arrangement, ...] = ("usual", "t", "v", "twin")


def built(way: Arrangement, kind: Kind) -> Build:
    """A sport model with this tail, all of it of one kind."""
    build = arrange(build_from(Figures()), way)
    for surface in build.tail:
        build = set_built(build, surface.id, kind)
    return build


@pytest.mark.parametrize("kind", tail_kinds())
@pytest.mark.parametrize("way", WAYS)
def test_nothing_waits_for_itself(way: Arrangement, kind: Kind) -> None:
    build = built(way, kind)
    steps = steps_at_hand(build)  # refuses steps that wait for each other
    names = [step.id for step in steps]
    for surface in build.tail:
        assert f"{surface.id} seat" in names
    assert all(step_title(step) for step in steps)


def test_a_stabilizer_on_the_fin_is_set_and_glued_once_the_fin_stands() -> None:
    names = [step.id for step in steps_at_hand(built("t", "stick"))]
    order = [names.index(one) for one in ("true fin", "fin seat", "true stab", "stab seat")]
    assert order == sorted(order)
    top = next(one for one in steps_at_hand(built("t", "stick")) if one.id == "stab seat")
    assert "on top of the fin" in step_title(top)


def test_a_low_stabilizer_goes_before_the_fin_and_both_fins_after_it() -> None:
    names = [step.id for step in steps_at_hand(built("twin", "foam"))]
    seats = [names.index(f"{one} seat") for one in ("stab", "fin", "fin_starboard")]
    assert seats == sorted(seats)
    assert names.index("true fin_starboard") > names.index("stab seat")
    assert names.index("true fin_starboard") > names.index("true wing")


def test_a_v_is_glued_when_both_halves_are_set() -> None:
    names = [step.id for step in steps_at_hand(built("v", "ribbed"))]
    halves = [names.index(f"true vee_{side}") for side in ("port", "starboard")]
    assert max(halves) < names.index("vee seat")


def test_each_way_leads_to_each_other_and_back() -> None:
    start = build_from(Figures())
    for first in WAYS:
        for then in WAYS:
            build = arrange(arrange(start, first), then)
            assert arrangement_of(build) == then
            back = arrange(build, "usual")
            assert arrangement_of(back) == "usual"
            assert [(one.id, one.duty) for one in back.tail] == [
                ("stab", "stabilizer"),
                ("fin", "fin"),
            ]
            assert back.tail[0].dihedral == 0.0
            assert {body.id for body in back.surveyed.bodies} == {"fuselage", "wing", "stab", "fin"}


def test_what_stands_on_what() -> None:
    tee = arrange(build_from(Figures()), "t")
    assert [one.id for one in seating_order(tee.tail)] == ["fin", "stab"]
    assert [one.id for one in seating_order(build_from(Figures()).tail)] == ["stab", "fin"]
