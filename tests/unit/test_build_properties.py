"""Properties of whole builds: files give them back, edits keep them sound, drawings cover them."""

import json
import math
import random
from pathlib import Path

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from hardkeel.airframe.bodies import bodies_of, marks_from, redrawn
from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.balance.balancing import balance_of
from hardkeel.balance.model import Balance
from hardkeel.base.errors import BadInput
from hardkeel.cli.audit import audit_json
from hardkeel.cli.balance import balance_json, balance_table
from hardkeel.cli.commands import run_command
from hardkeel.cli.parts import parts_json, parts_table
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.dragging import dragged
from hardkeel.fuselage.fairing import bumps_of
from hardkeel.fuselage.loft import former_at, loft_of
from hardkeel.fuselage.model import Former, Fuselage, TailPost
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.picture.board import figures_of_drag, lines_of
from hardkeel.project.model import Build
from hardkeel.project.soundness import check_build
from hardkeel.storage.format import build_from_text, text_of
from tests.builds import balances, builds, fuselages, masses
from tests.draws import draws
from tests.strategies import seeds


@settings(max_examples=draws(13, 40))
@given(build=builds())
def test_a_file_gives_back_every_section(build: Build) -> None:
    check_build(build)
    text = text_of(build)
    again = build_from_text(text)
    assert again == build
    assert text_of(again) == text


@settings(max_examples=draws(13, 40))
@given(build=builds())
def test_every_build_has_parts_with_sizes_that_a_saw_can_cut(build: Build) -> None:
    parts = parts_of(build)
    ids = [part.id for part in parts]
    assert len(ids) == len(set(ids))
    weights = weights_of(build, parts)
    for part in parts:
        assert all(math.isfinite(side) and side >= 0 for side in part.size)
        weight = weights[part.id]
        if weight.estimated is not None:
            assert weight.least is not None
            assert weight.most is not None
            assert weight.least <= weight.estimated <= weight.most
    json.dumps(parts_json(build), allow_nan=False)
    assert parts_table(build, "in")
    json.dumps(audit_json(build), allow_nan=False)


@settings(max_examples=draws(20, 60))
@given(weights=masses, wanted=balances)
def test_balance_never_gives_what_is_not_a_number(
    weights: tuple[object, ...], wanted: object
) -> None:
    build = demo_build().but(masses=weights, balance=wanted)
    build = build.but(balance=build.balance or Balance())
    assert build.balance is not None
    try:
        found = balance_of(build.masses, build.wings, build.balance)
    except BadInput:
        return
    assert math.isfinite(found.x)
    assert found.nose_weight is None or found.nose_weight >= 0
    if found.nose_weight is not None and found.battery_fits is not False:
        assert found.nose_weight == 0 or build.balance.battery is None
    json.dumps(balance_json(build), allow_nan=False)
    assert balance_table(build, "mm")


@settings(max_examples=draws(20, 60))
@given(fuselage=fuselages())
def test_former_shapes_never_leave_their_outside(fuselage: Fuselage) -> None:
    check_fuselage(fuselage)
    for former in fuselage.formers:
        shape = shape_of(fuselage, former)
        whole = 2 * former.half_width * (former.top - former.bottom)
        assert 0 <= shape.area <= whole + 1e-6
        for ring in shape.wood:
            for y, z in ring:
                assert abs(y) <= former.half_width + 1e-3
                assert former.bottom - 1e-3 <= z <= former.top + 1e-3
        rough = shape_of(fuselage, former, rough=True)
        assert rough.area >= shape.area - 1e-6
        assert rough.lightening == ()


# a former 0.6 mm beside another made hundredths count for millimetres
_ONE_CLOSE_BESIDE = Fuselage(
    formers=(
        Former(id="F1", station=0, bottom=-1.53, top=98.88, half_width=52.6),
        Former(id="F2", station=153, bottom=-0.24, top=94.7, half_width=67.92),
    ),
    tail_post=TailPost(station=184, bottom=0, top=12, half_width=3),
)

# narrow, wide and narrow again within sixteen millimetres: the half width swings through nothing before it
_PINCHED = Fuselage(
    formers=(
        Former(id="F1", station=0, bottom=0, top=15, half_width=6, corner=30),
        Former(id="F2", station=8, bottom=0, top=16, half_width=7, corner=30),
        Former(id="F3", station=62, bottom=0, top=15, half_width=6),
        Former(id="F4", station=70, bottom=0, top=15, half_width=28, corner=30),
        Former(id="F5", station=78, bottom=0, top=15, half_width=6),
    ),
    tail_post=TailPost(station=120, bottom=0, top=12, half_width=3),
)


@settings(max_examples=draws(20, 60))
@given(fuselage=fuselages(), share=st.floats(0.02, 0.98))
@example(fuselage=_ONE_CLOSE_BESIDE, share=0.828125)
@example(fuselage=_PINCHED, share=0.5)
def test_a_lofted_former_does_not_move_the_loft(fuselage: Fuselage, share: float) -> None:
    """A natural cubic through one more of its own points is the same curve."""
    loft = loft_of(fuselage)
    first, last = loft.stations[0], loft.stations[-1]
    station = float(first + share * (last - first))
    try:
        made = former_at(fuselage, station, "new")
    except BadInput:
        return  # one stands there
    more = loft_of(fuselage.but(formers=(*fuselage.formers, made)))
    along = np.linspace(first, last, 60)
    for line in ("half_width", "top", "bottom"):
        before, after = loft.line(line).value(along), more.line(line).value(along)
        scale = max(1.0, float(np.abs(before).max()))
        if loft.line(line).value(station) >= 0 or line != "half_width":
            assert np.abs(before - after).max() < 1e-6 * scale


@settings(max_examples=draws(20, 60))
@given(fuselage=fuselages(), pick=st.randoms(use_true_random=False))
def test_a_handle_dropped_where_it_was_changes_nothing(
    fuselage: Fuselage, pick: random.Random
) -> None:
    chosen = pick.choice(fuselage.stations)[0]
    board = lines_of(fuselage, chosen)
    handle = pick.choice(board.handles)
    moved = dragged(fuselage, handle.stop, **figures_of_drag(handle, handle.at))
    before, after = dict(fuselage.stations)[handle.stop], dict(moved.stations)[handle.stop]
    for figure in ("station", "half_width", "top", "bottom"):
        assert getattr(after, figure) == pytest.approx(getattr(before, figure), abs=0.0501)


@settings(max_examples=draws(10, 30))
@given(build=builds())
def test_redrawing_what_has_not_changed_changes_nothing(build: Build) -> None:
    assert redrawn(build, build) == build
    assert {body.id for body in build.surveyed.bodies} == {body.id for body in bodies_of(build)}
    assert {mark.id for mark in build.surveyed.marks} == {mark.id for mark in marks_from(build)}


@settings(max_examples=draws(8, 20))
@given(seed=seeds)
def test_any_walk_of_edits_keeps_a_build_sound(seed: int) -> None:
    rng = random.Random(seed)
    build = demo_build()
    for _ in range(8):
        try:
            build = _random_edit(rng, build)
        except BadInput:
            continue
        check_build(build)
        assert build_from_text(text_of(build)) == build
        assert build.fuselage is not None
        assert isinstance(bumps_of(build.fuselage), tuple)


def _random_edit(rng: random.Random, build: Build) -> Build:
    assert build.fuselage is not None
    names = [name for name, _ in build.fuselage.stations]
    name, (a, b) = rng.choice(names), rng.sample(names, 2)
    match rng.randrange(7):
        case 0:
            return drawing.set_station(build, name, half_width=rng.uniform(2, 60))
        case 1:
            return drawing.set_station(build, name, top=rng.uniform(-20, 80))
        case 2:
            return drawing.add_former(build, rng.uniform(-40, 1000))
        case 3:
            return drawing.delete_former(build, name)
        case 4:
            return drawing.rename_former(build, name, f"{name}x")
        case 5:
            return drawing.set_method(build, a, b, "board")
        case _:
            return drawing.set_skins(build, top_skin=rng.uniform(-1, 4))


def test_bumps_of_random_fair_lines_are_found_and_fair_ones_left_alone() -> None:
    """Statistics over many fuselages: hardly a false name, hardly a bump missed."""
    rng = np.random.default_rng(9)
    false, missed, rounds = 0, 0, 150
    for _ in range(rounds):
        fuselage = _fair_fuselage(rng)
        false += bool(bumps_of(fuselage))
        i = int(rng.integers(1, len(fuselage.formers) - 1))
        former = fuselage.formers[i]
        off = float(rng.choice([-1, 1]) * rng.uniform(2.0, 4.0))
        spoiled = former.but(top=former.top + off)
        formers = (*fuselage.formers[:i], spoiled, *fuselage.formers[i + 1 :])
        found = bumps_of(fuselage.but(formers=formers))
        missed += not (found and found[0].former == former.id and found[0].line == "top")
    assert false <= 0.05 * rounds
    assert missed <= 0.10 * rounds


def _fair_fuselage(rng: np.random.Generator) -> Fuselage:
    """Gentle waves with a tenth of a millimetre of drawing error."""
    count = int(rng.integers(7, 12))
    xs = np.linspace(0, 900, count) + rng.uniform(-15, 15, count)
    phase, swing = rng.uniform(0, 0.6), rng.uniform(8, 18)
    half = 22 + swing * np.sin(np.pi * xs / 1100 + phase) + rng.normal(size=count) * 0.1
    top = 35 + swing * np.sin(np.pi * xs / 1000 + phase) + rng.normal(size=count) * 0.1
    low = -30 - swing * np.sin(np.pi * xs / 1050 + phase) + rng.normal(size=count) * 0.1
    return Fuselage(
        formers=tuple(
            Former(id=f"F{i}", station=float(x), half_width=float(h), top=float(t), bottom=float(b))
            for i, (x, h, t, b) in enumerate(zip(xs, half, top, low, strict=True))
        )
    )


_VALUES = [None, True, "x", "", -1, 0, 1e308, [], {}, [1], {"a": 1}, float("nan"), "port", 1e-300]


@pytest.mark.parametrize("seed", range(40))
@pytest.mark.parametrize("command", ["true", "audit", "balance", "parts"])
def test_a_file_spoiled_anywhere_is_read_or_told_in_one_line(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], command: str, seed: int
) -> None:
    rng = random.Random(f"{command}{seed}")
    data = json.loads(text_of(demo_build()))
    path = rng.choice(list(_paths(data)))
    place = data
    for part in path[:-1]:
        place = place[part]
    place[path[-1]] = rng.choice(_VALUES)
    file = tmp_path / "spoiled.json"
    file.write_text(json.dumps(data))
    code = run_command([command, str(file), "--json"])
    out, err = capsys.readouterr()
    assert code in (0, 2)
    if code == 2:
        assert (out, err.count("\n")) == ("", 1)
    else:
        json.loads(out)


def _paths(data: object, path: tuple[object, ...] = ()) -> list[tuple[object, ...]]:
    found = [path] if path else []
    items: list[tuple[object, object]] = []
    if isinstance(data, dict):
        items = list(data.items())
    elif isinstance(data, list):
        items = list(enumerate(data))
    for key, value in items:
        found += _paths(value, (*path, key))
    return found
