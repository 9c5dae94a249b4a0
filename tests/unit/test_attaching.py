"""Images that belong to a build: kept until a file holds them, never lost, never let out."""

import json
import zipfile
from pathlib import Path

import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_fuselage
from hardkeel.demo.plan_page import ASKEW_DEG, plan_page
from hardkeel.paper.model import Plan
from hardkeel.project.model import Build
from hardkeel.storage.attaching import BuildImages, Images
from hardkeel.storage.format import build_from_data
from hardkeel.storage.package import load, save

PIXELS = b"\x89PNG pretended"


@pytest.fixture
def images(tmp_path: Path) -> BuildImages:
    return BuildImages(Images(tmp_path / "state"))


def build_with(name: str) -> Build:
    return Build(format="hardkeel/1", name="x", plans=(Plan(id="p", image=name),))


def test_the_same_bytes_have_the_same_name(images: BuildImages) -> None:
    name = images.add(PIXELS)
    assert images.add(PIXELS) == name
    assert images.read(name) == PIXELS
    assert images.of(build_with(name)) == {name: PIXELS}
    assert images.read("plans/other.png") is None


@pytest.mark.parametrize(
    "name", ["plans/../../x.png", "/etc/passwd", "plans/a/b.png", "plans/.hidden", ""]
)
def test_a_name_never_leads_out_of_the_file(images: BuildImages, name: str) -> None:
    assert images.read(name) is None
    images.keep({name: PIXELS})
    with pytest.raises(BadInput, match=r"plans\[0\]\.image"):
        build_from_data({"format": "hardkeel/1", "plans": [{"id": "p", "image": name}]})


@pytest.mark.parametrize("file", ["a.keel", "a.json"])
def test_an_image_is_saved_once_and_comes_back(
    images: BuildImages, tmp_path: Path, file: str
) -> None:
    name = images.add(PIXELS)
    build = build_with(name)
    path = tmp_path / file
    save(build, path, attached=images.of(build))
    save(build.but(name="y"), path, attached=images.of(build))
    assert load(path).attached() == {name: PIXELS}
    if path.suffix == ".keel":
        with zipfile.ZipFile(path) as archive:
            assert sorted(archive.namelist()) == ["build.json", name]
            assert json.loads(archive.read("build.json"))["name"] == "y"


def test_a_missing_image_does_not_spoil_the_build(tmp_path: Path) -> None:
    save(build_with("plans/gone.png"), tmp_path / "a.keel")
    loaded = load(tmp_path / "a.keel")
    assert loaded.attached() == {}
    assert loaded.build.plans[0].image == "plans/gone.png"


def test_old_images_are_swept(tmp_path: Path) -> None:
    store = Images(tmp_path / "state")
    images = BuildImages(store)
    name = images.add(PIXELS)
    store.sweep()
    assert images.read(name) == PIXELS
    store.sweep(now=4e9)
    assert images.read(name) is None


def test_the_made_up_page_lies_as_it_says() -> None:
    page = plan_page(demo_fuselage(), "a title")
    (u0, v0), (u1, v1), (u2, v2) = page.pixel(0, 0), page.pixel(800, 0), page.pixel(0, 100)
    dots = 150 / 25.4
    assert ((u1 - u0) ** 2 + (v1 - v0) ** 2) ** 0.5 / dots == pytest.approx(800 * 1.012)
    assert ((u2 - u0) ** 2 + (v2 - v0) ** 2) ** 0.5 / dots == pytest.approx(100 * 0.994)
    assert (v1 - v0) / (u1 - u0) == pytest.approx(ASKEW_DEG * 3.14159 / 180, rel=1e-3)
    assert len(page.png) < 400_000
