"""Some fifty kinds of broken file: each gives exit 2, one clear sentence with its place, and nothing else."""

import io
import json
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from hardkeel.cli.commands import run_command

GOOD: dict[str, Any] = {
    "format": "hardkeel/1",
    "survey": {
        "bodies": [
            {"id": "fuselage"},
            {"id": "wing", "pivot": [260, 0, 55], "incidence": 2.0, "span": 1250, "chord": 200, "twist": True,
             "seat": {"contacts": [{"id": "le_port", "at": [200, -30, 55]}]}},
        ],
        "marks": [
            {"id": "nose_pin", "body": "fuselage", "at": [0, 0, 40]},
            {"id": "tip", "body": "wing", "at": [260, 625, 55]},
            {"id": "tip_port", "body": "wing", "at": [260, -625, 55]},
        ],
        "readings": [
            {"id": "r1", "kind": "distance", "from": "nose_pin", "to": "tip", "value": 677.0},
            {"id": "r2", "kind": "incidence", "body": "wing", "side": "port", "span_fraction": 0.5, "value": 2.1},
            {"id": "r3", "kind": "distance-difference", "from": "nose_pin", "to": ["tip", "tip_port"], "value": 0.3},
        ],
        "tolerances": {"wing_yaw": 0.2},
    },
}  # fmt: skip


def broken(path: str, value: object) -> str:
    """The good file with one place changed; a value of ``KeyError`` takes the key out."""
    data = json.loads(json.dumps(GOOD))
    *way, last = [int(part) if part.isdigit() else part for part in path.split(".")]
    place = data
    for part in way:
        place = place[part]
    if value is KeyError:
        del place[last]
    else:
        place[last] = value
    return json.dumps(data)


R, B, M = "survey.readings", "survey.bodies", "survey.marks"
FAULTS: list[tuple[str, object, str]] = [
    ("format", KeyError, "format"),
    ("format", "hardkeel/2", "format"),
    ("format", "hardkeel/0", "format"),
    ("format", "other/1", "format"),
    ("format", 1, "format"),
    ("survey", KeyError, "survey"),
    ("survey", [], "survey"),
    ("survey", "all", "survey"),
    (B, {}, B),
    (f"{B}.1.id", "", f"{B}[1].id"),
    (f"{B}.1.id", "  ", f"{B}[1].id"),
    (f"{B}.1.id", 5, f"{B}[1].id"),
    (f"{B}.1.id", KeyError, f"{B}[1].id"),
    (f"{B}.1.pivot", KeyError, f"{B}[1].pivot"),
    (f"{B}.1.pivot", [1, 2], f"{B}[1].pivot"),
    (f"{B}.1.pivot", [1, 2, 3, 4], f"{B}[1].pivot"),
    (f"{B}.1.pivot", [1, 2, "3"], f"{B}[1].pivot[2]"),
    (f"{B}.1.pivot", [1, 2, None], f"{B}[1].pivot[2]"),
    (f"{B}.1.pivot", [1, 2, float("nan")], f"{B}[1].pivot[2]"),
    (f"{B}.1.span", 0, f"{B}[1].span"),
    (f"{B}.1.span", -5, f"{B}[1].span"),
    (f"{B}.1.span", KeyError, f"{B}[1].span"),
    (f"{B}.1.twist", "yes", f"{B}[1].twist"),
    (f"{B}.1.incidence", float("inf"), f"{B}[1].incidence"),
    (f"{B}.1.seat", [], f"{B}[1].seat"),
    (f"{B}.1.seat.contacts.0.at", KeyError, f"{B}[1].seat.contacts[0].at"),
    (f"{B}.0.id", "wing", f"{B}[1].id"),
    (f"{M}.1.body", "stab", f"{M}[1].body"),
    (f"{M}.1.id", "nose_pin", f"{M}[1].id"),
    (f"{M}.1.at", 5, f"{M}[1].at"),
    (f"{M}.1", None, f"{M}[1]"),
    (f"{R}.0.kind", KeyError, f"{R}[0]"),
    (f"{R}.0.kind", "guess", f"{R}[0]"),
    (f"{R}.0.to", "stab_tip", f'{R}[0].to: no mark "stab_tip"'),
    (f"{R}.0.to", KeyError, f"{R}[0].to"),
    (f"{R}.0.to", "nose_pin", f"{R}[0].to"),
    (f"{R}.0.from", ["tip"], f"{R}[0].from"),
    (f"{R}.0.value", KeyError, f"{R}[0].value"),
    (f"{R}.0.value", None, f"{R}[0].value"),
    (f"{R}.0.value", "677", f"{R}[0].value"),
    (f"{R}.0.value", True, f"{R}[0].value"),
    (f"{R}.0.value", float("nan"), f"{R}[0].value"),
    (f"{R}.0.value", float("-inf"), f"{R}[0].value"),
    (f"{R}.0.value", 10**400, f"{R}[0].value"),
    (f"{R}.0.value", 1e308, f"{R}[0].value"),
    (f"{B}.1.seat.contacts.0.at.1", -1e308, f"{B}[1].seat.contacts[0].at[1]"),
    (f"{R}.0.sigma", 0, f"{R}[0].sigma"),
    (f"{R}.0.sigma", -0.5, f"{R}[0].sigma"),
    (f"{R}.0.phase", "damp", f"{R}[0].phase"),
    (f"{R}.0.ignored", 1, f"{R}[0].ignored"),
    (f"{R}.0.taken", "last Tuesday", f"{R}[0].taken"),
    (f"{R}.1.id", "r1", f"{R}[1].id"),
    (f"{R}.1.body", "stab", f"{R}[1].body"),
    (f"{R}.1.side", "left", f"{R}[1].side"),
    (f"{R}.1.span_fraction", 1.5, f"{R}[1].span_fraction"),
    (f"{R}.1.zero", "sea", f"{R}[1].zero"),
    (f"{R}.2.to", ["tip"], f"{R}[2].to"),
    (f"{R}.2.to", ["tip", "tip"], f"{R}[2].to[1]"),
    (f"{R}.2.to", "tip", f"{R}[2].to"),
    ("survey.tolerances", {"wing_yaw": -1}, "survey.tolerances.wing_yaw"),
]


def refuse(path: Path, capsys: pytest.CaptureFixture[str]) -> str:
    """Run on a broken file; the one line on stderr."""
    code = run_command(["true", str(path), "--json"])
    out, err = capsys.readouterr()
    assert code == 2
    assert out == ""
    assert err.endswith("\n")
    assert err.count("\n") == 1
    assert "Traceback" not in err
    return err


@pytest.mark.parametrize(("path", "value", "place"), FAULTS)
def test_a_fault_in_the_data_is_named_with_its_place(
    path: str, value: object, place: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "build.json"
    file.write_text(broken(path, value))
    assert place in refuse(file, capsys)


def zipped(*members: tuple[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in members:
            archive.writestr(name, content)
    return out.getvalue()


GOOD_TEXT = json.dumps(GOOD).encode()
WHOLE = zipped(("build.json", GOOD_TEXT), ("photos/a.jpg", b"x" * 5000))
PACKAGES: dict[str, bytes] = {
    "empty": b"",
    "not json": b"hello",
    "cut json": GOOD_TEXT[:200],
    "not utf-8": b'{"format": "hardkeel/1", "name": "\xff\xfe"}',
    "a list": b"[]",
    "a number": b"3",
    "twice": b'{"format": "hardkeel/1", "survey": {}, "survey": {}}',
    "deep": b'{"format": "hardkeel/1", "x": ' + b"[" * 100_000 + b"]" * 100_000 + b"}",
    "cut zip": WHOLE[: len(WHOLE) // 2],
    "damaged zip": WHOLE[:60] + b"\x00\x01\x02\x03" + WHOLE[64:],
    "no build.json": zipped(("other.json", GOOD_TEXT)),
    "absolute name": zipped(("build.json", GOOD_TEXT), ("/etc/passwd", b"x")),
    "climbing name": zipped(("build.json", GOOD_TEXT), ("photos/../../x", b"x")),
    "climbing name the other way": zipped(("build.json", GOOD_TEXT), ("photos\\..\\..\\x", b"x")),
    "drive name": zipped(("build.json", GOOD_TEXT), ("C:/x", b"x")),
    "too large": zipped(("build.json", b" " * (64 * 1024 * 1024 + 1))),
}


@pytest.mark.parametrize("kind", PACKAGES)
def test_a_broken_package_is_refused(
    kind: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "bench.keel"
    file.write_bytes(PACKAGES[kind])
    refuse(file, capsys)


@pytest.mark.parametrize("make", [lambda p: p / "none.keel", lambda p: p])
def test_a_missing_file_or_a_folder_is_refused(
    make: Callable[[Path], Path], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    refuse(make(tmp_path), capsys)


@pytest.mark.parametrize("name", ["build.json", "bench.keel"])
def test_the_good_file_is_taken_bare_and_packed(
    name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / name
    file.write_bytes(WHOLE if name.endswith("keel") else GOOD_TEXT)
    assert run_command(["true", str(file), "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["checks"]


@pytest.mark.parametrize(
    "arguments", [["true"], ["true", "x", "--phase", "damp"], ["export", "x"], ["true", "a", "b"]]
)
def test_wrong_usage_is_exit_2_and_one_line(
    arguments: list[str], capsys: pytest.CaptureFixture[str]
) -> None:
    with pytest.raises(SystemExit) as stopped:
        run_command(arguments)
    out, err = capsys.readouterr()
    assert (stopped.value.code, out, err.count("\n")) == (2, "", 1)
