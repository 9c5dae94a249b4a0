"""Goldens: what was written once is still written, and what was written then is still read."""

import csv
import io
import json
from importlib import resources
from pathlib import Path

import pytest

from hardkeel.cli.audit import audit_json
from hardkeel.cli.balance import balance_json
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.shipped import shipped_build
from hardkeel.export.parts import COLUMNS, parts_csv, parts_notes, parts_rows
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey

GOLDEN = Path(__file__).parents[1] / "golden"


def same(a: object, b: object, place: str = "") -> None:
    """Compare after parsing: numbers to a part in a million, all else exactly."""
    if isinstance(a, dict):
        assert isinstance(b, dict), place
        assert set(a) == set(b), place
        for key in a:
            same(a[key], b[key], f"{place}.{key}")
    elif isinstance(a, list):
        assert isinstance(b, list), place
        assert len(a) == len(b), place
        for i, (x, y) in enumerate(zip(a, b, strict=True)):
            same(x, y, f"{place}[{i}]")
    elif isinstance(a, float):
        assert b == pytest.approx(a, rel=1e-6, abs=1e-6), place
    else:
        assert a == b, place


def test_the_demo_is_still_the_file_that_it_was() -> None:
    """What ships is what the code makes."""
    same(json.loads(text_of(shipped_build())), json.loads(text_of(demo_build())))


def test_a_file_written_then_is_read_and_written_the_same_now() -> None:
    kept = (resources.files("hardkeel.resources") / "kettlewick.json").read_text(encoding="utf-8")
    build = build_from_text(kept)
    assert text_of(build) == kept
    judged = judge_survey(build.surveyed, "dry")
    verdicts = {check.id: check.verdict for check in judged.checks}
    assert verdicts["stab_roll_to_wing"] == "out"
    assert verdicts["stab_roll"] == "unsure"  # it rests on one level across the longerons
    assert verdicts["wing_roll"] == "true"
    assert verdicts["fin_yaw"] == "unsure"


def test_the_parts_list_has_the_columns_and_rows_that_it_had() -> None:
    text = (GOLDEN / "demo-parts.csv").read_text(encoding="utf-8")
    kept = list(csv.DictReader(io.StringIO(text)))
    now = list(csv.DictReader(io.StringIO(parts_csv(demo_build()))))
    assert tuple(now[0]) == COLUMNS
    assert now == kept


def test_the_demo_shows_each_bench_something() -> None:
    build = demo_build()
    sheet = audit_json(build)["sheets"][0]
    assert sheet["cause"] == "scale"
    assert sheet["factor"] == pytest.approx(1.016, abs=0.004)
    found = balance_json(build)
    assert found["battery_fits"]
    assert found["percent"] == pytest.approx(30.0)
    notes = parts_notes(build)
    assert any("too few" in note for note in notes)
    assert any("drawing does not know it" in note for note in notes)
    assert any("not on the printed list" in note for note in notes)
    rows = parts_rows(build, "mm")
    assert all(len(row) == len(rows[0]) for row in rows)
    f4 = next(former for former in build.fuselage.formers if former.id == "F4")  # type: ignore[union-attr]
    assert f4.template is not None
