"""What a fuselage is framed from, against a second implementation and against cases known by hand."""

import json
import math
import re
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import shapely

from hardkeel.airframe.framing import build_pieces
from hardkeel.cli.commands import run_command
from hardkeel.cli.frame import frame_json, frame_table
from hardkeel.demo.fleet import sallow
from hardkeel.demo.kettlewick import demo_build
from hardkeel.fuselage.bending import bends_of
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Board, Bracing, Former, Fuselage, Longeron, Section, TailPost
from hardkeel.fuselage.sticks import closed_stations, sticks_of
from hardkeel.joinery.buying import purchases_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.parts.woods import woods_with
from hardkeel.project.model import Build
from hardkeel.storage.format import text_of
from tests.draws import draws
from tests.frame_independent import frame

LIMITS = {wood.id: wood.bend for wood in woods_with({}).values()}
CLOSE_MM, CLOSE_DEG = 0.02, 0.05  # what two implementations may differ by


def random_fuselage(rng: np.random.Generator) -> Fuselage:
    """A fuselage as a builder might draw it: some formers, sheet ahead, sticks behind."""
    count = int(rng.integers(3, 9))
    stations = np.cumsum([0.0, *rng.uniform(60, 190, count)]) + rng.uniform(-40, 40)
    share = np.linspace(0, 1, count + 1)
    half = (
        12
        + 25 * np.sin(math.pi * np.minimum(0.95, 0.25 + 0.7 * share))
        + rng.normal(0, 1.0, count + 1)
    )
    top = (
        25
        + 25 * np.sin(math.pi * np.minimum(0.9, 0.2 + 0.7 * share))
        + rng.normal(0, 1.2, count + 1)
    )
    low = -top * rng.uniform(0.5, 1.0) + rng.normal(0, 1.2, count + 1)
    formers = tuple(
        Former(id=f"F{i + 1}", station=float(x), bottom=float(c), top=float(b), half_width=float(a))
        for i, (x, a, b, c) in enumerate(zip(stations[:-1], half, top, low, strict=False))
    )
    post = TailPost(
        station=float(stations[-1]), half_width=4.0, bottom=float(low[-1]), top=float(low[-1] + 25)
    )
    turn = f"F{int(rng.integers(2, count + 1))}"
    stick = float(rng.choice([3.0, 4.0, 5.0, 6.0]))
    deep = float(rng.choice([4.0, 6.0, 8.0]))
    return Fuselage(
        side_thickness=float(rng.choice([1.5, 2.0, 3.0])),
        side_material="balsa-medium",
        top_skin=float(rng.choice([0.0, 1.5])),
        bottom_skin=float(rng.choice([0.0, 1.5])),
        board=Board(z=float(rng.uniform(-90, -60)), inverted=False)
        if rng.random() < 0.5
        else Board(z=float(rng.uniform(80, 120)), inverted=True),
        formers=formers,
        tail_post=post,
        sections=(
            Section(from_="F1", to=turn, method="sheet-sides"),
            Section(from_=turn, to="tail_post", method="stick-sides"),
        ),
        longerons=(
            Longeron(id="upper", section=(5.0, deep), material="spruce"),
            Longeron(id="lower", section=(5.0, 6.0), material="spruce"),
        ),
        bracing=Bracing(
            upright=(stick, stick),
            diagonal=(stick, float(rng.choice([3.0, 5.0]))),
            pattern=str(rng.choice(["zigzag", "crossed", "none"])),  # type: ignore[arg-type]
        ),
    )


@pytest.mark.parametrize("seed", range(draws(6, 16)))
def test_all_figures_agree_with_the_second_implementation(seed: int) -> None:
    fuselage = random_fuselage(np.random.default_rng(seed))
    other = frame(fuselage)
    assert loft_of(fuselage).developed() == pytest.approx(other["developed"], abs=CLOSE_MM)
    for mine, (name, inner, bevel, spacer) in zip(
        fitted_formers(fuselage), other["formers"], strict=True
    ):
        assert mine.id == name
        assert mine.inner_half_width == pytest.approx(inner, abs=CLOSE_MM)
        assert mine.edge_bevel == pytest.approx(bevel, abs=CLOSE_DEG)
        assert mine.spacer == pytest.approx(spacer, abs=CLOSE_MM)
    side = next(bend for bend in bends_of(fuselage, LIMITS) if bend.member == "side")
    curvature, _ = other["side"]
    assert side.radius is not None
    assert 1 / side.radius == pytest.approx(curvature, rel=1e-3)
    assert 1 / side.radius >= curvature * (1 - 1e-12), "nothing that was looked at is tighter"
    mine_sticks = sticks_of(fuselage)
    assert [one.kind for one in mine_sticks if one.kind == "upright"] == [
        one["kind"] for one in other["sticks"] if one["kind"] == "upright"
    ]
    theirs = sorted(other["sticks"], key=lambda one: one["kind"])
    for stick, wanted in zip(sorted(mine_sticks, key=lambda one: one.kind), theirs, strict=True):
        assert stick.kind == wanted["kind"]
        assert stick.length == pytest.approx(wanted["length"], abs=CLOSE_MM)
        assert sorted(stick.ends[0]) == pytest.approx(sorted(wanted["a"]), abs=CLOSE_DEG)
        assert sorted(stick.ends[1]) == pytest.approx(sorted(wanted["b"]), abs=CLOSE_DEG)
    for part in cut_list_of(fuselage):
        if part.kind == "longeron":
            assert part.length == pytest.approx(
                other["longerons"][part.name.split()[0]], abs=CLOSE_MM
            )


def box(pattern: str = "zigzag") -> Fuselage:
    """A straight box of two bays, 200 by 100 outside: everything is known by hand."""
    formers = tuple(
        Former(id=f"F{i + 1}", station=100.0 * i, bottom=-50, top=50, half_width=30)
        for i in range(3)
    )
    return Fuselage(
        formers=formers,
        sections=(Section(from_="F1", to="F3", method="stick-sides"),),
        longerons=(
            Longeron(id="upper", section=(6, 6), material="spruce"),
            Longeron(id="lower", section=(6, 6), material="spruce"),
        ),
        bracing=Bracing(upright=(5, 5), diagonal=(5, 4), pattern=pattern),  # type: ignore[arg-type]
    )


def test_a_straight_box_is_as_one_reckons_it() -> None:
    sticks = sticks_of(box())
    uprights = [one for one in sticks if one.kind == "upright"]
    assert [one.length for one in uprights] == pytest.approx([88.0] * 3)
    assert [one.ends for one in uprights] == [((90.0,), (90.0,))] * 3
    assert [one.outline[0][0] for one in uprights] == [0.0, 97.5, 195.0]
    first, second = (one for one in sticks if one.kind == "diagonal")
    # the bay is 92.5 wide (5 to 97.5) and 88 high
    slope = math.degrees(math.atan2(88.0, 92.5))
    assert first.ends[0] == pytest.approx((90 - slope, slope)), "the upright's face first"
    assert first.length == pytest.approx(second.length)
    # a strip 4 wide along the diagonal reaches just from corner to corner: both its ends are points
    assert first.length == pytest.approx(math.hypot(88.0, 92.5))
    assert bends_of(box(), LIMITS)[0].radius is None
    assert bends_of(box(), LIMITS)[0].verdict == "dry"


def test_zigzag_alternates_from_the_lower_front_corner() -> None:
    first, second = (one for one in sticks_of(box()) if one.kind == "diagonal")

    def rises(stick: object) -> bool:
        points = sorted(stick.outline)  # type: ignore[attr-defined]
        return bool(points[0][1] < points[-1][1])

    assert (rises(first), rises(second)) == (True, False)
    assert len([one for one in sticks_of(box("crossed")) if one.kind == "diagonal"]) == 4
    assert not [one for one in sticks_of(box("none")) if one.kind == "diagonal"]


def test_a_side_bent_to_a_circle_has_its_radius() -> None:
    """Ten pins on a circle of 900 mm: a batten through them bends to it within a few percent."""
    radius = 900.0
    at = np.linspace(0, 500, 11)
    half = 60 + np.sqrt(radius**2 - (at - 250) ** 2) - radius
    formers = tuple(
        Former(id=f"F{i + 1}", station=float(x), bottom=-20, top=20, half_width=float(y))
        for i, (x, y) in enumerate(zip(at, half, strict=True))
    )
    made = Fuselage(
        side_thickness=3.0,
        side_material="balsa-medium",
        formers=formers,
        sections=(Section(from_="F3", to="F9", method="sheet-sides"),),
    )
    [side] = bends_of(made, LIMITS)
    assert side.radius == pytest.approx(radius, rel=0.03)
    assert side.strain == pytest.approx(100 * 3.0 / (2 * radius), rel=0.03)
    assert side.verdict == "dry"
    arc = 2 * radius * math.asin(250 / radius)
    assert loft_of(made).developed()[-1] == pytest.approx(arc, abs=0.05)


@pytest.mark.parametrize(
    ("thickness", "verdict"), [(3.0, "dry"), (20.0, "soaked"), (60.0, "too tight")]
)
def test_the_wood_says_how_it_is_bent(thickness: float, verdict: str) -> None:
    formers = tuple(
        Former(id=f"F{i + 1}", station=100.0 * i, bottom=-20, top=20, half_width=y)
        for i, y in enumerate((20.0, 32.0, 36.0, 32.0, 20.0))
    )
    made = Fuselage(
        side_thickness=thickness,
        side_material="balsa-medium",
        formers=formers,
        sections=(Section(from_="F1", to="F5", method="sheet-sides"),),
    )
    assert bends_of(made, LIMITS)[0].verdict == verdict
    assert bends_of(made.but(side_material="bamboo"), LIMITS)[0].verdict is None


def part(length: float, quantity: int = 2) -> CutPart:
    return CutPart("p", "upright", quantity, (5.0, 5.0), length, (), "balsa-medium")


def test_the_wood_to_buy_holds_all_parts_and_no_less_would_do() -> None:
    [one] = purchases_of([part(500.0, 3), part(400.0, 3), part(10.0, 2)])
    assert (one.stock, one.pieces, one.at_least, one.joined) == (915.0, 3, 3, 0)
    assert one.waste == pytest.approx(100 * (1 - 2720 / 2745))
    [long] = purchases_of([part(2000.0, 1)])
    assert (long.stock, long.pieces, long.joined) == (1830.0, 2, 1)
    [turned, other] = purchases_of(
        [part(100.0), CutPart("q", "upright", 1, (3.0, 5.0), 10.0, (), None)]
    )
    assert (turned.section, other.section) == ((5.0, 5.0), (3.0, 5.0))


@pytest.mark.parametrize("seed", range(draws(5, 12)))
def test_the_bound_is_never_over_what_is_bought(seed: int) -> None:
    rng = np.random.default_rng(seed)
    parts = [part(float(length), 1) for length in rng.uniform(20, 700, 40)]
    [one] = purchases_of(parts)
    total = sum(p.length for p in parts)
    assert math.ceil(total / one.stock - 1e-9) <= one.at_least <= one.pieces
    assert one.pieces <= one.at_least + 1
    assert one.waste == pytest.approx(100 * (1 - total / (one.pieces * one.stock)))


def test_the_command_tells_what_the_contract_wants() -> None:
    build = Build(fuselage=random_fuselage(np.random.default_rng(5)), name="Spare")
    told = frame_json(build)
    assert {"plan_length", "developed_length", "stations"} <= set(told["sides"])
    assert told["sides"]["developed_length"] > told["sides"]["plan_length"]
    cut = told["cut_list"]
    assert all(
        {"part", "kind", "quantity", "section", "length", "angle_a", "angle_b", "material"}
        <= set(one)
        for one in cut
    )
    assert {one["kind"] for one in cut} >= {"upright", "longeron"}
    assert all(one["quantity"] == 2 for one in cut)
    bought = sum(one["pieces"] * one["stock_length"] for one in told["buy"])
    assert bought >= sum(one["quantity"] * one["length"] for one in cut)
    table = frame_table(build, "in")
    assert "″" in table
    assert " mm" not in table
    sizes = [line for line in table.splitlines() if "×" in line]
    assert sizes
    assert all(re.search(r"\d\.\d{3} × \d\.\d{3}″", line) for line in sizes)


def test_the_demo_is_framed(tmp_path: Path) -> None:
    told = frame_table(demo_build(), "mm")
    assert "bends dry" in told
    assert "Buy" in told
    assert "Square" not in told


def test_the_table_tells_how_square_the_frame_stands() -> None:
    told = frame_table(sallow(), "mm")
    assert "Twisted. From nose to tail it turns 2.77°" in told
    assert "Height of F3 top starboard does not fit the rest, by +5.1 mm: take it again." in told
    assert "  Twist the whole box back before the glue sets: F9 port side up" in told
    assert "Hold it so" in told


def test_where_longerons_leave_no_room_there_is_no_stick_and_that_is_told() -> None:
    low = box().but(
        formers=tuple(
            one.but(top=5.0, bottom=-5.0) if one.id == "F3" else one for one in box().formers
        )
    )
    assert [one.kind for one in sticks_of(low)] == ["upright", "upright", "diagonal"]
    [(name, lacking)] = closed_stations(low)
    assert name == "F3"
    assert lacking > 1.9, "10 mm high, for two longerons of 6 that lie aslant"
    assert "F3: the longerons leave no room" in frame_table(Build(fuselage=low), "mm")
    assert closed_stations(box()) == ()


def test_without_bracing_there_are_no_sticks() -> None:
    assert sticks_of(box().but(bracing=None)) == ()


WEIRD: tuple[Any, ...] = (
    None,
    -1.0,
    0.0,
    1e-9,
    1e9,
    1e308,
    "x",
    "",
    [],
    {},
    True,
    [1.0, -2.0],
    "F1",
    "tail_post",
    3.7,
)


def spoiled(data: Any, rng: np.random.Generator) -> Any:
    """The same JSON with something in it replaced, taken out or doubled."""
    at, key, seen = data, None, [data]
    while isinstance(at, dict | list) and at:
        keys = list(at) if isinstance(at, dict) else list(range(len(at)))
        key = keys[int(rng.integers(len(keys)))]
        seen.append(at)
        if not isinstance(at[key], dict | list) or rng.random() < 0.2:
            break
        at = at[key]
    if not isinstance(at, dict | list) or key is None:
        return data
    what = rng.random()
    if what < 0.6:
        at[key] = WEIRD[int(rng.integers(len(WEIRD)))]
    elif what < 0.8:
        del at[key]
    elif isinstance(at, list):
        at.append(at[key])
    return data


@pytest.mark.parametrize("seed", range(draws(14, 40)))
def test_a_spoiled_file_is_framed_or_refused_with_one_sentence(
    seed: int, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    rng = np.random.default_rng(1000 + seed)
    data = json.loads(text_of(Build(fuselage=random_fuselage(rng))))
    for _ in range(int(rng.integers(1, 3))):
        data["fuselage"] = spoiled(data["fuselage"], rng) or {}
    path = tmp_path / "build.json"
    path.write_text(json.dumps(data), encoding="utf-8")
    code = run_command(["frame", str(path), "--json"])
    told = capsys.readouterr()
    assert code in (0, 2)
    if code == 2:
        assert told.out == ""
        assert told.err.count("\n") == 1
        assert "Traceback" not in told.err
    else:
        assert json.loads(told.out)["sides"]["plan_length"] > 0
        assert "NaN" not in told.out
        assert "Infinity" not in told.out


def test_sheets_are_nested_only_when_they_are_asked_for_and_then_say_where_each_piece_lies() -> (
    None
):
    build = demo_build()
    assert "sheets" not in frame_json(build)
    told = frame_json(build, seconds=0.0)["sheets"]
    assert told
    pieces = {one.name: one for one in build_pieces(build)}
    wanted = sum(one.quantity for one in pieces.values())
    assert sum(len(one["placed"]) for one in told) == wanted
    for one in told:
        long, wide = one["size"]
        for placed in one["placed"]:
            outline = np.array(placed["outline"])
            area = float(shapely.Polygon(outline).area)
            assert area == pytest.approx(shapely.Polygon(pieces[placed["piece"]].outline).area)
            assert outline.min() >= -1e-6
            assert outline[:, 1].max() <= wide + 1e-6
            assert 1 <= placed["sheet"] <= one["sheets"]
        assert long > 0
    table = frame_table(build, "mm", seconds=0.0)
    assert len(table.splitlines()) == len(frame_table(build, "mm").splitlines()) + len(told)
