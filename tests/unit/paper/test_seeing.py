"""A sheet shrunk and made readable: means, the paper under the lines, blueprints."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra import numpy as arrays

from hardkeel.paper.seeing import halved, lines_are_light, paper_of, strengthened
from tests.scans import PAPERS, Paper, scan_of


@given(arrays.arrays(np.uint8, arrays.array_shapes(min_dims=2, max_dims=2, min_side=2, max_side=9)))
def test_half_as_large_is_the_mean_of_each_four(grey: np.ndarray) -> None:
    small = halved(grey)
    assert small.shape == (grey.shape[0] // 2, grey.shape[1] // 2)
    for y in range(small.shape[0]):
        for x in range(small.shape[1]):
            four = [int(grey[2 * y + dy, 2 * x + dx]) for dy in (0, 1) for dx in (0, 1)]
            assert abs(small[y, x] - sum(four) / 4) <= 0.5


@pytest.mark.parametrize("paper", PAPERS)
def test_of_all_papers_only_the_blueprint_is_turned(paper: Paper) -> None:
    grey = scan_of(np.random.default_rng(5), 300, 0.35, paper, 0.3).grey
    assert lines_are_light(grey) == (paper == "blueprint")


def test_a_chalk_mark_on_white_paper_turns_nothing() -> None:
    grey = np.full((200, 300), 200, dtype=np.uint8)
    grey[90:110] = 255
    assert not lines_are_light(grey)


@pytest.mark.parametrize("share", [0.2, 0.35, 0.45])
def test_a_white_sheet_on_a_dark_table_is_no_blueprint(share: float) -> None:
    rng = np.random.default_rng(7)
    grey = 45.0 + rng.normal(0, 4.0, (900, 1200))
    tall = round(900 * share**0.5)
    wide = round(1200 * share**0.5)
    sheet = np.full((tall, wide), 225.0)
    sheet[::60] = 70.0
    grey[50 : 50 + tall, 60 : 60 + wide] = sheet
    assert not lines_are_light(np.clip(grey, 0, 255).astype(np.uint8))


def test_a_blueprint_on_a_light_table_is_turned() -> None:
    grey = np.full((900, 1200), 215.0)
    grey[80:820, 90:1100] = 65.0
    grey[80:820:60, 90:1100] = 190.0
    assert lines_are_light(grey.astype(np.uint8))


def test_the_paper_is_found_under_lettering_and_shade() -> None:
    rows, columns = np.mgrid[0:600, 0:900]
    paper = 230.0 - 120.0 * columns / 900
    lettered = (rows // 3 + columns // 3) % 4 == 0  # a quarter of it ink
    found = paper_of(np.where(lettered, 40.0, paper).astype(np.uint8))
    side = 900 / found.shape[1]
    for j in range(found.shape[1]):
        assert abs(int(found[10, j]) - (230.0 - 120.0 * (j + 0.5) * side / 900)) < 5


@given(st.integers(0, 6), st.integers(0, 255))
def test_darker_stays_darker_and_paper_stays_paper(halvings: int, paper: int) -> None:
    greys = np.arange(256, dtype=np.uint8)
    shown = strengthened(greys, np.full(256, paper, dtype=np.uint8), halvings).astype(int)
    assert np.all(np.diff(shown) >= 0)
    assert paper - 1 <= shown[paper] <= 247 or paper > 246


def test_a_dark_table_under_the_sheet_stays_dark() -> None:
    dark = np.full(1, 30, dtype=np.uint8)
    assert strengthened(dark, dark, 3)[0] < 100
