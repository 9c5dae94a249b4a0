"""Sections: every usual file is read as it is meant, what can't be right is refused with its reason."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.tail.own_sections import own_names, own_section
from hardkeel.tail.sections import Section, read_section

AT = np.linspace(0.01, 0.99, 99)


def made(name: str = "2412") -> Section:
    section = own_section(name)
    assert section is not None
    return section


def rows(points: np.ndarray, way: str = "{:.7f} {:.7f}") -> str:
    return "\n".join(way.format(x, z) for x, z in points)


def orders(section: Section) -> dict[str, str]:
    """The same section as files are found."""
    upper, lower = section.upper, section.lower
    loop = np.vstack([upper[::-1], lower[1:]])
    return {
        "over the top": f"a name\n{rows(loop)}\n",
        "under first": rows(loop[::-1]),
        "with its nose twice": rows(np.vstack([upper[::-1], lower])),
        "counts": f"a name\n {len(upper)}.  {len(lower)}.\n\n{rows(upper)}\n\n{rows(lower)}\n",
        "halves without counts": f"a name\n{rows(upper)}\n\n{rows(lower)}\n",
        "from the nose round": rows(np.vstack([upper, lower[-2::-1]])),
        "tabs and comments": "# made up\n" + rows(loop, "{:.7f}\t{:.7f}\t! point") + "\n# end",
        "in percent": f"a name\n{rows(100 * loop, '{:.5f} {:.5f}')}",
        "with commas": rows(loop, "{:.7f}, {:.7f}"),
        "a note below": f"a name\n{rows(loop)}\n\ndrawn anew from a table\n",
        "chord of 250, nose at 40": rows(loop * 250 + np.array([40.0, 0.0])),
        "old exponents": rows(loop, "{:.7E} {:.7E}").replace("E", "D"),
        "three lines over it": f"a name\nby hand\n11 % thick\n{rows(loop)}",
    }


@pytest.mark.parametrize("name", ["2412", "0009", "plate 4", "lifting", "flat-bottomed"])
@pytest.mark.parametrize("way", list(orders(made())))
def test_every_order_gives_the_same_section(name: str, way: str) -> None:
    section = made(name)
    again = read_section(orders(section)[way], "made.dat")
    wanted, got = section.heights(AT), again.heights(AT)
    assert np.allclose(wanted, got, atol=2e-4)
    assert again.thickness == pytest.approx(section.thickness, abs=2e-4)


def spoiled() -> dict[str, tuple[str, str]]:
    section = made()
    loop = np.vstack([section.upper[::-1], section.lower[1:]])[::4]
    swapped, slip = loop.copy(), loop.copy()
    swapped[[12, 14]] = swapped[[14, 12]]
    slip[12, 1] *= 10
    lone = rows(section.upper)
    half = f"{len(section.upper)} {len(section.lower)}\n{rows(section.upper)}\n{rows(section.lower[:-20])}"
    middle = rows(loop[:10]) + "\nand so on\n" + rows(loop[10:])
    return {
        "out of order": (rows(swapped), "out of order"),
        "a slip of the point": (rows(slip), "off the line of its neighbours"),
        "one surface": (lone, "one surface only"),
        "counts that do not fit": (half, "some are missing"),
        "words between": (middle, "is not two figures"),
        "five columns": (rows(loop, "{:.5f} {:.5f} 0 0 1"), "instead of two"),
        "nothing": ("a name\nand no more\n", "no two columns"),
        "four points": ("1 0\n0.5 0.1\n0 0\n1 0\n", "holds 4 points"),
        "a flat line": (rows(np.column_stack([loop[:, 0], 0 * loop[:, 0]])), "no thickness"),
        "columns swapped": (rows(loop[:, ::-1]), "nearly as thick"),
        "cut off below": (rows(np.vstack([section.upper[::-1], section.lower[1:60]])), "ends at"),
        "not finite": (rows(loop).replace("1.0000000", "1e400", 1), "out of all measure"),
    }


@pytest.mark.parametrize("what", list(spoiled()))
def test_what_cannot_be_right_is_refused_with_its_reason(what: str) -> None:
    text, reason = spoiled()[what]
    with pytest.raises(BadInput) as told:
        read_section(text, "made.dat")
    assert reason in str(told.value)
    assert "made.dat" in str(told.value)
    assert "\n" not in str(told.value)


@given(st.text(max_size=400))
def test_no_text_breaks_the_reader(text: str) -> None:
    try:
        section = read_section(text, "any.dat")
    except BadInput:
        return
    assert np.all(np.isfinite(section.heights(AT)))


def test_what_comes_with_the_app_is_sound() -> None:
    for name in own_names():
        section = made(name)
        upper, lower = section.heights(AT)
        assert np.all(upper >= lower)
        assert section.upper[-1, 0] == pytest.approx(1, abs=2e-3)
        for line in (section.upper, section.lower):
            assert np.all(np.diff(line[:, 0]) >= 0)
    assert made("plate 6").thickness == pytest.approx(0.06)
    assert own_section("wood") is None
    assert own_section("2012") is None  # camber without a place


def test_the_four_digit_family_by_its_table() -> None:
    """Ordinates of the 2412 as the report's table has them, percent of the chord."""
    section = made()
    table = [(10.0, 5.63, -3.75), (30.0, 7.88, -4.12), (50.0, 7.24, -3.34), (70.0, 5.18, -2.14), (90.0, 2.08, -0.82)]  # fmt: skip
    for x, upper, lower in table:
        up, low = section.heights(x / 100)
        assert float(up) * 100 == pytest.approx(upper, abs=0.03)
        assert float(low) * 100 == pytest.approx(lower, abs=0.03)
