"""An outline that was taken from a part becomes a former, a tail surface or a template."""

import json
import re
from pathlib import Path

import ezdxf.filemanagement
import numpy as np
import pytest
import shapely
from shapely import affinity

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.outlines import give_taken
from hardkeel.export.mat_sheet import mat_files
from hardkeel.export.outline_file import outline_file
from hardkeel.messages.mat import taken_words
from hardkeel.sight.mat import mat_for
from hardkeel.sight.pictures import jpeg_of
from hardkeel.storage.package import load, save
from tests.matted import lying_at, photographed, tilted

MAT = mat_for("A4", (210.0, 297.0))
HOLE = shapely.Point(5, 10).buffer(9, quad_segs=24)
WOOD = shapely.Polygon(
    [(-28, -36), (28, -36), (28, 20), (12, 40), (-12, 40), (-28, 20)]
).difference(HOLE)


@pytest.fixture(scope="module")
def files(tmp_path_factory: pytest.TempPathFactory) -> tuple[Path, Path, Path]:
    """A build, a picture of a part from straight above, the mat's file."""
    folder = tmp_path_factory.mktemp("outline")
    eye = tilted(1, 430, (105, 150), focal=2040.0, size=(2400, 1800))
    pixels = photographed(
        MAT.model_dump(mode="json"), MAT.inside, lying_at(WOOD, 3.0, (105, 150)), eye
    )
    (folder / "part.jpg").write_bytes(jpeg_of(pixels, 2040 / 2400 * 36))
    (folder / "mat.json").write_bytes(mat_files("A4")[1])
    save(demo_build(), folder / "model.keel")
    return folder / "model.keel", folder / "part.jpg", folder / "mat.json"


def test_a_former_takes_it_and_a_file_has_it_with_its_holes(
    files: tuple[Path, Path, Path], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    model, photo, mat = map(str, files)
    begun = ["part", model, photo, "--mat", mat, "--outline"]
    kept = tmp_path / "kept.keel"
    assert run_command([*begun, "F5", "--save", str(kept), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    lain = shapely.Polygon(told["outline"], told["holes"])
    middle = affinity.translate(WOOD, 0, -2)  # of its box
    assert lain.symmetric_difference(middle).area < 0.01 * WOOD.area
    assert len(told["holes"]) == 1
    fuselage = load(kept).build.fuselage
    assert fuselage is not None
    former = fuselage.former("F5")
    assert former is not None
    assert former.half_width == pytest.approx(28, abs=0.2)
    assert load(files[0]).build == demo_build()
    assert run_command([*begun, "F5"]) == 0
    assert "It is not kept" in capsys.readouterr().out
    dxf = tmp_path / "bulkhead.dxf"
    assert run_command([*begun, str(dxf)]) == 0
    assert re.match(
        r"An outline of 5[56]\.\d mm by 7[56]\.\d mm with 1 hole\.", capsys.readouterr().out
    )
    layers = {one.dxf.layer for one in ezdxf.filemanagement.readfile(dxf).modelspace()}
    assert {"CUT", "HOLES"} <= layers


@pytest.mark.parametrize(
    ("more", "words"),
    [
        ([], "say which piece lies there"),
        (["--piece", "F4", "--outline", "F5"], "say which piece lies there"),
        (["--outline", "bulkhead.dxf", "--save", "kept.keel"], "changes nothing of the build"),
        (["--outline", "F55"], 'no former and no tail surface "F55"'),
        (["--outline", "F5", "--thickness", "0"], "no thickness of wood"),
    ],
)
def test_what_can_not_be_is_refused_in_a_sentence(
    files: tuple[Path, Path, Path], more: list[str], words: str, capsys: pytest.CaptureFixture[str]
) -> None:
    model, photo, mat = map(str, files)
    assert run_command(["part", model, photo, "--mat", mat, *more]) == 2
    assert words in capsys.readouterr().err


def test_a_half_of_a_surface_lies_with_its_leading_edge_up() -> None:
    # root along the left side of the mat, leading edge above; 210 mm out, 120 at the root, 80 at the tip
    lain = ((0.0, 0.0), (0.0, 120.0), (210.0, 105.0), (210.0, 25.0))
    build = give_taken(demo_build(), "stab", [(x - 105, y - 60) for x, y in lain])
    stab = next(one for one in build.tail if one.id == "stab")
    assert stab.span == pytest.approx(420, abs=0.1)
    assert stab.root_chord == pytest.approx(120, abs=0.1)
    assert stab.outline is not None
    tip = [x for x, y in stab.outline if y == pytest.approx(210)]
    assert (min(tip), max(tip)) == pytest.approx((15, 95), abs=0.01)  # swept by 15 in front
    with pytest.raises(BadInput, match=r"no surface|no side|no straight root"):
        give_taken(
            demo_build(),
            "stab",
            [(np.cos(a) * 50, np.sin(a) * 70 + 9 * np.cos(3 * a)) for a in np.linspace(0, 6.2, 90)],
        )


def test_a_template_is_at_full_size_whatever_writes_it() -> None:
    rings = (((0.0, 0.0), (40.0, 0.0), (40.0, 25.0)), ((30.0, 5.0), (35.0, 5.0), (35.0, 9.0)))
    assert taken_words(rings, "mm") == "An outline of 40.0 mm by 25.0 mm with 1 hole."
    svg = outline_file(rings, Path("rib.SVG")).decode()
    assert re.search(r'width="4\d(\.\d+)?mm"', svg)
    with pytest.raises(BadInput, match=r"rib.png is neither a .dxf nor an .svg"):
        outline_file(rings, Path("rib.png"))
