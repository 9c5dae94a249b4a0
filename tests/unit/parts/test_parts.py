"""Woods, swaps and laminates; lists that disagree; handed pairs; weights."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.messages.parts import (
    difference_sentence,
    pair_question,
    pair_sentence,
    weight_sentence,
)
from hardkeel.messages.woods import sources_text
from hardkeel.parts.handing import question_for, wrong_pairs
from hardkeel.parts.lists import Difference, compare, name_key, read_list
from hardkeel.parts.model import Ledger, Listed, OwnWood, Part
from hardkeel.parts.swapping import Choice, Ply, figures_of, laminate_of
from hardkeel.parts.weighing import weight_of
from hardkeel.parts.woods import WOODS, Wood, woods_with

WOODS_BY_ID = woods_with({})
DOUBLER = Part(
    id="d",
    name="doubler",
    kind="doubler",
    hand="pair",
    material="light-ply",
    size=(300.0, 80.0, 1.5),
)


@pytest.mark.parametrize("wood", WOODS, ids=lambda wood: wood.id)
def test_every_figure_of_a_wood_lies_in_its_range_and_says_where_it_is_from(wood: Wood) -> None:
    figures = {
        "density": wood.density,
        "stiffness": wood.stiffness,
        "across": wood.across,
        "strength": wood.strength,
        "dry": wood.bend[0],
        "soaked": wood.bend[1],
    }
    assert set(wood.spans) == set(wood.sources) == set(figures)
    bent = wood.bend != (0, 0)
    for name, (low, high) in wood.spans.items():
        if bent or name not in ("dry", "soaked"):
            assert low < figures[name] < high, name
        assert len(wood.sources[name]) > 10
    assert wood.source
    assert wood.bend[0] <= wood.bend[1]
    assert wood.across <= wood.stiffness


@pytest.mark.parametrize(
    ("wood_id", "stiffness", "strength"),
    # Wood Handbook, tables 5-3a and 5-5a, GPa and MPa
    [("spruce", 9.6, 65), ("basswood", 10.1, 60), ("beech", 11.9, 103)],
)
def test_woods_stand_near_their_handbook(wood_id: str, stiffness: float, strength: float) -> None:
    wood = WOODS_BY_ID[wood_id]
    assert wood.stiffness == pytest.approx(stiffness, rel=0.04)
    assert wood.strength == pytest.approx(strength, rel=0.04)


def test_a_woods_density_and_stiffness_are_of_one_kind() -> None:
    """White spruce, table 5-3a: specific gravity 0.36, a tenth more at 12 % moisture."""
    assert WOODS_BY_ID["spruce"].density == pytest.approx(0.36 * 1.12 * 1000, rel=0.02)


def test_light_ply_takes_no_more_soaked_than_dry() -> None:
    dry, soaked = WOODS_BY_ID["light-ply"].bend
    assert soaked == dry
    assert "interior glue" in WOODS_BY_ID["light-ply"].sources["soaked"]


def test_balsa_is_as_stiff_as_it_is_dense() -> None:
    """3.4 GPa and 21.6 MPa at specific gravity 0.16, in proportion; a soaked strip takes no more than 2 %."""
    for grade in ("light", "medium", "hard"):
        wood = WOODS_BY_ID[f"balsa-{grade}"]
        assert wood.stiffness / wood.density == pytest.approx(3.4 / 179.2, rel=0.03)
        assert wood.strength / wood.density == pytest.approx(21.6 / 179.2, rel=0.03)
        assert wood.spans["soaked"][1] <= 2.0


def test_dry_wood_is_bent_to_what_breaks_it_at_most() -> None:
    """The strain of the outer fibre at which clear wood breaks is some 1.0 to 1.4 times MOR / MOE."""
    for wood in WOODS:
        if wood.bend[0] and not wood.id.endswith("ply"):
            breaks = wood.strength / wood.stiffness / 10  # MPa and GPa, in percent
            assert wood.bend[0] <= breaks, wood.id
            assert wood.spans["dry"][1] <= 1.4 * breaks, wood.id


def test_a_wood_tells_its_ranges_and_tables() -> None:
    told = sources_text(WOODS_BY_ID["spruce"]).splitlines()
    assert told[1].startswith("stiffness along 7.5 to 11.7 GPa: Wood Handbook, table 5-3a")
    assert len(told) == 6
    assert len(sources_text(WOODS_BY_ID["brass"]).splitlines()) == 4, (
        "tube is not bent on the bench"
    )
    assert "density 7800 to 7900 kg/m³" in sources_text(WOODS_BY_ID["steel-wire"])


def test_an_own_figure_has_its_own_range_and_source() -> None:
    own = woods_with({"spruce": OwnWood(stiffness=9.0, source="my bending test")})["spruce"]
    assert own.spans["stiffness"] == pytest.approx((8.1, 9.9))
    assert own.sources["stiffness"] == own.sources["across"] == "my bending test"
    assert own.sources["density"] == WOODS_BY_ID["spruce"].sources["density"]
    assert own.spans["strength"] == WOODS_BY_ID["spruce"].spans["strength"]


def test_the_builders_own_figure_takes_the_tables_place() -> None:
    own = woods_with({"balsa-light": OwnWood(density=88.0)})["balsa-light"]
    assert (own.density, own.stiffness, own.own) == (
        88.0,
        WOODS_BY_ID["balsa-light"].stiffness,
        True,
    )


def test_a_piece_weighs_and_resists_what_the_textbook_says() -> None:
    found = figures_of(Choice("spruce", 1000.0, 10.0, 5.0), WOODS_BY_ID)
    assert found.mass == pytest.approx(20.0)
    assert found.flat == pytest.approx(9600 * 10 * 125 / 12)
    assert found.edge == pytest.approx(9600 * 5 * 1000 / 12)
    assert found.breaks_flat == pytest.approx(65 * 10 * 25 / 6)


@given(st.floats(0.3, 6), st.floats(5, 60))
def test_a_laminate_of_one_wood_is_a_solid_piece(thickness: float, width: float) -> None:
    plies = [Ply("balsa-hard", thickness / 3)] * 3
    made = laminate_of(plies, width, 100.0, WOODS_BY_ID)
    solid = figures_of(Choice("balsa-hard", 100.0, width, thickness), WOODS_BY_ID)
    assert made.flat == pytest.approx(solid.flat, rel=1e-9)
    assert made.edge == pytest.approx(solid.edge, rel=1e-9)
    assert made.mass == pytest.approx(solid.mass, rel=1e-9)
    assert made.neutral == pytest.approx(thickness / 2)


def test_carbon_belongs_outside() -> None:
    outside = [Ply("carbon-strip", 0.2), Ply("balsa-light", 3.0), Ply("carbon-strip", 0.2)]
    inside = [Ply("balsa-light", 1.5), Ply("carbon-strip", 0.4), Ply("balsa-light", 1.5)]
    out = laminate_of(outside, 20.0, 300.0, WOODS_BY_ID)
    middle = laminate_of(inside, 20.0, 300.0, WOODS_BY_ID)
    assert out.mass == pytest.approx(middle.mass)
    assert out.flat > 15 * middle.flat


@pytest.mark.parametrize(
    "plies", [[], [Ply("mahogany", 1.0)], [Ply("spruce", 0.0)], [Ply("spruce", 1.0)] * 30]
)
def test_a_laminate_that_can_not_be_is_told(plies: list[Ply]) -> None:
    with pytest.raises(BadInput):
        laminate_of(plies, 10.0, 10.0, WOODS_BY_ID)


def test_pasted_lists_are_read_with_and_without_a_heading() -> None:
    with_head = read_list("Part;Qty.;Wood\nFormer F3;1;light ply\nDoublers;2;\n")
    assert with_head == (
        Listed(name="Former F3", quantity=1, material="light ply"),
        Listed(name="Doublers", quantity=2),
    )
    assert read_list("F3, 2, ply\nwing tip") == (
        Listed(name="F3", quantity=2, material="ply"),
        Listed(name="wing tip", quantity=1),
    )
    assert read_list("\n\n") == ()
    with pytest.raises(BadInput, match="line 2"):
        read_list("name,qty\nF3,many")


def test_the_lists_are_compared_by_what_they_mean() -> None:
    assert name_key("Former F3") == name_key("F3")
    parts = (DOUBLER, Part(id="F3", name="former F3", kind="former"))
    found = compare(
        parts,
        [Listed(name="F3"), Listed(name="hatch", quantity=1)],
        [Listed(name="Doublers", quantity=1), Listed(name="F3")],
    )
    said = {one.name: one for one in found}
    assert said["doubler"] == Difference("doubler", drawing=2, printed=0, box=1)
    assert said["hatch"] == Difference("hatch", drawing=0, printed=1, box=0)
    assert "former F3" not in said
    assert "the drawing does not know it" in difference_sentence(said["hatch"])
    assert compare(parts, (), ()) == ()
    short = compare((DOUBLER,), (), [Listed(name="doubler", quantity=1)])
    assert "too few" in difference_sentence(short[0])


def test_a_pair_is_asked_about_before_glue_and_only_then() -> None:
    ledger = Ledger()
    assert question_for(DOUBLER, ledger, "cut") is None
    asked = question_for(DOUBLER, ledger, "glued")
    assert asked is not None
    assert asked.facing_up == 1
    assert "noses to the left" in pair_question(DOUBLER)
    assert question_for(DOUBLER, Ledger(pairs={"d": "mirrored"}), "glued") is None
    same = Ledger(pairs={"d": "same"})
    assert question_for(DOUBLER, same, "glued") is not None
    assert wrong_pairs((DOUBLER,), same) == (DOUBLER,)
    assert "same hand" in pair_sentence(DOUBLER)
    assert question_for(DOUBLER.but(hand="none"), ledger, "glued") is None


def test_the_scale_tells_the_density_and_when_it_is_another_wood() -> None:
    weight = weight_of(DOUBLER, WOODS_BY_ID, None)
    assert weight.estimated == pytest.approx(2 * 300 * 80 * 1.5 * 430e-6)
    assert weight.best == weight.estimated
    heavy = weight_of(DOUBLER, WOODS_BY_ID, 55.0)
    assert heavy.density == pytest.approx(55 / (2 * 300 * 80 * 1.5) * 1e6)
    assert heavy.odd
    assert "another wood" in weight_sentence(heavy)
    assert weight_of(DOUBLER.but(material="unknown"), WOODS_BY_ID, None).best is None


@pytest.mark.parametrize("material", ["birch-ply", "light-ply"])
@pytest.mark.parametrize(("thickness", "plies"), [(0.4, 3), (1.5, 3), (2.0, 5), (3.0, 5)])
@pytest.mark.parametrize("along", [True, False])
def test_ply_bent_flat_is_the_sum_of_its_fibres(
    material: str, thickness: float, plies: int, along: bool
) -> None:
    """Against a brute sum over six thousand fibres, each with its own ply's modulus."""
    wood = woods_with({})[material]
    assert wood.veneer is not None
    steps = 6000
    z = (np.arange(steps) + 0.5) / steps * thickness
    ply = np.minimum((z / thickness * plies).astype(int), plies - 1)
    with_faces = ply % 2 == 0
    modulus = np.where(with_faces == along, wood.veneer.along, wood.veneer.across)
    flexural = (modulus * (z - thickness / 2) ** 2).sum() * thickness / steps
    assert wood.flat(thickness, along=along) == pytest.approx(
        flexural * 12 / thickness**3, rel=1e-3
    )


def test_thin_birch_ply_is_sixteen_times_as_stiff_along_its_faces() -> None:
    """The Handbook of Finnish Plywood: 16.5 and 1.0 GPa flat for three plies, 12.7 and 4.8 for five; 10.6 of 66 MPa across."""
    birch = woods_with({})["birch-ply"]
    assert birch.flat(1.0) == pytest.approx(16.5, rel=0.03)
    assert birch.flat(1.0, along=False) == pytest.approx(1.0, rel=0.06)
    assert birch.flat(3.0) == pytest.approx(12.7, rel=0.1)
    assert birch.flat(3.0, along=False) == pytest.approx(4.8, rel=0.25)
    share = birch.flat_strength(1.0, along=False) / birch.strength
    assert share == pytest.approx(10.6 / 65.9, abs=0.04)


def test_swaps_and_laminates_follow_the_plies() -> None:
    woods = woods_with({})
    along = figures_of(Choice("birch-ply", 100.0, 20.0, 1.0), woods)
    across = figures_of(Choice("birch-ply", 100.0, 20.0, 1.0, along=False), woods)
    assert along.flat == pytest.approx(16.4e3 * 20.0 / 12, rel=0.01)
    assert along.flat / across.flat > 14
    assert along.edge / across.edge < 2  # on edge half of the plies resist either way
    alone = laminate_of([Ply("birch-ply", 1.0)], 20.0, 100.0, woods)
    assert alone.flat == pytest.approx(along.flat)
    measured = woods_with({"birch-ply": OwnWood(stiffness=12.0)})["birch-ply"]
    assert measured.flat(1.0) == 12.0
