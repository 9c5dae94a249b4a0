"""What a bug report wants to know, and a build's small picture."""

import argparse
import json
import os
from pathlib import Path

import numpy as np
import platformdirs
import pytest
from PIL import Image

from hardkeel import __version__
from hardkeel.base.errors import BadInput
from hardkeel.cli import doctor, thumbnail
from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.model import empty_build
from hardkeel.storage.package import load, save


def test_it_tells_versions_folders_and_what_is_wrong(monkeypatch: pytest.MonkeyPatch) -> None:
    found = doctor.findings()
    assert found["version"] == __version__
    assert found["libraries"]["numpy"]["version"] == np.__version__
    assert not any(one["fault"] for one in found["libraries"].values())
    assert json.loads(doctor.run(argparse.Namespace(json=True)))["python"] == found["python"]
    monkeypatch.setattr(doctor, "_LIBRARIES", (("glue", "no_such_module"),))
    text = doctor.run(argparse.Namespace(json=False))
    assert "glue can't be loaded: No module named 'no_such_module'" in text


def test_a_folder_that_cannot_be_written_is_told(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(os, "access", lambda _place, _how: False)
    monkeypatch.setattr(platformdirs, "user_state_path", lambda _name: tmp_path / "a" / "b")
    found = doctor.findings()
    assert found["folders"]["state"] == "not writable"
    assert "The state folder can't be written to." in found["wrong"]


def test_no_name_and_no_build_of_the_users_is_in_it() -> None:
    text = doctor.run(argparse.Namespace(json=False))
    assert str(Path.home()) not in text


def test_a_build_is_drawn_from_the_side_as_large_as_was_asked(tmp_path: Path) -> None:
    path = tmp_path / "demo.keel"
    save(demo_build(), path)
    to = tmp_path / "small.png"
    thumbnail.run(load(path), argparse.Namespace(to=to, size=128))
    image = np.asarray(Image.open(to))
    assert image.shape == (128, 128, 3)
    dark = np.argwhere(image.sum(axis=2) < 250)
    assert np.ptp(dark[:, 1]) == pytest.approx(128 * 0.88, abs=4)  # from margin to margin
    assert np.ptp(dark[:, 0]) < 60
    assert not (tmp_path / ".small.png.versions").exists()


def test_of_a_build_without_an_outline_the_paper_is_bare(tmp_path: Path) -> None:
    path = tmp_path / "none.keel"
    save(empty_build(), path)
    to = tmp_path / "small.png"
    thumbnail.run(load(path), argparse.Namespace(to=to, size=None))
    assert len(np.unique(np.asarray(Image.open(to)).reshape(-1, 3), axis=0)) == 1


def test_a_size_that_is_none_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "demo.keel"
    save(demo_build(), path)
    with pytest.raises(BadInput, match="4 is not between"):
        thumbnail.run(load(path), argparse.Namespace(to=tmp_path / "x.png", size=4))
