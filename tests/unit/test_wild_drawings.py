"""Drawings that would never end, or hold more than a drawing of formers: refused in a sentence, before they are laid out."""

from collections.abc import Callable
from pathlib import Path

import pytest
from ezdxf.document import Drawing
from ezdxf.filemanagement import new

from hardkeel.base.errors import BadInput
from hardkeel.storage.outlines import read_outlines


def drawn(tmp_path: Path, draw: Callable[[Drawing], object]) -> Path:
    drawing = new("R2010", units=4)
    draw(drawing)
    path = tmp_path / "wild.dxf"
    drawing.saveas(path)
    return path


def _in_itself(drawing: Drawing) -> None:
    block = drawing.blocks.new("A")
    block.add_circle((0, 0), 10)
    block.add_blockref("A", (5, 5))
    drawing.modelspace().add_blockref("A", (0, 0))


def _in_one_another(drawing: Drawing) -> None:
    one, other = drawing.blocks.new("A"), drawing.blocks.new("B")
    one.add_blockref("B", (0, 0))
    other.add_blockref("A", (0, 0))
    drawing.modelspace().add_blockref("A", (0, 0))


def _in_rows_without_end(drawing: Drawing) -> None:
    drawing.blocks.new("A").add_circle((0, 0), 10)
    rows = {"row_count": 30_000, "column_count": 30_000, "row_spacing": 30, "column_spacing": 30}
    drawing.modelspace().add_blockref("A", (0, 0), dxfattribs=rows)


def _ten_times_ten_times_ten(drawing: Drawing) -> None:
    before = ""
    for depth in range(12):
        block = drawing.blocks.new(f"N{depth}")
        if before:
            for i in range(10):
                block.add_blockref(before, (50 * i, 0))
        else:
            block.add_circle((0, 0), 10)
        before = f"N{depth}"
    drawing.modelspace().add_blockref(before, (0, 0))


@pytest.mark.parametrize(
    ("draw", "told"),
    [
        (lambda d: d.modelspace().add_circle((0, 0), float("nan")), "figures are no numbers"),
        (lambda d: d.modelspace().add_circle((float("inf"), 0), 5), "figures are no numbers"),
        (lambda d: d.modelspace().add_circle((1e9, 0), 5), "more than 100 m away"),
        (lambda d: d.modelspace().add_line((0, 0), (1e12, 0)), "more than 100 m away"),
        (_in_itself, "a block that lies in itself: A"),
        (_in_one_another, "a block that lies in itself: A"),
        (_in_rows_without_end, "too many for outlines"),
        (_ten_times_ten_times_ten, "too many for outlines"),
    ],
)
def test_what_is_no_drawing_of_formers_is_refused(
    tmp_path: Path, draw: Callable[[Drawing], object], told: str
) -> None:
    with pytest.raises(BadInput, match=told):
        read_outlines(drawn(tmp_path, draw))


def test_circles_laid_twice_count_once_and_rows_of_blocks_are_laid_out(tmp_path: Path) -> None:
    def draw(drawing: Drawing) -> None:
        space = drawing.modelspace()
        for i in range(300):
            for _ in range(2):
                space.add_circle((30 * (i % 20), 30 * (i // 20)), 5 + i % 7)
        drawing.blocks.new("A").add_circle((0, 0), 9)
        rows = {"row_count": 3, "column_count": 4, "row_spacing": 40, "column_spacing": 40}
        space.add_blockref("A", (2000, 0), dxfattribs=rows)

    found = read_outlines(drawn(tmp_path, draw))
    assert len(found) == 300 + 12
    # a circle's points lie on it, and its area is its own to the chord's sag
    largest = found[0]
    assert largest.area == pytest.approx(3.14159 * 11**2, rel=0.004)


@pytest.mark.parametrize("text", ["nonsense", "", "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n10\nx\n"])
def test_what_is_no_drawing_is_told_without_its_folder(tmp_path: Path, text: str) -> None:
    path = tmp_path / "bad.dxf"
    path.write_text(text)
    with pytest.raises(BadInput) as fault:
        read_outlines(path)
    assert str(tmp_path) not in str(fault.value)
    assert "bad.dxf" in str(fault.value)
    with pytest.raises(BadInput, match="can't be read"):
        read_outlines(tmp_path / "gone.dxf")
