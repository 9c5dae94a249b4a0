"""What rests on a changed fuselage: named with how far, whatever it rests on."""

import pytest

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.airframe.standing import base_of, left_behind, rests_of
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.surfaces import set_tail, set_wing
from hardkeel.fuselage.loft import loft_of
from hardkeel.messages.following import behind_sentence, offer_words
from hardkeel.project.model import Build


def raised(build: Build, by: float, figure: str = "top") -> Build:
    """Every former and the tail post higher at its top or bottom."""
    assert build.fuselage is not None
    for name, stop in build.fuselage.stations:
        build = set_station(build, name, **{figure: getattr(stop, figure) + by})
    return build


def test_a_wing_on_top_is_told_how_far_it_sits_inside_and_raised_as_far() -> None:
    build = build_from(Figures())
    rested = rests_of(build)
    assert rested["wing"].on == "top"
    assert left_behind(build, rested) == ()
    changed = raised(build, 6.0)
    found = {one.surface: one for one in left_behind(changed, rested)}
    assert found["wing"].by == pytest.approx(6.0)
    wing = changed.wings[0]
    top = float(loft_of(changed.fuselage).top.value(wing.le_x + wing.root_chord / 2))  # type: ignore[arg-type]
    assert found["wing"].over == pytest.approx(wing.z - top)
    said = behind_sentence(found["wing"], "mm")
    assert said.startswith("The wing lies ")
    assert "inside the top at F" in said
    assert "which rose by 6.0 mm" in said
    assert offer_words(found["wing"], "mm") == "Raise it by 6.0 mm"
    followed = set_wing(changed, "wing", z=wing.z + found["wing"].by)
    assert "wing" not in {one.surface for one in left_behind(followed, rested)}


def test_a_wing_moved_aft_to_where_the_top_is_lower_is_lowered() -> None:
    build = build_from(Figures())
    rested = rests_of(build)
    moved = set_wing(build, "wing", le_x=build.wings[0].le_x + 150.0)
    before, after = base_of(build, "wing", "top"), base_of(moved, "wing", "top")
    assert before is not None
    assert after is not None
    (one,) = [one for one in left_behind(moved, rested) if one.surface == "wing"]
    assert one.by == pytest.approx(after - before, abs=0.06)
    assert one.by < 0
    assert offer_words(one, "in").startswith("Lower it by 0.")


@pytest.mark.parametrize(("place", "on"), [("high", "top"), ("low", "bottom"), ("mid", "middle")])
def test_a_wing_rests_where_it_lies(place: str, on: str) -> None:
    build = build_from(Figures(wing_place=place))
    assert rests_of(build)["wing"].on == on


def test_a_parasol_rests_on_nothing_and_an_upper_wing_neither() -> None:
    assert "wing" not in rests_of(build_from(Figures(wing_place="parasol", parasol=70.0)))
    assert "upper_wing" not in rests_of(build_from(proposed("biplane")))


def test_what_stands_on_a_fin_goes_with_the_fin() -> None:
    build = build_from(proposed("tee"))
    rested = rests_of(build)
    assert rested["stab"].on == "fin"
    fin = next(one for one in build.tail if one.id == "fin")
    taller = set_tail(build, "fin", span=fin.span + 40.0)  # type: ignore[operator]
    found = {one.surface: one.by for one in left_behind(taller, rested)}
    assert found == {"stab": pytest.approx(20.0)}


def test_what_is_undone_leaves_nothing_behind() -> None:
    build = build_from(Figures())
    rested = rests_of(build)
    assert left_behind(raised(raised(build, 6.0), -6.0), rested) == ()
