"""What is in a build's file besides the build: carried along, or the save is refused."""

import json
import lzma
import struct
import zipfile
from pathlib import Path

import pytest

from hardkeel.base.errors import BadInput, CannotSave, WouldLose
from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.model import Build
from hardkeel.storage import package
from hardkeel.storage.package import load, save


def file_with(path: Path, **members: bytes) -> Path:
    save(demo_build(), path)
    with zipfile.ZipFile(path, "a") as archive:
        for name, data in members.items():
            archive.writestr(f"photos/{name}.jpg", data)
    return path


def spoil(path: Path, needle: bytes) -> None:
    """Change a byte of a member's data: its check sum no longer fits."""
    data = bytearray(path.read_bytes())
    at = data.index(needle)
    data[at] ^= 0xFF
    path.write_bytes(bytes(data))


def saved_as(source: Path, target: Path) -> Path:
    loaded = load(source)
    save(loaded.build, target, attached=loaded.attached(), others=loaded.others)
    return target


def test_save_as_takes_photos_along_and_none_of_the_file_that_it_replaces(tmp_path: Path) -> None:
    mine = file_with(tmp_path / "mine.keel", tail=b"my tail")
    theirs = file_with(tmp_path / "theirs.keel", wing=b"their wing")
    with zipfile.ZipFile(saved_as(mine, theirs)) as archive:
        assert archive.read("photos/tail.jpg") == b"my tail"
        assert "photos/wing.jpg" not in archive.namelist()


def test_a_damaged_member_is_carried_as_it_is_with_all_after_it(tmp_path: Path) -> None:
    path = file_with(tmp_path / "a.keel", first=b"first picture", second=b"second picture")
    spoil(path, b"first picture")
    saved_as(path, path)
    saved_as(path, tmp_path / "b.keel")
    for file in (path, tmp_path / "b.keel"):
        with zipfile.ZipFile(file) as archive:
            assert archive.read("photos/second.jpg") == b"second picture"
            with pytest.raises(zipfile.BadZipFile):
                archive.read("photos/first.jpg")


@pytest.mark.parametrize("kind", ["encrypted", "unknown packing", "streamed", "extra"])
def test_what_we_can_not_unpack_is_given_back_byte_for_byte(tmp_path: Path, kind: str) -> None:
    path = file_with(tmp_path / "a.keel", odd=b"odd bytes", last=b"last")
    data = bytearray(path.read_bytes())
    local = data.index(b"photos/odd.jpg") - 30
    central = data.index(b"photos/odd.jpg", local + 60) - 46
    if kind == "encrypted":
        data[local + 6] |= 1
        data[central + 8] |= 1
    elif kind == "unknown packing":
        struct.pack_into("<H", data, local + 8, 97)
        struct.pack_into("<H", data, central + 10, 97)
    path.write_bytes(bytes(data))
    if kind == "streamed":
        with zipfile.ZipFile(path, "a") as archive, archive.open("photos/odd2.jpg", "w") as out:
            out.write(b"by and by")
    elif kind == "extra":
        info = zipfile.ZipInfo("photos/odd3.jpg")
        info.extra = struct.pack("<HH4s", 0x9999, 4, b"mark")
        with zipfile.ZipFile(path, "a") as archive:
            archive.writestr(info, b"with a mark")
    with zipfile.ZipFile(path) as before, zipfile.ZipFile(saved_as(path, tmp_path / "b")) as after:
        assert after.namelist() == before.namelist()
        for name in before.namelist():
            was, now = before.getinfo(name), after.getinfo(name)
            assert (now.flag_bits, now.compress_type, now.CRC, now.extra) == (
                was.flag_bits, was.compress_type, was.CRC, was.extra,
            )  # fmt: skip
        assert after.read("photos/last.jpg") == b"last"


def test_a_save_that_would_lose_something_is_refused_and_changes_nothing(tmp_path: Path) -> None:
    path = file_with(tmp_path / "a.keel", tail=b"tail")
    loaded = load(path)
    save(Build(name="someone else's"), path)
    before = path.read_bytes()
    with pytest.raises(WouldLose, match=r"photos/tail.jpg came with a.keel") as told:
        save(loaded.build, path, others=loaded.others)
    assert told.value.names == ("photos/tail.jpg",)
    assert path.read_bytes() == before
    save(loaded.build, path)
    assert load(path).build == loaded.build


def test_a_bare_file_gets_its_pictures_beside_it_and_writes_over_none(tmp_path: Path) -> None:
    path = file_with(tmp_path / "a.keel", tail=b"tail")
    saved_as(path, tmp_path / "bare" / ".." / "build.json")
    assert (tmp_path / "photos" / "tail.jpg").read_bytes() == b"tail"
    (tmp_path / "photos" / "tail.jpg").write_bytes(b"another's")
    with pytest.raises(CannotSave, match="another file"):
        saved_as(path, tmp_path / "build.json")
    assert (tmp_path / "photos" / "tail.jpg").read_bytes() == b"another's"


def test_a_scan_that_can_not_be_unpacked_does_not_stop_the_build(tmp_path: Path) -> None:
    build = load_with_plan(tmp_path / "a.keel", zipfile.ZIP_LZMA)
    assert build.attached() == {}
    assert build.others.names == ("plans/page.png",)


def load_with_plan(path: Path, packing: int) -> package.Loaded:
    data = {"format": "hardkeel/1", "plans": [{"id": "page", "image": "plans/page.png"}]}
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("build.json", json.dumps(data))
        archive.writestr("plans/page.png", b"grey" * 50, packing)
    raw = bytearray(path.read_bytes())
    at = raw.index(b"plans/page.png") + len("plans/page.png")
    raw[at + 4 : at + 9] = b"\xff" * 5  # the LZMA properties
    path.write_bytes(bytes(raw))
    with (
        zipfile.ZipFile(path) as archive,
        pytest.raises((lzma.LZMAError, zipfile.BadZipFile, NotImplementedError)),
    ):
        archive.read("plans/page.png")
    return load(path)


def test_corrupt_lzma_and_a_name_that_is_no_text_are_told_in_one_sentence(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    with zipfile.ZipFile(path, "w", zipfile.ZIP_LZMA) as archive:
        archive.writestr("build.json", '{"format": "hardkeel/1", "name": "abc"}')
    raw = bytearray(path.read_bytes())
    at = raw.index(b"build.json") + len("build.json")
    raw[at + 4 : at + 9] = b"\xff" * 5
    path.write_bytes(bytes(raw))
    with pytest.raises(BadInput, match="damaged"):
        load(path)

    named = file_with(tmp_path / "b.keel", ü=b"x")
    raw = bytearray(named.read_bytes())
    named.write_bytes(bytes(raw).replace("ü".encode(), b"\xff\xfe"))
    with pytest.raises(BadInput, match="damaged"):
        load(named)


def test_a_very_long_name_is_told(tmp_path: Path) -> None:
    with pytest.raises(BadInput, match="can't be read"):
        load(tmp_path / ("long" * 100 + ".keel"))
    with pytest.raises(CannotSave):
        save(Build(name="x"), tmp_path / ("long" * 100 + ".keel"))


def test_a_flood_of_values_is_refused_before_it_takes_memory(tmp_path: Path) -> None:
    path = tmp_path / "build.json"
    path.write_text('{"format": "hardkeel/1", "x": [' + "{}," * 1_100_000 + "{}]}")
    with pytest.raises(BadInput, match="1,000,000 values"):
        load(path)


def test_scans_together_are_no_more_than_is_good(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(package, "_LARGEST_IMAGES", 1000)
    names = [f"plans/{i}.png" for i in range(3)]
    data = {"format": "hardkeel/1", "plans": [{"id": n, "image": n} for n in names]}
    path = tmp_path / "a.keel"
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("build.json", json.dumps(data))
        for name in names:
            archive.writestr(name, b"x" * 400)
    assert list(load(path).attached()) == names[:2]
    bare = tmp_path / "build.json"
    bare.write_text(json.dumps(data))
    (tmp_path / "plans").mkdir()
    for name in names:
        (tmp_path / name).write_bytes(b"x" * 400)
    assert list(load(bare).attached()) == names[:2]
