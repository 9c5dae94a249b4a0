"""Printed targets: read in a picture, sighted, adjusted, told; from reckoned and from drawn photographs."""

import json
import math
from dataclasses import replace
from functools import cache
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages.targets import number_words, seen_lines, told_lines
from hardkeel.project.model import Build
from hardkeel.sight.codes import CodeSeen, codes_in
from hardkeel.sight.pictures import Pixels, jpeg_of
from hardkeel.sight.printed import Label, middle_in, with_labels
from hardkeel.sight.targets import ASLANT_SIGMA, SIGMA, Taken, Told, sighted
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.package import load, save
from hardkeel.survey.cameras import Camera
from hardkeel.survey.columns import SharedPart
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.network import network_of
from hardkeel.survey.soundness import check_survey
from tests.draws import draws
from tests.targeted import Bench, bench, pictures, seen

ways = st.tuples(*[st.floats(-1, 1)] * 3).filter(lambda one: math.hypot(*one) > 0.1)


# -- how far a label may lie beside its mark -----------------------------------------------------------


@given(ways, st.floats(0.05, 1), st.floats(0.01, 1))
@settings(max_examples=draws(40, 400), deadline=None)
def test_a_labels_place_is_doubted_in_its_plane_and_along_its_normal(
    way: tuple[float, float, float], across: float, along: float
) -> None:
    """The covariance that it stands for, against s²·(1 − n·nᵀ) + t²·n·nᵀ."""
    normal = np.array(way) / np.linalg.norm(way)
    part = SharedPart("mark", "m", across, along, tuple(normal.tolist()))
    assert part.frame is not None
    stands_for = part.frame @ np.diag(np.square(part.sigmas)) @ part.frame.T
    outer = np.outer(normal, normal)
    assert stands_for == pytest.approx(across**2 * (np.eye(3) - outer) + along**2 * outer, abs=1e-9)
    assert np.linalg.det(part.frame) == pytest.approx(1.0)


def test_each_mark_moves_along_its_own_targets_ways() -> None:
    """The slope of every placed mark by its shifts, on bodies and on the fuselage, by finite differences."""
    made = bench(2)
    tilted = made.survey.targets[3]
    targets = (
        *made.survey.targets[:3],
        tilted.model_copy(update={"normal": (0.6, 0.0, 0.8)}),
        *made.survey.targets[4:],
    )
    net = network_of(made.survey.but(targets=targets))
    at = made.hidden.unknowns
    placed = net.placer.place(at)
    for target in (targets[0], targets[3], targets[16], targets[22], targets[28]):
        row = net.index[target.mark]
        column = net.columns.shared["mark", target.mark]
        normal = np.array(target.normal) / np.linalg.norm(target.normal or (1.0,))
        for axis in range(3):
            step = at.copy()
            step[column + axis] += 1e-4
            slope = (net.placer.place(step).airframe[row] - placed.airframe[row]) / 1e-4
            assert slope == pytest.approx(placed.airframe_moves[row, :, column + axis], abs=1e-6)
            if axis == 2 and net.survey.mark(target.mark).body == "fuselage":  # type: ignore[union-attr]
                assert slope == pytest.approx(normal, abs=1e-6)


@pytest.mark.parametrize(
    ("changes", "told"),
    [
        ({"code": 1}, r"targets\[0\]|targets\[1\].code: 1 is used twice"),
        ({"mark": "nobody"}, r'targets\[0\].mark: no mark "nobody"'),
        ({"mark": "target_wing_root_te_port"}, "has a target already"),
        ({"normal": (0.0, 0.0, 0.0)}, "points nowhere"),
    ],
)
def test_a_target_that_can_not_be_is_refused_with_its_place(
    changes: dict[str, object], told: str
) -> None:
    survey = bench(0).survey
    odd = survey.targets[0].model_copy(update=changes)
    with pytest.raises(BadInput, match=told):
        check_survey(survey.but(targets=(odd, *survey.targets[1:])))


def test_targets_come_back_from_a_file() -> None:
    build = Build(survey=bench(0).survey)
    again = build_from_text(text_of(build).encode())
    assert again.survey == build.survey
    assert '"target_size": 20.0' in text_of(build)


# -- reading them --------------------------------------------------------------------------------------


@cache
def wall() -> tuple[Pixels, tuple[Label, ...], Camera]:
    """Sixty labels of 12 to 25 mm two metres off, tilted up to 60°, any way up."""
    rng = np.random.default_rng(3)
    size = (2400, 1500)
    camera = Camera(np.array([0.0, 0.0, -2000.0]), np.eye(3), math.log(3250.0), -0.03)
    labels = []
    for code in range(60):
        tilt, around, roll = math.radians(rng.uniform(0, 60)), *rng.uniform(0, 2 * math.pi, 2)
        normal = np.array(
            [math.sin(tilt) * math.cos(around), math.sin(tilt) * math.sin(around), -math.cos(tilt)]
        )
        a = np.cross((0.0, 1.0, 0.3), normal)
        a /= np.linalg.norm(a)
        right = math.cos(roll) * a + math.sin(roll) * np.cross(normal, a)
        at = np.array([(code % 10 - 4.5) * 130.0, (code // 10 - 2.5) * 140.0, 0.0])
        labels.append(Label(code, at, right, np.cross(normal, right), float(rng.uniform(12, 25))))
    ground = rng.integers(140, 160, (size[1], size[0], 3), dtype=np.uint8)
    return with_labels(ground, labels, camera, rng), tuple(labels), camera


def grey(picture: Pixels) -> np.ndarray:
    return np.round(
        picture.astype(np.float32) @ np.array([0.299, 0.587, 0.114], np.float32)
    ).astype(np.uint8)


def test_small_labels_aslant_are_read_and_their_middles_found_to_a_fifth_of_a_pixel() -> None:
    picture, labels, camera = wall()
    found = {one.code: one for one in codes_in(grey(picture))}
    wanted, off = 0, []
    for label in labels:
        half = label.size / 2
        ring = [
            label.at + u * half * label.right + v * half * label.up
            for u, v in ((-1, 1), (1, 1), (1, -1), (-1, -1))
        ]
        spots = camera.project(np.array(ring), (2400, 1500))
        long = max(math.dist(spots[i], spots[i - 1]) for i in range(4))
        d, e = spots[2] - spots[0], spots[3] - spots[1]
        wide = abs(float(d[0] * e[1] - d[1] * e[0])) / 2 / long
        if long < 26 or wide < 14:
            continue
        wanted += 1
        if label.code in found:
            off.append(math.dist(found[label.code].middle, middle_in(label, camera, (2400, 1500))))
    assert wanted > 25
    assert len(off) >= 0.98 * wanted
    assert float(np.percentile(off, 95)) < 0.2


def test_the_middle_is_where_the_diagonals_cross_in_any_perspective() -> None:
    seen_one = CodeSeen(3, ((0.0, 0.0), (10.0, 0.0), (8.0, 6.0), (2.0, 6.0)))
    u, v = seen_one.middle
    assert u == pytest.approx(5.0)
    assert v == pytest.approx(
        6 * 10 / 16
    )  # of a trapezium: the diagonals part each other as its sides are
    assert seen_one.sides == (6.0, 10.0)


# -- sighting them -------------------------------------------------------------------------------------


def taken_with(photos: list[Taken], name: str, change: object) -> list[Taken]:
    assert callable(change)
    return [
        replace(one, codes=tuple(change(one.codes))) if one.name == name else one for one in photos
    ]


def test_every_target_that_is_seen_is_a_sighting_of_its_mark() -> None:
    made = bench(1)
    photos = seen(made, 1)
    found = sighted(made.survey, photos, "dry")
    assert found.told == ()
    assert len(found.survey.photos) == 4
    marks = {one.code: one.mark for one in made.survey.targets}
    by_id = {one.id: one for one in found.survey.sightings}
    for photo in photos:
        assert len(found.found[photo.name]) == len(photo.codes) > 15
        for one, code in zip(found.found[photo.name], photo.codes, strict=True):
            assert one.mark == marks[one.code]
            reading = by_id[one.reading or ""]
            assert (reading.mark, reading.value, reading.phase) == (one.mark, code.middle, "dry")
            assert reading.photo == found.photos[photo.name]
    assert {one.sigma for one in by_id.values()} == {SIGMA, ASLANT_SIGMA}
    check_survey(found.survey)
    assert seen_lines(found)[0].startswith("p1.jpg: ")
    twice = sighted(found.survey, [replace(one, name=f"b{one.name}") for one in photos])
    assert len({one.id for one in twice.survey.readings}) == len(twice.survey.readings)


def test_what_can_not_be_used_is_told_and_left_out() -> None:
    made = bench(1)
    photos = seen(made, 1)
    first = photos[0].codes[0]
    twice = taken_with(photos, "p1.jpg", lambda codes: (*codes, first))
    found = sighted(made.survey, twice)
    assert found.told == (Told("p1.jpg", "twice", first.code),)
    assert [one.reading for one in found.found["p1.jpg"] if one.code == first.code] == [None, None]
    strange = taken_with(photos, "p2.jpg", lambda codes: (*codes, replace(codes[0], code=77)))
    found = sighted(made.survey, strange)
    assert found.told == (Told("p2.jpg", "no target", 77),)
    few = taken_with(photos, "p3.jpg", lambda codes: codes[:4])
    found = sighted(made.survey, few)
    assert found.told == (Told("p3.jpg", "few"),)
    assert len(found.survey.photos) == 3
    assert all(one.reading is None for one in found.found["p3.jpg"])
    for line in told_lines(made.survey, (*sighted(made.survey, twice).told, *found.told)):
        assert line.startswith("p")


@pytest.mark.parametrize("told", [True, False], ids=["focal told", "focal unknown"])
def test_two_swapped_labels_are_named_and_the_rest_is_used(told: bool) -> None:
    made = bench(4)
    targets = list(made.survey.targets)
    a, b = targets[2], targets[10]  # a wing tip and a stabilizer tip
    targets[2], targets[10] = (
        a.model_copy(update={"mark": b.mark}),
        b.model_copy(update={"mark": a.mark}),
    )
    survey = made.survey.but(targets=tuple(targets))
    photos = [one if told else replace(one, focal=None) for one in seen(made, 4)]
    found = sighted(survey, photos)
    assert {(one.what, one.code) for one in found.told} == {("wrong", a.code), ("wrong", b.code)}
    judgement = judge_survey(found.survey, None)
    assert not judgement.outliers
    assert all("wrong" not in line or "swapped" in line for line in told_lines(survey, found.told))


def test_errors_are_as_large_as_they_are_told_and_small() -> None:
    """Over crooked airframes, labels laid 0.3 mm off in their plane and 0.1 along their normal."""
    errors: dict[str, list[tuple[float, float]]] = {}
    for seed in range(16):
        made = bench(seed)
        judgement = judge_survey(sighted(made.survey, seen(made, seed)).survey, None)
        for rule, check in zip(judgement.rules, judgement.checks, strict=True):
            off = float(rule.slope @ (judgement.solution.unknowns - made.hidden.unknowns))
            errors.setdefault(check.id, []).append((off, check.sigma))
    most = {"stab_roll_to_wing": 0.06, "stab_yaw": 0.12, "fin_lean_to_stab": 0.2, "decalage": 0.25}
    over = []
    for name, found in errors.items():
        off, sigma = np.array(found).T
        over += list(off / sigma)
        if name in most:
            assert float(np.percentile(np.abs(off), 95)) < most[name], name
    assert 0.85 < float(np.sqrt(np.mean(np.square(over)))) < 1.15


# -- from pictures to the answer -----------------------------------------------------------------------


@cache
def drawn() -> tuple[Bench, tuple[bytes, ...]]:
    """Four photographs of 2400 × 1800, targets of 34 mm, as a telephone writes them."""
    size = (2400, 1800)
    made = bench(6, side=34.0)
    film = 0.8125 * 36.0
    return made, tuple(jpeg_of(one, film) for one in pictures(made, 6, size))


def test_four_photographs_tell_what_is_out_without_a_click(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    made, photos = drawn()
    build = demo_build().but(survey=made.survey, stand_in=None)
    file = tmp_path / "model.keel"
    save(build, file)
    before = file.read_bytes()
    paths = []
    for number, data in enumerate(photos, start=1):
        paths.append(tmp_path / f"view {number}.jpg")
        paths[-1].write_bytes(data)
    kept = tmp_path / "kept.keel"
    assert run_command(["sight", str(file), *map(str, paths), "--json", "--save", str(kept)]) == 0
    told = json.loads(capsys.readouterr().out)
    assert file.read_bytes() == before, "without --save the file is not changed"
    assert told["told"] == []
    assert all(one["used"] for one in told["photos"])
    assert all(len(told["found"][path.name]) > 15 for path in paths)
    assert told["photos"][0]["focal"] == pytest.approx(0.83 * 2400, rel=0.02)
    judgement = judge_survey(load(kept).build.surveyed, "dry")
    checks = {one["id"]: one for one in told["checks"]}
    for rule in judgement.rules:
        truth = float(rule.slope @ (made.hidden.unknowns - judgement.solution.unknowns))
        assert abs(truth) < 4.5 * checks[rule.id]["sigma"], rule.id
    assert checks["stab_roll_to_wing"]["sigma"] < 0.03
    more = ["sight", str(kept), str(paths[0]), "--save", str(tmp_path / "more.keel")]
    assert run_command(more) == 0
    assert "view 1.jpg is laid down already" in capsys.readouterr().out
    assert load(tmp_path / "more.keel").build.surveyed == load(kept).build.surveyed
    again = load(kept)
    assert {one.image for one in again.build.surveyed.photos} <= set(again.attached())
    assert run_command(["sight", str(file), *map(str, paths[:2])]) == 0
    words = capsys.readouterr().out
    assert words.startswith("view 1.jpg: ")
    assert "used." in words


def test_the_command_finds_which_label_is_where(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    made, photos = drawn()
    codes = [one.code for one in made.survey.targets]
    other = made.survey.but(
        targets=tuple(
            one.but(code=code) for one, code in zip(made.survey.targets, codes[::-1], strict=True)
        )
    )
    file = tmp_path / "model.keel"
    save(demo_build().but(survey=other, stand_in=None), file)
    paths = []
    for number, data in enumerate(photos[:2]):
        paths.append(str(tmp_path / f"{number}.jpg"))
        Path(paths[-1]).write_bytes(data)
    kept = tmp_path / "kept.keel"
    assert run_command(["sight", str(file), *paths, "--any-order", "--save", str(kept)]) == 0
    assert "another order than their sheet" in capsys.readouterr().out
    assert run_command(["sight", str(kept), *paths, "--any-order"]) == 0
    assert "laid down already" in capsys.readouterr().out
    told = {one.code: one.mark for one in load(kept).build.surveyed.targets}
    true = {one.code: one.mark for one in made.survey.targets}
    shown = {one.mark for one in load(kept).build.surveyed.sightings}
    assert len(shown) > 15
    assert all(true[code] == mark for code, mark in told.items() if mark in shown)
    assert run_command(["sight", str(file), paths[0], "--any-order", "--frame"]) == 2


def test_the_commands_refuse_in_a_sentence(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    made, photos = drawn()
    (tmp_path / "a.jpg").write_bytes(photos[0])
    (tmp_path / "no.jpg").write_bytes(b"no picture")
    bare, file = tmp_path / "bare.keel", tmp_path / "model.keel"
    save(demo_build(), bare)
    save(demo_build().but(survey=made.survey), file)
    for arguments, words in (
        ([str(bare), str(tmp_path / "a.jpg")], "survey.targets"),
        ([str(file), str(tmp_path / "no.jpg")], "no.jpg"),
        ([str(file), str(tmp_path / "gone.jpg")], "can't be read"),
        ([str(file), str(tmp_path / "a.jpg"), str(tmp_path / "a.jpg")], "given twice"),
    ):
        assert run_command(["sight", *arguments]) == 2
        assert words in capsys.readouterr().err
    pdf = tmp_path / "targets.pdf"
    assert run_command(["targets", str(file), "--to", str(pdf), "--size", "25"]) == 0
    assert pdf.read_bytes().startswith(b"%PDF")
    assert "32 targets" in capsys.readouterr().out
    assert run_command(["targets", str(file), "--to", str(pdf), "--size", "2"]) == 2
    assert "no size for a target" in capsys.readouterr().err


def test_numbers_stand_in_words_too() -> None:
    assert number_words(7) == "7  seven"
    assert number_words(20) == "20  twenty"
    assert number_words(91) == "91  ninety-one"
    assert len({number_words(code) for code in range(100)}) == 100
