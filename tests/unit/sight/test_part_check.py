"""A cut part on its mat: faults found to a tenth of a millimetre on wood of any shade, from aside, in shadow, either face up."""

import json
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest
import shapely

from hardkeel.base.errors import BadInput
from hardkeel.cli import part as part_command
from hardkeel.export.mat_sheet import mat_files
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.sight.mat import mat_for
from hardkeel.sight.part_check import Check, worst_of
from hardkeel.sight.part_faults import faults_of
from hardkeel.sight.part_photo import PartPhoto, mat_from, read_part
from hardkeel.sight.pictures import Pixels, jpeg_of
from tests.draws import draws
from tests.matted import BALSA, DARK_PLY, Eye, Lying, faulted, lying_at, photographed, tilted

MAT = mat_for("A4", (210.0, 297.0))
DATA = MAT.model_dump(mode="json")
SMALL = (2400, 1800)
# no side of it is like another: a step, a notch, a round hole off its middle
RING = shapely.Polygon(
    [(-30, -40), (28, -40), (28, -8), (25, -8), (25, 4), (28, 4), (28, 30), (5, 44), (-22, 44), (-30, 25)]
)  # fmt: skip
WOOD = RING.difference(shapely.Point(-6, 8).buffer(11, quad_segs=32))
PIECE = FlatPiece(
    "F9",
    "former",
    "F9",
    tuple((x, y) for x, y in WOOD.exterior.coords[:-1]),
    tuple(tuple((x, y) for x, y in hole.coords[:-1]) for hole in WOOD.interiors),
    thickness=3.0,
)
FOCAL = 0.85 * SMALL[0]


def picture(lying: Lying | None, eye: Eye, **more: object) -> Pixels:
    return photographed(DATA, MAT.inside, lying, eye, **more)  # type: ignore[arg-type]


def seen(pixels: Pixels, film: float | None = 0.85 * 36) -> PartPhoto:
    return read_part(jpeg_of(pixels, film), "part.jpg", MAT)


def found_in(check: Check, within: tuple[float, float, float, float]) -> tuple[float, float]:
    """The median deviation within a box, and the rms of those outside of it."""
    inside = np.all((check.at > within[:2]) & (check.at < within[2:]), axis=1)
    return float(np.nanmedian(check.by[inside])), float(np.sqrt(np.nanmean(check.by[~inside] ** 2)))


FAULT = (20.0, 6.0, 32.0, 26.0)
CASES = [
    (0.0, BALSA, 0.15, 33.0, False, True),
    (25.0, DARK_PLY, -0.15, 200.0, False, True),
    (25.0, BALSA, 0.8, 290.0, True, True),
    (14.0, DARK_PLY, 0.15, 75.0, True, False),
]


@pytest.mark.parametrize(("tilt", "colour", "by", "turn", "mirrored", "shadow"), CASES)
def test_a_fault_is_found_where_it_is_and_moves_nothing_else(
    tilt: float,
    colour: tuple[float, float, float],
    by: float,
    turn: float,
    mirrored: bool,
    shadow: bool,
) -> None:
    wood = faulted(WOOD, by, FAULT)
    lying = lying_at(wood, 3.0, (105, 153), turn=turn, mirrored=mirrored, colour=colour)
    eye = tilted(tilt, 430, (105, 150), focal=FOCAL, k1=-0.02, size=SMALL, bearing=20 + turn)
    photo = seen(picture(lying, eye, shadow=shadow, cast=(1.1, 1.0, 0.85)))
    check = photo.check(PIECE)
    assert photo.on.tilt == pytest.approx(tilt, abs=0.3)
    assert check.fits
    assert check.mirrored is mirrored
    assert check.doubts == frozenset()
    inside, outside = found_in(check, FAULT)
    assert inside == pytest.approx(by, abs=0.05)
    assert outside < 0.06
    assert 0.01 < check.sigma < 0.05
    first = faults_of(check, PIECE)[0]
    assert first.edge == "the starboard edge"
    assert first.span == pytest.approx((6, 26), abs=3.5)
    off, (u, v) = worst_of(check)
    assert off == pytest.approx(by, abs=0.1)
    assert FAULT[0] < u < FAULT[2]
    assert FAULT[1] - 1 < v < FAULT[3] + 1
    words = say.verdict(PIECE, check, faults_of(check, PIECE), "mm")
    assert words.startswith("F9: sand 0." if by > 0 else "F9: the starboard edge, ")


def test_wood_that_is_as_drawn_is_said_to_be_and_its_thickness_is_not_forgotten() -> None:
    eye = tilted(22, 400, (105, 150), focal=FOCAL, size=SMALL, bearing=110)
    photo = seen(picture(lying_at(WOOD, 3.0, (105, 150), turn=12), eye))
    check = photo.check(PIECE)
    assert faults_of(check, PIECE) == ()
    assert say.verdict(PIECE, check, (), "mm").startswith("F9 is as it is drawn")
    assert check.rms < 0.05
    # taken for a sheet of paper, the far edges would seem to stand out
    assert photo.check(replace(PIECE, thickness=0.0)).rms > 0.15
    # another piece is none of it
    other = replace(
        PIECE, outline=((-45.0, -25.0), (45.0, -25.0), (45.0, 25.0), (-45.0, 25.0)), holes=()
    )
    assert not photo.check(other).fits
    small = replace(PIECE, outline=((0.0, 0.0), (9.0, 0.0), (0.0, 9.0)), holes=(), name="gusset")
    with pytest.raises(BadInput, match="nothing of the size of gusset"):
        photo.check(small)


def test_a_notch_that_was_not_cut_is_no_edge_that_could_not_be_seen() -> None:
    uncut = WOOD.union(shapely.box(20.0, -9.0, 28.0, 5.0))
    deeper = replace(
        PIECE, outline=tuple((18.0 if x == 25.0 else x, y) for x, y in PIECE.outline)
    )  # seven millimetres: more than is looked at
    eye = tilted(10, 430, (105, 150), focal=FOCAL, size=SMALL)
    check = seen(picture(lying_at(uncut, 3.0, (105, 150), turn=25), eye)).check(deeper)
    assert check.fits
    off, (u, v) = worst_of(check)
    assert off == pytest.approx(4.0)
    assert 17.9 < u < 28.0  # its bottom and its sides
    assert -8.1 < v < 4.1
    bottom = np.abs(check.at[:, 0] - 18.0) < 1e-6
    assert np.median(check.smooth[bottom]) == pytest.approx(4.0)


def test_a_scan_has_no_perspective_and_a_plank_no_thickness_in_it() -> None:
    # so far away that rays are side by side
    eye = Eye((105.0, 148.0, 60_000.0), (105.0, 148.0, 0.0), focal=60_000 * 6.0, size=(1400, 1900))
    wood = faulted(WOOD, -0.2, FAULT)
    photo = seen(picture(lying_at(wood, 3.0, (105, 150), turn=140), eye, shadow=False), None)
    assert photo.on.camera is None
    inside, outside = found_in(photo.check(PIECE), FAULT)
    assert inside == pytest.approx(-0.2, abs=0.05)
    assert outside < 0.05


def test_a_shape_that_is_alike_both_ways_is_said_to_be() -> None:
    square = FlatPiece(
        "plate", "gusset", "plate", ((-20.0, -30.0), (20.0, -30.0), (20.0, 30.0), (-20.0, 30.0)), thickness=3.0
    )  # fmt: skip
    wood = faulted(shapely.Polygon(square.outline), 0.5, (15, 0, 25, 20))
    eye = tilted(10, 420, (105, 150), focal=FOCAL, size=SMALL)
    check = seen(picture(lying_at(wood, 3.0, (105, 150), turn=20), eye)).check(square)
    assert check.doubts == {"face", "way"}
    assert check.fits
    off, (u, v) = worst_of(check)
    assert off == pytest.approx(0.5, abs=0.08)  # laid with its top to the mat's, as it lies
    assert u > 15
    assert v > 0


def slightly_wrong(number: int) -> tuple[float, Pixels, float]:
    """0.15 mm left on or taken off; a picture of it by chance, 12 megapixels; its focal length as for 35 mm film."""
    rng = np.random.default_rng(900 + number)
    by = float(rng.choice([-0.15, 0.15]))
    lying = lying_at(
        faulted(WOOD, by, FAULT),
        3.0,
        (105 + rng.uniform(-15, 15), 153 + rng.uniform(-30, 30)),
        turn=rng.uniform(0, 360),
        mirrored=bool(rng.random() < 0.5),
        colour=(BALSA, DARK_PLY)[number % 2],
    )
    eye = tilted(
        rng.uniform(0, 25), rng.uniform(380, 520), (105, 150), focal=3300.0, k1=rng.normal(0, 0.02),
        size=(4000, 3000), bearing=rng.uniform(0, 360), roll=rng.uniform(-0.4, 0.4),
    )  # fmt: skip
    return by, picture(lying, eye, seed=number), 3300 / 4000 * 36


@pytest.mark.parametrize("number", range(draws(0, 60)))
def test_fifteen_hundredths_are_found_and_none_are_made_up(number: int) -> None:
    by, pixels, film = slightly_wrong(number)
    check = seen(pixels, film).check(PIECE)
    told = faults_of(check, PIECE)
    assert {one.edge for one in told} == {"the starboard edge"}  # in one stretch or two
    assert told[0].by * by > 0


# -- the mat and its files -------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("paper", "size"), [("A4", (210, 297)), ("Letter", (215.9, 279.4)), ("A3", (297, 420))]
)
def test_the_mats_file_says_where_its_labels_are(paper: str, size: tuple[float, float]) -> None:
    pdf, data = mat_files(paper)
    assert pdf.startswith(b"%PDF")
    told = json.loads(data)
    assert set(told) == {"paper", "size", "ground", "codes"}
    assert told["size"] == pytest.approx(size)
    codes = [one["code"] for one in told["codes"]]
    assert len(set(codes)) == len(codes) >= 24
    for one in told["codes"]:
        (x0, y0), (x1, y1), (x2, y2), (x3, y3) = one["corners"]  # upper left, clockwise, y up
        assert x1 > x0
        assert y0 == y1 > y2 == y3
        assert x1 == x2
        assert x0 == x3
    mat = mat_from(data, "mat.json")
    x0, y0, x1, y1 = mat.inside
    assert (x1 - x0) * (y1 - y0) > 0.55 * size[0] * size[1]


def test_what_is_no_mat_or_shows_none_is_refused_in_a_sentence() -> None:
    with pytest.raises(BadInput, match=r"mat.json: "):
        mat_from(b"{", "mat.json")
    with pytest.raises(BadInput, match=r"mat.json: codes\[0\]\.corners"):
        mat_from(json.dumps({**DATA, "codes": [{"code": 1, "corners": [[0, 0]] * 3}]}).encode(), "mat.json")  # fmt: skip
    twice = {**DATA, "codes": [DATA["codes"][0], DATA["codes"][0]]}
    with pytest.raises(BadInput, match="one is there twice"):
        mat_from(json.dumps(twice).encode(), "mat.json")
    grey = np.full((600, 800, 3), 120, dtype=np.uint8)
    with pytest.raises(BadInput, match=r"part.jpg: shows 0 of the mat's 28 labels"):
        seen(grey)
    eye = tilted(5, 480, (105, 150), focal=1000.0, size=(1200, 900))
    bare = picture(None, eye, shadow=False)
    with pytest.raises(BadInput, match="shows no wood inside the mat"):
        seen(bare, 30.0).check(PIECE)
    colourless = np.repeat(bare[..., 1:2], 3, axis=2)
    with pytest.raises(BadInput, match="shows no cyan ground"):
        seen(colourless, 30.0)


def test_a_print_that_is_too_large_is_allowed_for() -> None:
    printed = MAT.measured(1.004, 0.997)
    assert printed.codes[3].corners[0][0] == pytest.approx(MAT.codes[3].corners[0][0] * 1.004)
    eye = tilted(8, 430, (105, 150), focal=FOCAL, size=SMALL)
    pixels = photographed(
        printed.model_dump(mode="json"), printed.inside, lying_at(WOOD, 3.0, (105, 150), turn=5), eye
    )  # fmt: skip
    assert seen(pixels).check(PIECE).rms > 0.08
    photo = read_part(jpeg_of(pixels, 0.85 * 36), "part.jpg", printed)
    assert photo.check(PIECE).rms < 0.05


def test_the_commands_figures_are_the_contracts(tmp_path: Path) -> None:
    eye = tilted(12, 430, (105, 150), focal=FOCAL, size=SMALL)
    check = seen(picture(lying_at(WOOD, 3.0, (105, 150), turn=5), eye)).check(PIECE)
    told = part_command.part_json(PIECE, check)
    assert set(told) == {"piece", "fits", "mirrored", "rms", "worst", "deviation", "sigma"}
    assert len(told["deviation"]) > 250
    assert max(abs(one["by"]) for one in told["deviation"]) == pytest.approx(
        abs(told["worst"]["by"])
    )
    json.dumps(told, allow_nan=False)
