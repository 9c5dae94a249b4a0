"""A mat put together of several sheets, a little beside where they should lie: the part on it is judged all the same."""

import math
from typing import Any

import numpy as np
import pytest
import shapely

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.export.mat_sheet import mat_files
from hardkeel.joinery.flat import FlatPiece
from hardkeel.sight.codes import codes_in
from hardkeel.sight.mat import CODE_MM, JOINT_MM, RIM_MM, mat_for
from hardkeel.sight.part_faults import faults_of
from hardkeel.sight.part_photo import mat_from, read_part
from hardkeel.sight.pictures import jpeg_of
from hardkeel.ui.jobs.scans import image_from, read_scan
from hardkeel.ui.stages.layout.scan_copies import greys
from tests.matted import faulted, lying_at, photographed, tilted

MAT = mat_for("A4", (210.0, 297.0), (2, 1))
JOINT = 210.0 - JOINT_MM
# longer than one sheet is broad
WOOD = shapely.Polygon([(-130, -30), (130, -30), (130, 12), (60, 34), (-40, 34), (-130, 20)])
PIECE = FlatPiece(
    "side", "side", "side", tuple((x, y) for x, y in WOOD.exterior.coords[:-1]), thickness=2.0
)


def laid_askew(by: tuple[float, float], turn: float) -> dict[str, Any]:
    """The mat as it really lies: its second sheet pushed and turned a little about its middle."""
    told = MAT.model_dump(mode="json")
    x0, y0, x1, y1 = MAT.pages[1]
    middle = np.array([(x0 + x1) / 2, (y0 + y1) / 2])
    c, s = math.cos(turn), math.sin(turn)
    for one in told["codes"]:
        corners = np.array(one["corners"])
        if corners[:, 0].min() > JOINT:
            away = (corners - middle) @ np.array([[c, s], [-s, c]])
            one["corners"] = (middle + by + away).tolist()
    return told


def test_no_label_lies_over_a_joint_and_each_sheet_has_some_of_them() -> None:
    for pages in ((2, 1), (1, 2), (2, 2)):
        mat = mat_for("Letter", (215.9, 279.4), pages)
        assert len(mat.pages) == pages[0] * pages[1]
        on = [0] * len(mat.pages)
        for one in mat.codes:
            x0, y0, x1, y1 = one.box
            spots = [(x, y) for x in (x0 - RIM_MM, x1 + RIM_MM) for y in (y0 - RIM_MM, y1 + RIM_MM)]
            assert len({mat.page_of(spot) for spot in spots}) == 1
            on[mat.page_of(((x0 + x1) / 2, (y0 + y1) / 2))] += 1
        assert min(on) >= 6
    with pytest.raises(BadInput, match="3 by 1: one or 2 each way"):
        mat_for("A4", (210.0, 297.0), (3, 1))


def test_sheets_a_little_apart_do_not_spoil_the_answer() -> None:
    wood = faulted(WOOD, 0.4, (100, -20, 140, 8))
    lying = lying_at(wood, 2.0, (201, 150), turn=4)
    eye = tilted(9, 560, (200, 150), focal=2550.0, size=(3000, 2250))
    told = {**laid_askew((0.5, -0.4), 0.004), "joints": [(JOINT, 0.3)]}
    pixels = photographed(told, MAT.inside, lying, eye)
    photo = read_part(jpeg_of(pixels, 2550 / 3000 * 36), "part.jpg", MAT)
    assert photo.on.left_px < 0.4
    check = photo.check(PIECE)
    first = faults_of(check, PIECE)[0]
    assert first.by == pytest.approx(0.4, abs=0.1)
    assert check.at[first.place][0] > 100
    assert len(faults_of(check, PIECE)) == 1, "the joint's white edge is no wood"
    # taken for one sheet the labels can't all lie where they are seen
    stiff = read_part(jpeg_of(pixels, 2550 / 3000 * 36), "part.jpg", MAT.but(pages=()))
    assert stiff.on.left_px > 2 * photo.on.left_px


def test_the_printed_sheets_have_the_labels_where_the_file_says(tmp_path: Any) -> None:
    pdf, data = mat_files("A4", pages=(2, 1))
    mat = mat_from(data, "mat.json")
    assert mat == MAT
    (tmp_path / "mat.pdf").write_bytes(pdf)
    for number in range(2):
        image, _ = image_from(read_scan(tmp_path / "mat.pdf", page=number))
        per_mm = image.dotsPerMeterX() / 1000
        there = {one.code: one for one in mat.codes if mat.page_of(one.box[:2]) == number}
        found = codes_in(greys(image))
        assert {one.code for one in found} == set(there)
        cut_off = JOINT_MM if number == 1 else 0.0
        for one in found:
            spots = [
                (u / per_mm + mat.pages[number][0] - cut_off, 297.0 - v / per_mm)
                for u, v in one.corners
            ]
            assert np.array(spots) == pytest.approx(np.array(there[one.code].corners), abs=0.12)
    assert all(one.box[2] - one.box[0] == pytest.approx(CODE_MM) for one in mat.codes)


def test_the_command_prints_them(tmp_path: Any, capsys: pytest.CaptureFixture[str]) -> None:
    to = tmp_path / "large.pdf"
    assert run_command(["mat", "--to", str(to), "--paper", "A4", "--pages", "2", "2"]) == 0
    assert len(mat_from(to.with_suffix(".json").read_bytes(), "large.json").pages) == 4
    assert run_command(["mat", "--to", str(to), "--pages", "1", "5"]) == 2
    assert "pages: 1 by 5" in capsys.readouterr().err
