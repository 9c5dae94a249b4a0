"""Webcams: which there are, and a picture of one; the kernel's folder and the pictures are made up here."""

from pathlib import Path

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.sight.pictures import jpeg_of, pixels_of, read_picture
from hardkeel.sight.webcam import picture_from, webcams


def test_each_is_named_once_by_the_device_that_gives_pictures(tmp_path: Path) -> None:
    for number, index, name in ((10, 0, "Desk lamp"), (2, 0, "Bench"), (3, 1, "Bench")):
        folder = tmp_path / f"video{number}"
        folder.mkdir()
        (folder / "index").write_text(f"{index}\n")
        (folder / "name").write_text(f"{name}\n")
    (tmp_path / "video11").mkdir()
    assert webcams(tmp_path) == {"/dev/video2": "Bench", "/dev/video10": "Desk lamp"}
    assert webcams(tmp_path / "none") == {}


def test_the_picture_is_the_last_once_it_has_settled(tmp_path: Path) -> None:
    for number in range(5):
        shade = np.full((90, 120, 3), 40 * number + 20, np.uint8)
        (tmp_path / f"{number:02d}.jpg").write_bytes(jpeg_of(shade))
    data = picture_from(str(tmp_path / "%02d.jpg"))
    assert read_picture(data, "webcam").size == (120, 90)
    assert float(pixels_of(data).mean()) == pytest.approx(180, abs=3)


def test_one_that_is_not_there_is_told(tmp_path: Path) -> None:
    with pytest.raises(BadInput, match="can't be opened"):
        picture_from(str(tmp_path / "gone"))
