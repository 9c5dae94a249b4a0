"""Fifteen kinds of model through everything: described, framed, printed, balanced and trimmed, set true, planned.

The table with what each cell does stands in docs/any-airframe.md.
"""

import json
import math
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from hardkeel.airframe.framing import build_pieces
from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.balance.model import Balance, Mass
from hardkeel.cli.commands import run_command
from hardkeel.edits.framing import frame_as_usual
from hardkeel.edits.tail import set_built
from hardkeel.messages.steps import step_title
from hardkeel.project.model import Build
from hardkeel.project.soundness import check_build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.rigging import rigging_order
from hardkeel.survey.roles import role_in, turn_of
from tests.airframes_of_any_kind import ANY
from tests.rigged import out_of_true, rig

Json = dict[str, Any]
BUILT = {"stick fuselage": "stick", "foreplane": "ribbed", "vee tail": "foam"}


def whole(name: str) -> Build:
    """The model framed as usual, its tail built of something."""
    build = frame_as_usual(ANY[name]())
    for surface in build.tail:
        build = set_built(build, surface.id, BUILT.get(name, "stick"))  # type: ignore[arg-type]
    return build.but(
        masses=(Mass(id="all else", mass=700.0, x=build.wings[0].le_x),),
        balance=Balance(target_percent=30.0),
    )


def told(build: Build, command: str, folder: Path, capsys: pytest.CaptureFixture[str]) -> Json:
    """What a command prints as JSON; it must end with 0."""
    path = folder / "model.json"
    path.write_text(text_of(build))
    assert run_command([command, str(path), "--json"]) == 0
    found: Json = json.loads(capsys.readouterr().out)
    return found


@pytest.mark.parametrize("name", ANY)
def test_described_and_kept(name: str) -> None:
    build = ANY[name]()
    check_build(build)
    assert build_from_text(text_of(build)) == build
    survey = build.surveyed
    assert {"wing"} <= {one.id for one in survey.bodies}
    order = rigging_order(survey)
    turns = [turn_of(role_in(survey, one)) for one in order]
    assert turns[0] == 0
    if name != "tee tail":  # there the stabilizer waits for the fin
        assert turns == sorted(turns)


@pytest.mark.parametrize("name", ANY)
def test_framed_with_pieces_that_fit_the_box(
    name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    build = whole(name)
    frame = told(build, "frame", tmp_path, capsys)
    fuselage = build.fuselage
    assert fuselage is not None
    lengths = [stop.station for _, stop in fuselage.stations]
    assert frame["sides"]["plan_length"] == pytest.approx(lengths[-1] - lengths[0])
    # a side that bends is longer than its plan, and not by much
    assert 1.0 <= frame["sides"]["developed_length"] / frame["sides"]["plan_length"] < 1.03
    formers = {one.part for one in build_pieces(build) if one.kind == "former"}
    assert formers == {one.id for one in fuselage.formers}
    parts = told(build, "parts", tmp_path, capsys)
    assert parts


@pytest.mark.parametrize("name", ANY)
def test_balanced_and_trimmed_by_its_own_sums(
    name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    build = whole(name)
    balance = told(build, "balance", tmp_path, capsys)
    wings = build.wings
    # the mean chord by a brute sum of strips, all wings together
    y = (np.arange(4000) + 0.5) / 4000
    area = square = lead = 0.0
    for wing in wings:
        chord = wing.root_chord + (wing.tip_chord - wing.root_chord) * y
        d = wing.span / 4000
        area += float((chord * d).sum())
        square += float((chord**2 * d).sum())
        lead += float(((wing.le_x + wing.sweep_le * y) * chord * d).sum())
    assert balance["mean_chord"] == pytest.approx(square / area, rel=1e-4)
    assert balance["mean_chord_le_x"] == pytest.approx(lead / area, abs=0.3)
    trim = told(build, "trim", tmp_path, capsys)
    assert trim["wing"]["area"] == pytest.approx(area, rel=1e-4)
    lying = next(one for one in build.tail if one.duty != "fin")
    size = lying.span * (lying.root_chord + lying.tip_size) / 2  # type: ignore[operator]
    works = size * math.cos(math.radians(lying.dihedral)) ** 2
    arm = trim["stab"]["centre_x"] - trim["wing"]["centre_x"]
    assert trim["stab"]["volume"] == pytest.approx(
        works * arm / (area * balance["mean_chord"]), rel=1e-4
    )
    assert (arm < 0) == (name == "foreplane")
    # stable where a builder would balance it, but for a foreplane's: that one wants its balance ahead of the wing
    stable = trim["neutral_point_percent"] > 30.0
    assert stable == (name != "foreplane")


@pytest.mark.parametrize("name", ANY)
def test_planned_without_a_dead_end(name: str) -> None:
    build = whole(name)
    steps = steps_at_hand(build)  # refuses steps that wait for each other
    names = [step.id for step in steps]
    for body in rigging_order(build.surveyed):
        assert f"true {body}" in names
    for surface in build.tail:
        assert f"{surface.id} seat" in names
    assert all(step_title(step) for step in steps)
    assert names.index("read") < min(names.index(f"{one.id} seat") for one in build.tail)


@pytest.mark.parametrize(
    "name", ["low tail", "vee tail", "foreplane", "biplane", "panels that come off"]
)
def test_rolled_by_a_degree_the_advice_brings_it_true(name: str) -> None:
    """One model of four kinds; twenty of all are rigged by tools/measure_any.py."""
    survey = ANY[name]().surveyed
    rng = np.random.default_rng(5)
    poses: dict[str, dict[str, float]] = {
        body.id: {} for body in survey.bodies if body.id != "fuselage"
    }
    poses["bench"] = {"pitch": 0.3, "roll": -0.2, "z": 70.0}
    poses["wing"] = {"roll": 1.0}
    if "thrust" in poses:
        poses["thrust"] = {"pitch": 2.0}
    assert out_of_true(survey, poses)
    assert not out_of_true(survey, rig(survey, poses, rng))
