"""``audit``, ``balance`` and ``parts``: their JSON, their tables, and broken files."""

import json
from pathlib import Path
from typing import Any

import pytest

from hardkeel.cli.commands import run_command
from hardkeel.demo.kettlewick import demo_build
from hardkeel.storage.package import save

CONTRACT: dict[str, Any] = {
    "format": "hardkeel/1",
    "audit": [
        {
            "id": "template sheet",
            "pairs": [
                {"part": "F4", "direction": "y", "kind": "outline", "plan": 62.0, "measured": 63.1, "sigma": 0.3},
                {"part": "side", "direction": "x", "kind": "bent-length", "plan": 905, "measured": 919.4},
                {"plan": 300, "measured": 304.9, "kind": "spacing", "direction": "y"},
                {"plan": 410, "measured": 416.5},
            ],
        }
    ],
    "wings": [{"id": "wing", "le_x": 200, "z": 55, "span": 1250, "root_chord": 210, "tip_chord": 170, "sweep_le": 25, "dihedral": 3, "incidence": 2.0}],
    "masses": [{"id": "motor", "mass": 120, "x": -20}, {"id": "F4", "mass": 6.2, "x": 330, "weighed": True}, {"id": "rest", "mass": 400, "x": 340}],
    "balance": {"target_percent": 30, "battery": {"id": "pack", "mass": 180, "between": [20, 600]}, "nose_weight_x": -35},
    "fuselage": {
        "side_thickness": 3.0,
        "formers": [
            {"id": "F1", "station": 0, "thickness": 6, "bottom": -35, "top": 40, "half_width": 28, "material": "birch-ply"},
            {"id": "F4", "station": 330, "bottom": -30, "top": 40, "half_width": 26},
        ],
        "tail_post": {"station": 900, "half_width": 4, "bottom": 0, "top": 25},
        "sections": [{"from": "F1", "to": "tail_post", "method": "sheet-sides"}],
    },
}  # fmt: skip


def run(path: Path, *arguments: str) -> int:
    return run_command([arguments[0], str(path), *arguments[1:]])


@pytest.fixture
def file(tmp_path: Path) -> Path:
    path = tmp_path / "build.json"
    path.write_text(json.dumps(CONTRACT))
    return path


def test_audit_gives_the_contracts_keys(file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert run(file, "audit", "--json") == 0
    sheet = json.loads(capsys.readouterr().out)["sheets"][0]
    assert sheet["id"] == "template sheet"
    assert sheet["cause"] == "scale"
    assert sheet["factor"] == pytest.approx(1.016, abs=5e-4)
    assert 0 < sheet["factor_sigma"] < 0.001
    assert sheet["next"] is None
    keys = ("probability", "factor_x", "factor_y", "constant", "part", "say")
    assert all(key in sheet for key in keys)


def test_an_undecided_sheet_says_what_would_decide(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    data = {
        "format": "hardkeel/1",
        "audit": [{"id": "s", "pairs": [{"plan": 100, "measured": 103}]}],
    }
    (tmp_path / "b.json").write_text(json.dumps(data))
    assert run(tmp_path / "b.json", "audit", "--json") == 0
    sheet = json.loads(capsys.readouterr().out)["sheets"][0]
    assert sheet["cause"] == "undecided"
    assert set(sheet["next"]) >= {"direction", "kind", "why"}


def test_balance_gives_the_contracts_figures(
    file: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert run(file, "balance", "--json") == 0
    found = json.loads(capsys.readouterr().out)
    taper = 170 / 210
    chord = 2 / 3 * 210 * (1 + taper + taper**2) / (1 + taper)
    y = 1250 / 6 * (1 + 2 * taper) / (1 + taper)
    assert found["mean_chord"] == pytest.approx(chord)
    assert found["mean_chord_le_x"] == pytest.approx(200 + 25 * y / 625)
    target = found["mean_chord_le_x"] + 0.3 * chord
    moment = 120 * -20 + 6.2 * 330 + 400 * 340
    assert found["battery_x"] == pytest.approx((target * (526.2 + 180) - moment) / 180)
    assert found["battery_fits"] is True
    assert found["x"] == pytest.approx(target)
    assert found["percent"] == pytest.approx(30)
    assert found["nose_weight"] == 0


def test_parts_name_every_part_of_the_airframe(
    file: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert run(file, "parts", "--json") == 0
    found = json.loads(capsys.readouterr().out)
    by_id = {part["id"]: part for part in found["parts"]}
    [side] = [part for part in by_id.values() if part["kind"] == "side"]
    assert (side["hand"], side["pieces"]) == ("pair", 2)
    assert by_id["F1"]["size"] == [75.0, 50.0, 6.0]
    assert by_id["F1"]["estimated"] == pytest.approx(75 * 50 * 6 * 680e-6)
    assert "wing_half" in by_id


@pytest.mark.parametrize("command", ["audit", "balance", "parts", "frame"])
def test_the_demo_reads_well_as_a_table(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], command: str
) -> None:
    save(demo_build(), tmp_path / "a.keel")
    for extra in ((), ("--inches",)):
        assert run(tmp_path / "a.keel", command, *extra) == 0
        text = capsys.readouterr().out
        assert "nan" not in text
        assert max(len(line) for line in text.splitlines()) < 140


FAULTS: list[tuple[str, str, object, str | None]] = [
    ("audit", "audit", None, "audit: is missing"),
    ("audit", "audit.0.pairs.0.plan", 0, "audit[0].pairs[0].plan: must be more than 0"),
    ("audit", "audit.0.pairs.0.plan", "62", "audit[0].pairs[0].plan"),
    ("audit", "audit.0.pairs.0.measured", float("nan"), "audit[0].pairs[0].measured"),
    ("audit", "audit.0.pairs.0.direction", "z", "audit[0].pairs[0].direction"),
    ("audit", "audit.0.pairs.0.kind", "inside", "audit[0].pairs[0].kind"),
    ("audit", "audit.0.pairs.0.sigma", -1, "audit[0].pairs[0].sigma"),
    ("audit", "audit.0.id", "", "audit[0].id"),
    ("audit", "audit.0.pairs", {}, "audit[0].pairs"),
    ("balance", "balance", None, "balance: is missing"),
    ("balance", "balance.target_percent", None, "neither target_percent nor target_x"),
    ("balance", "balance.battery.mass", 0, "balance.battery.mass"),
    ("balance", "balance.battery.between", [140, 20], "balance.battery.between"),
    ("balance", "balance.battery.between", [1], "balance.battery.between"),
    ("balance", "balance.battery.id", "motor", "among the masses"),
    ("balance", "masses.0.mass", -3, "masses[0].mass"),
    ("balance", "masses.0.x", float("inf"), "masses[0].x"),
    ("balance", "masses.1.id", "motor", "masses[1].id"),
    ("balance", "masses", [], None),
    ("balance", "wings", [], "needs a wing"),
    ("balance", "wings.0.span", 0, "wings[0].span"),
    ("balance", "wings.0.root_chord", None, "wings[0].root_chord"),
    ("parts", "fuselage.formers.0.top", -50, "fuselage.formers[0].top"),
    ("parts", "fuselage.formers.1.station", 0, "fuselage.formers[1].station"),
    ("parts", "fuselage.formers.1.id", "F1", "fuselage.formers[1].id"),
    ("parts", "fuselage.formers.1.half_width", -1, "fuselage.formers[1].half_width"),
    ("parts", "fuselage.tail_post.station", 330, "fuselage.tail_post.station"),
    ("parts", "fuselage.sections.0.to", "F9", "fuselage.sections[0].to"),
    ("parts", "fuselage.sections.0.method", "glue", "fuselage.sections[0].method"),
    ("parts", "fuselage.side_thickness", -1, "fuselage.side_thickness"),
]


@pytest.mark.parametrize(("command", "place", "value", "words"), FAULTS)
def test_a_broken_file_gives_exit_2_and_one_sentence(
    tmp_path: Path,
    capsys: pytest.CaptureFixture[str],
    command: str,
    place: str,
    value: object,
    words: str | None,
) -> None:
    data = json.loads(json.dumps(CONTRACT))
    *way, last = [int(part) if part.isdigit() else part for part in place.split(".")]
    where = data
    for part in way:
        where = where[part]
    if value is None:
        del where[last]
    else:
        where[last] = value
    path = tmp_path / "broken.json"
    path.write_text(json.dumps(data))
    code = run(path, command, "--json")
    out, err = capsys.readouterr()
    if words is None:
        assert (code, err) == (0, "")
        return
    assert (code, out) == (2, "")
    assert words in err
    assert err.count("\n") == 1
