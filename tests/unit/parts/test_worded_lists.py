"""Lists as builders paste them: in words, with woods and thicknesses, the post counted as a former."""

import pytest

from hardkeel.base.errors import BadInput
from hardkeel.messages.airframe import read_cutouts
from hardkeel.messages.parts import lists_told
from hardkeel.parts.lists import compare, post_called, read_list, wood_differences
from hardkeel.parts.model import Listed, Part
from hardkeel.parts.worded import same_wood


@pytest.mark.parametrize(
    ("line", "name", "count", "wood", "thick"),
    [
        ("2 x F3 light ply 3 mm", "F3", 2, "light ply", 3.0),
        ("F3 x2 balsa 2.5mm", None, 0, None, None),
        ("4 longeron spruce 6 mm", "longeron", 4, "spruce", 6.0),
        ("longeron spruce 6 mm x4", "longeron", 4, "spruce", 6.0),
        ('wing rib 1/16" balsa x 22', "wing rib", 22, "balsa", 1.5875),
        ("tail post", "tail post", 1, None, None),
        ("F7", "F7", 1, None, None),
        ("12 pcs rib", "rib", 12, None, None),
        ("former F4, birch ply 0,8 mm", None, 0, None, None),  # has a comma: columns
    ],
)
def test_lines_in_words_are_understood(
    line: str, name: str | None, count: int, wood: str | None, thick: float | None
) -> None:
    if name is None:
        return
    (row,) = read_list(line)
    assert (row.name, row.quantity, row.material) == (name, count, wood)
    assert row.thickness == (pytest.approx(thick) if thick is not None else None)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("F1\nrib 7", "line 2: is 7 the count of “rib” or of its name"),
        ("the nose block is glued up of three layers of balsa", "write it as name; count"),
    ],
)
def test_what_can_not_be_told_apart_is_refused_with_its_line(text: str, told: str) -> None:
    """A whole line became a name."""
    with pytest.raises(BadInput, match=told):
        read_list(text)


def part(name: str, wood: str = "light-ply", thick: float = 3.0, count: int = 1) -> Part:
    return Part(
        id=name, name=name, kind="former", material=wood, quantity=count, size=(90, 60, thick)
    )


PARTS = (
    part("former F1", "birch-ply", 6.0),
    *(part(f"former F{i}") for i in (2, 3)),
    part("tail post"),
)


def test_woods_and_thicknesses_are_compared() -> None:
    printed = read_list("F1;1;birch plywood;6 mm\nF2;1;light ply;2 mm\nF3;1;balsa;3 mm")
    found = wood_differences(PARTS, printed, ())
    assert [(one.name, one.listed_in) for one in found] == [
        ("former F2", "printed"),
        ("former F3", "printed"),
    ]
    told = "\n".join(lists_told(PARTS, printed, ()))
    assert (
        "Former F2: the printed list says light ply 2.0 mm, the drawing says light ply 3.0 mm."
        in told
    )
    assert "Former F3: the printed list says balsa 3.0 mm" in told
    assert wood_differences(PARTS, (Listed(name="F2"),), ()) == ()


def test_a_heading_gives_the_thickness() -> None:
    rows = read_list("part,qty,wood,thickness\nF2,1,light ply,3\nF3,1,,1/8 in")
    assert rows[0].thickness == 3.0
    assert rows[1].thickness == pytest.approx(3.175)
    with pytest.raises(BadInput, match="line 2"):
        read_list("part,qty,wood,thickness\nF2,1,light ply,thick")


def test_a_kits_last_former_is_the_drawings_post() -> None:
    kit = read_list("F1;1\nF2;1\nF3;1\nF4;1")
    assert post_called(PARTS, kit) == "F4"
    assert compare(PARTS, kit, ()) == ()
    assert any(
        "F4 of the list is taken for the tail post" in one for one in lists_told(PARTS, kit, ())
    )
    both = (*kit, Listed(name="tail post"))
    assert post_called(PARTS, both) is None
    assert [one.name for one in compare(PARTS, both, ())] == ["F4"]


def test_woods_are_the_same_by_what_is_said_of_them() -> None:
    assert same_wood("balsa", "balsa-medium")
    assert same_wood("birch plywood", "birch-ply")
    assert not same_wood("light ply", "birch-ply")


def test_a_cut_out_of_no_kind_is_told_which_there_are() -> None:
    with pytest.raises(BadInput, match="battery, tank, hatch or hole"):
        read_cutouts("pushrod 6 x 6", "mm")
    assert read_cutouts("main hatch 40 x 30", "mm")[0].kind == "hatch"
