"""Section files as they are found: decimal commas, semicolons, numbered rows, x with both heights."""

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.tail.own_sections import own_section
from hardkeel.tail.sections import Section, read_section


def as_section() -> Section:
    section = own_section("2412")
    assert section is not None
    return section


def loop() -> Array:
    section = as_section()
    return np.vstack([section.upper[::-4], section.lower[4::4]])


def same(found: Section) -> None:
    at = np.linspace(0.02, 0.98, 49)
    wanted = read_section("\n".join(f"{x:.6f} {z:.6f}" for x, z in loop()), "plain.dat")
    for one, other in zip(found.heights(at), wanted.heights(at), strict=True):
        assert one == pytest.approx(other, abs=2e-4)


@pytest.mark.parametrize(
    "row",
    [
        lambda i, x, z: f"{x:.6f};{z:.6f}".replace(".", ","),
        lambda i, x, z: f"{x:.6f} ; {z:.6f}",
        lambda i, x, z: f"{x:.6f}\t{z:.6f}".replace(".", ","),
        lambda i, x, z: f"{i + 1} {x:.6f} {z:.6f}",
        lambda i, x, z: f"{i + 1}; {x:.6f}; {z:.6f}".replace(".", ","),
        lambda i, x, z: f"{i} {x:.6f} {z:.6f}".replace(".", ","),
        lambda i, x, z: f"{x:.6f}, {z:.6f}",
        lambda i, x, z: f"{x:.6f} {z:.6f} 0.0",
    ],
)
def test_a_loop_is_read_however_its_figures_are_written(row: object) -> None:
    lines = ["a section, of our own"]
    lines += [row(i, x, z) for i, (x, z) in enumerate(loop())]  # type: ignore[operator]
    same(read_section("\n".join(lines), "odd.dat"))


@pytest.mark.parametrize("numbered", [False, True])
@pytest.mark.parametrize("backwards", [False, True])
def test_x_with_both_heights_is_a_section(numbered: bool, backwards: bool) -> None:
    section = as_section()
    x = np.concatenate([[0.0, 0.005, 0.0125], np.linspace(0.025, 1, 60)])
    upper, lower = section.heights(x)
    rows = [
        f"{n} {a:.5f} {b:.5f} {c:.5f}" if numbered else f"{a:.5f} {b:.5f} {c:.5f}"
        for n, (a, b, c) in enumerate(zip(x, upper, lower, strict=True), start=1)
    ]
    if backwards and not numbered:
        rows.reverse()
    found = read_section("x yu yl\n" + "\n".join(rows), "three.dat")
    at = np.linspace(0.05, 0.95, 31)
    for one, other in zip(found.heights(at), section.heights(at), strict=True):
        assert one == pytest.approx(other, abs=1e-3)


def test_three_columns_that_are_none_of_these_are_refused_with_a_reason() -> None:
    x = np.linspace(0, 1, 12)
    crossed = "\n".join(
        f"{a:.3f} {0.1 if i % 2 else -0.1} {-0.1 if i % 2 else 0.1}" for i, a in enumerate(x)
    )
    with pytest.raises(BadInput, match="two heights"):
        read_section(crossed, "crossed.dat")
    twice = "\n".join(f"{a:.3f} 0.1 -0.1" for a in np.repeat(x, 2))
    with pytest.raises(BadInput, match="twice"):
        read_section(twice, "twice.dat")
    with pytest.raises(BadInput, match="instead of three"):
        read_section("\n".join([*(f"{a:.3f} 0.1 -0.1" for a in x[:6]), "0.5 0.1", *(f"{a:.3f} 0.1 -0.1" for a in x[6:])]), "gap.dat")  # fmt: skip
