"""How sharp a photograph of labels is, and where a lamp is mirrored in it."""

import math

import cv2
import numpy as np
import pytest
from numpy.typing import NDArray

from hardkeel.messages.targets import quality_words
from hardkeel.sight.codes import LIGHT, CodeSeen, codes_in
from hardkeel.sight.printed import Label, with_labels
from hardkeel.sight.quality import quality_of
from hardkeel.survey.cameras import Camera


def wall(blur: float = 0.0, lamp: tuple[int, int] | None = None) -> NDArray[np.uint8]:
    """Twelve labels on a wall, softened by so many pixels more; a lamp mirrored at a place."""
    labels = [
        Label(4 * i + j, np.array([60.0 * i, 60.0 * j, 0.0]), np.array([1.0, 0, 0]), np.array([0, 1.0, 0]), 30.0)
        for i in range(4)
        for j in range(3)
    ]  # fmt: skip
    eye = Camera(np.array([90.0, 60.0, 500.0]), np.diag([1.0, -1.0, -1.0]), math.log(900.0), 0.0)
    bench = np.full((600, 800, 3), 120, np.uint8)
    plain = with_labels(bench, labels, eye, np.random.default_rng(1))[..., 0]
    light = LIGHT[plain].astype(np.float32)  # a lens softens light, not grey levels
    if blur:
        light = np.asarray(cv2.GaussianBlur(light, (0, 0), blur), dtype=np.float32)
    grey = 255 * np.where(light <= 0.0031308, 12.92 * light, 1.055 * light ** (1 / 2.4) - 0.055)
    if lamp is not None:
        v, u = np.mgrid[:600, :800]
        far = np.hypot(u - lamp[0], v - lamp[1])
        grey = grey + 190 * np.exp(-((far / 35) ** 2))
    return np.asarray(np.clip(grey, 0, 255), dtype=np.uint8)


def test_a_sharp_picture_is_not_complained_of() -> None:
    grey = wall()
    found = quality_of(grey, codes_in(grey))
    assert found is not None
    assert 1.0 < found.edge_px < 3.0
    assert found.glared == ()
    assert quality_words(found) == ""


def test_a_blurred_one_is_told() -> None:
    sharp, soft = (quality_of(grey, codes_in(grey)) for grey in (wall(), wall(2.0)))
    assert sharp is not None
    assert soft is not None
    assert soft.edge_px > 1.5 * sharp.edge_px
    assert "Blurred" in quality_words(soft)


@pytest.mark.parametrize("blur", [1.5, 3.0, 6.0])
def test_an_edge_is_as_wide_as_its_blur_makes_it(blur: float) -> None:
    """Large black squares softened in light: from a tenth to nine tenths is 2.56 sigma."""
    light = np.full((700, 900), 0.8, np.float32)
    seen = []
    for number, (u, v) in enumerate(((100, 100), (500, 100), (100, 420))):
        light[v : v + 240, u : u + 240] = 0.03
        corners = (float(u), float(v)), (u + 240.0, float(v)), (u + 240.0, v + 240.0), (float(u), v + 240.0)  # fmt: skip
        seen.append(CodeSeen(number, corners))
    light = np.asarray(cv2.GaussianBlur(light, (0, 0), blur), dtype=np.float32)
    grey = 255 * (1.055 * light ** (1 / 2.4) - 0.055)
    found = quality_of(np.round(grey).astype(np.uint8), seen)
    assert found is not None
    assert found.edge_px == pytest.approx(2.563 * blur, abs=0.5)


def test_a_mirrored_lamp_is_told_by_the_labels_it_lies_in() -> None:
    plain = wall()
    corner = next(one for one in codes_in(plain) if one.code == 5)
    u, v = corner.middle
    grey = wall(lamp=(round(u), round(v)))
    codes = codes_in(plain)  # where they are; the glare may keep one from being read
    found = quality_of(grey, codes)
    assert found is not None
    assert 5 in found.glared
    assert len(found.glared) <= 2
    assert "A lamp is mirrored in" in quality_words(found)


def test_too_few_labels_say_nothing_of_a_picture() -> None:
    grey = wall()
    assert quality_of(grey, codes_in(grey)[:2]) is None
    assert quality_words(None) == ""


def test_small_labels_are_accused_of_nothing() -> None:
    """Modules of four pixels: lens and rim run into each other, black is never black, and no lamp lies there."""
    grey = cv2.resize(wall(), None, fx=0.45, fy=0.45, interpolation=cv2.INTER_AREA)
    codes = codes_in(np.asarray(grey, dtype=np.uint8))
    assert len(codes) > 8
    assert quality_of(np.asarray(grey, dtype=np.uint8), codes) is None
