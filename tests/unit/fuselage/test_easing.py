"""Ways out of a bend, the force that holds it, chamfers and saw angles: against beams and planes, not themselves."""

import math

import numpy as np
import pytest

from hardkeel.fuselage.bending import Bend, bends_of
from hardkeel.fuselage.bending_forces import (
    SPRINGS_BACK,
    bend_lines_of,
    pulls_of,
    remedy_of,
    sprung,
)
from hardkeel.fuselage.chamfers import leaving_longerons_of, post_chamfer_of
from hardkeel.fuselage.flexing import flexural_of, solid
from hardkeel.fuselage.model import (
    Former,
    Framing,
    Fuselage,
    Longeron,
    Member,
    Section,
    TailPost,
)
from hardkeel.messages.frame import bend_answer, chamfer_sentence, easing_lines, pull_sentence
from tests.frames import box

LIMITS = {"balsa-medium": (0.6, 1.5), "spruce": (0.45, 1.1), "rubberwood": (3.0, 5.0)}
MODULUS = solid({"balsa-medium": 3.0})


def test_a_bend_with_room_needs_no_way_out() -> None:
    bend = Bend("side", 3.0, 1000.0, 200.0, 0.15, "dry")
    easing = remedy_of(bend, "balsa-medium", LIMITS)
    assert easing.margin == pytest.approx(4.0)
    assert easing.laminating is None is easing.kerfing
    assert easing_lines(easing, "mm", {}) == ["It takes 4.0 times as much, dry."]


def test_laminations_are_thin_enough_and_no_thinner() -> None:
    bend = Bend("side", 6.0, 300.0, 200.0, 1.0, "soaked")
    easing = remedy_of(bend, "balsa-medium", LIMITS)
    lam = easing.laminating
    assert lam is not None
    assert lam.layers == 2  # 3.6 mm go dry round 300 mm
    assert 100 * lam.thickness / (2 * 300.0) <= 0.6
    one_fewer = bend.thickness / (lam.layers - 1)
    assert 100 * one_fewer / (2 * 300.0) > 0.6
    # two layers bend with an eighth of the whole's stiffness each: a quarter springs back
    assert lam.springs_back == pytest.approx(2 * (1 / 2) ** 3)
    assert easing.woods == ("rubberwood",)


def test_kerfs_leave_what_bends_dry_and_close_no_further_than_they_are_wide() -> None:
    bend = Bend("side", 6.0, 300.0, 200.0, 1.0, "soaked")
    kerf = remedy_of(bend, "balsa-medium", LIMITS).kerfing
    assert kerf is not None
    assert kerf.depth + kerf.left == pytest.approx(6.0)
    assert 100 * kerf.left / (2 * 300.0) == pytest.approx(0.6)
    turns = kerf.spacing / 300.0  # radians between two cuts
    assert turns * kerf.depth <= 1.0  # the saw's width
    assert kerf.spacing == pytest.approx(3 * 6.0)  # and never so far apart that corners show


def test_a_bend_that_is_hardly_too_tight_gets_no_scratches_for_kerfs() -> None:
    """A longeron 6 mm thick at 0.47 % where 0.45 go dry: cuts a quarter of a millimetre deep would lie metres apart."""
    bend = Bend("upper longeron from above", 6.0, 638.0, 200.0, 0.47, "soaked")
    assert remedy_of(bend, "spruce", LIMITS).kerfing is None


def test_what_hot_water_opens_is_not_soaked() -> None:
    bend = Bend("side", 2.0, 150.0, 200.0, 0.67, "too tight")
    told = easing_lines(remedy_of(bend, "light-ply", {"light-ply": (0.5, 0.5)}), "mm", {})
    assert "Do not soak it: hot water opens the glue between its plies." in told
    assert not any("clamped overnight" in line for line in told)


def test_a_wood_nothing_is_known_of_is_not_judged() -> None:
    bend = Bend("side", 3.0, 1000.0, 200.0, 0.15, None)
    easing = remedy_of(bend, "driftwood", LIMITS)
    assert easing.margin is None
    assert easing_lines(easing, "mm", {}) == []
    assert "nothing is known" in bend_answer(bend)


def three_stops(rise: float = 10.0) -> Fuselage:
    """A side of one height held at three places, the middle one `rise` out."""
    halves = (20.0, 20.0 + rise, 20.0)
    formers = tuple(
        Former(id=f"F{i}", station=200.0 * i, half_width=half, bottom=-30.0, top=30.0)
        for i, half in enumerate(halves)
    )
    return Fuselage(side_thickness=2.0, side_material="balsa-medium", formers=formers)


def test_three_stops_are_a_beam_loaded_in_the_middle() -> None:
    """S. P. Timoshenko, Strength of Materials, part I: P = 48 EI d / L³."""
    flexural = 3000.0 * 60.0 * 2.0**3 / 12
    load = 48 * flexural * 10.0 / 400.0**3
    nose, middle, tail = pulls_of(three_stops(), MODULUS)
    assert -middle.force == pytest.approx(load)
    assert nose.force == pytest.approx(load / 2)
    assert tail.force == pytest.approx(load / 2)


def test_forces_are_in_balance_and_those_of_a_beam_on_many_supports() -> None:
    """Against the stiffness method: a beam of cubic elements, its supports moved to the half-widths."""
    rng = np.random.default_rng(5)
    x = np.cumsum([0.0, *rng.uniform(80, 160, 5)])
    half = 25 + rng.normal(0, 6, 6)
    formers = tuple(
        Former(id=f"F{i}", station=float(a), half_width=float(b), bottom=-25.0, top=25.0)
        for i, (a, b) in enumerate(zip(x, half, strict=True))
    )
    fuselage = Fuselage(side_thickness=2.0, side_material="balsa-medium", formers=formers)
    found = np.array([pull.force for pull in pulls_of(fuselage, MODULUS)])
    assert found.sum() == pytest.approx(0.0, abs=1e-9)
    assert float(found @ x) == pytest.approx(0.0, abs=1e-6)
    n, flexural = len(x), 3000.0 * 50.0 * 2.0**3 / 12
    stiffness = np.zeros((2 * n, 2 * n))
    for i, h in enumerate(np.diff(x)):
        element = flexural / h**3 * np.array([
            [12, 6 * h, -12, 6 * h], [6 * h, 4 * h * h, -6 * h, 2 * h * h],
            [-12, -6 * h, 12, -6 * h], [6 * h, 2 * h * h, -6 * h, 4 * h * h]])  # fmt: skip
        at = slice(2 * i, 2 * i + 4)
        stiffness[at, at] += element
    turns = np.arange(1, 2 * n, 2)
    places = np.arange(0, 2 * n, 2)
    slopes = np.linalg.solve(
        stiffness[np.ix_(turns, turns)], -stiffness[np.ix_(turns, places)] @ half
    )
    forces = stiffness[np.ix_(places, places)] @ half + stiffness[np.ix_(places, turns)] @ slopes
    assert found == pytest.approx(-forces, rel=1e-6, abs=1e-9)


def test_a_straight_side_pulls_nowhere_and_a_thicker_one_pulls_by_the_cube() -> None:
    assert all(pull.force == 0 for pull in pulls_of(box(), MODULUS))
    thin, thick = three_stops(), three_stops().but(side_thickness=4.0)
    assert pulls_of(thick, MODULUS)[0].force == pytest.approx(8 * pulls_of(thin, MODULUS)[0].force)
    assert pulls_of(three_stops().but(side_material="driftwood"), MODULUS) == ()
    assert "at the nose" in pull_sentence(pulls_of(thin, MODULUS))


def test_the_chart_has_the_tightest_bend_as_its_top() -> None:
    fuselage = three_stops().but(
        sections=(Section.model_validate({"from": "F0", "to": "F2", "method": "sheet-sides"}),),
        longerons=(Longeron(id="upper", section=(5.0, 5.0), material="spruce"),),
    )
    lines = {line.member: line for line in bend_lines_of(fuselage, LIMITS)}
    for bend in bends_of(fuselage, LIMITS):
        line = lines[bend.member]
        assert float(np.nanmax(line.strain)) == pytest.approx(bend.strain, rel=1e-3)
        assert line.limits == LIMITS["balsa-medium" if bend.member == "side" else "spruce"]


def test_what_is_bent_over_springs_back_to_the_radius() -> None:
    low, high = SPRINGS_BACK["soaked"]
    assert 0 < low < high < 1
    over = sprung(400.0, 0.25)
    assert 1 / over * (1 - 0.25) == pytest.approx(1 / 400.0)


# -- ends -----------------------------------------------------------------------------------------


def closing(slope: float) -> Fuselage:
    """Straight sides that close in, a top that falls and a bottom that rises."""
    formers = tuple(
        Former(
            id=f"F{i}",
            station=100.0 * i,
            half_width=50 - slope * 100 * i,
            bottom=-40 + 5 * i,
            top=50 - 8 * i,
        )
        for i in range(4)
    )
    return Fuselage(
        side_thickness=3.0,
        formers=formers,
        tail_post=TailPost(station=400.0, half_width=50 - slope * 400, bottom=-20.0, top=18.0),
        sections=(
            Section.model_validate({"from": "F0", "to": "F2", "method": "sheet-sides"}),
            Section.model_validate({"from": "F2", "to": "tail_post", "method": "stick-sides"}),
        ),
        longerons=(
            Longeron(id="upper", section=(5.0, 5.0)),
            Longeron(id="lower", section=(5.0, 5.0)),
        ),
    )


def test_the_tail_post_is_chamfered_as_the_sides_run() -> None:
    post = post_chamfer_of(closing(0.1))
    assert post is not None
    assert post.sides == pytest.approx(math.degrees(math.atan(0.1)))
    assert post.top == pytest.approx(math.degrees(math.atan(0.08)))
    assert post.bottom == pytest.approx(math.degrees(math.atan(0.05)))
    assert "on each side face" in chamfer_sentence(post)
    assert post_chamfer_of(box()) is None


def test_saw_angles_make_the_cut_that_is_square_to_the_fuselage() -> None:
    """The blade's plane, swung and tilted on the stick's own table, turned back to the airframe."""
    upper, lower = leaving_longerons_of(closing(0.1))
    assert (upper.stop, upper.notch) == ("F2", 3.0)
    for one, rise in ((upper, -0.08), (lower, 0.05)):
        along = np.array([1.0, -0.1, rise])
        along /= np.linalg.norm(along)
        level = np.array([-along[1], along[0], 0.0])
        level /= np.linalg.norm(level)
        up = np.cross(along, level)
        swing, tilt = math.radians(one.mitre), math.radians(one.bevel)
        normal = (
            math.cos(tilt) * math.cos(swing) * along
            - math.cos(tilt) * math.sin(swing) * level
            - math.sin(tilt) * up
        )
        assert np.abs(normal) == pytest.approx([1.0, 0.0, 0.0], abs=1e-9)


def stick_sided(longeron: tuple[float, float] = (6.0, 6.0)) -> Fuselage:
    """Sides of sticks, 60 mm wide as far as F1 and home to 8 at the tail."""
    formers = tuple(
        Former(id=f"F{i}", station=150.0 * i, half_width=half, bottom=-30.0, top=30.0)
        for i, half in enumerate((30.0, 30.0, 22.0, 12.0, 4.0))
    )
    return Fuselage(
        formers=formers,
        sections=(Section.model_validate({"from": "F0", "to": "F4", "method": "stick-sides"}),),
        longerons=tuple(
            Longeron(id=name, section=longeron, material="spruce") for name in ("upper", "lower")
        ),
    )


def test_two_longerons_pull_as_two_beams() -> None:
    """EI is twice that of one stick, E·b·h³/12; nothing else bends in a side of sticks."""
    fuselage = stick_sided()
    flexural = flexural_of(fuselage, solid({"spruce": 10.0}))
    assert flexural == pytest.approx([2 * 10_000.0 * 6.0**4 / 12] * 5)
    loose = flexural_of(fuselage, solid({"spruce": 10.0}), joined=False)
    assert loose == pytest.approx(flexural)
    bare = fuselage.but(longerons=(), sections=(), side_thickness=1.0, side_material="spruce")
    thin = flexural_of(bare, solid({"spruce": 10.0}))
    assert thin == pytest.approx([10_000.0 * 60.0 / 12] * 5)


def test_what_was_glued_on_flat_bends_as_one() -> None:
    """Against a brute sum over a thousand fibres: EI = Σ E·dA·(y − ȳ)², ȳ where Σ E·dA·(y − ȳ) is nothing."""
    fuselage = three_stops().but(
        longerons=(Longeron(id="upper", section=(6.0, 5.0), material="spruce"),)
    )
    woods = solid({"balsa-medium": 3.0, "spruce": 10.0})
    steps = 8000
    y = (np.arange(steps) + 0.5) * 8.0 / steps  # 2 mm of side, 6 mm of longeron inside it
    weight = np.where(y < 2.0, 3000.0 * 60.0, 10_000.0 * 5.0) * 8.0 / steps
    middle = (weight * y).sum() / weight.sum()
    brute = (weight * (y - middle) ** 2).sum()
    assert flexural_of(fuselage, woods) == pytest.approx([brute] * 3, rel=1e-4)
    apart = 3000.0 * 60.0 * 8.0 / 12 + 10_000.0 * 5.0 * 216.0 / 12
    assert flexural_of(fuselage, woods, joined=False) == pytest.approx([apart] * 3)
    tight, loose = pulls_of(fuselage, woods), pulls_of(fuselage, woods, joined=False)
    assert "times less" in pull_sentence(tight, loose)
    assert "times less" not in pull_sentence(loose, loose)


def test_a_doubler_stiffens_only_where_it_lies() -> None:
    doubler = Member.model_validate(
        {"id": "d", "kind": "doubler", "from": "F0", "to": "F1", "thickness": 1.5, "inset": 5.0}
    )
    fuselage = three_stops().but(framing=Framing(members=(doubler,)))
    first, second, third = flexural_of(fuselage, MODULUS)  # type: ignore[misc]
    bare = 3000.0 * 60.0 * 8.0 / 12
    assert first > bare
    assert second > bare
    assert third == pytest.approx(bare)
