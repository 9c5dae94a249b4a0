import json
import os
import re
import signal
import subprocess
import sys
import zipfile
from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput, CannotSave, FileInUse, WouldLose
from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.model import Build
from hardkeel.storage.atomic import stamp_of, versions_of, write_atomically
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.holding import Hold, hold_file
from hardkeel.storage.journal import Journal, forget, orphans
from hardkeel.storage.migrations import REVISION
from hardkeel.storage.package import load, save
from tests.draws import draws
from tests.strategies import words

NOW = datetime(2026, 10, 5, 20, 0, tzinfo=UTC)


def test_a_saved_build_is_loaded_back_the_same(tmp_path: Path) -> None:
    build = demo_build()
    for name in ("demo.keel", "build.json"):
        save(build, tmp_path / name)
        assert load(tmp_path / name).build == build


def test_the_same_build_gives_the_same_bytes(tmp_path: Path) -> None:
    save(demo_build(), tmp_path / "a.keel")
    save(load(tmp_path / "a.keel").build, tmp_path / "b.keel")
    assert (tmp_path / "a.keel").read_bytes() == (tmp_path / "b.keel").read_bytes()


@given(
    st.dictionaries(
        words, st.one_of(st.integers(-9, 9), words, st.lists(words, max_size=3)), max_size=4
    ),
    words,
)
@settings(max_examples=draws(13, 40))
def test_keys_that_nobody_knows_are_given_back_at_every_level(
    extra: dict[str, object], key: str
) -> None:
    own = {f"x {name}": value for name, value in {**extra, key: 1}.items()}
    data = {
        "format": "hardkeel/1",
        "survey": {
            "bodies": [{"id": "fuselage", **own}],
            "marks": [{"id": "m", "body": "fuselage", "at": [0, 0, 0], **own}],
            "readings": [{"id": "r", "kind": "height", "mark": "m", "value": 1.0, **own}],
            **own,
        },
        **own,
    }
    told = json.loads(text_of(build_from_text(json.dumps(data))))
    assert told.pop("revision") == REVISION  # what the app itself adds
    assert told == data


def test_photos_and_plans_survive_a_save(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("photos/tail.jpg", b"picture")
    save(demo_build(), path, others=load(path).others)
    with zipfile.ZipFile(path) as archive:
        assert archive.read("photos/tail.jpg") == b"picture"


def test_the_last_versions_are_kept_and_can_be_loaded(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    for number in range(8):
        save(Build(name=f"build {number}"), path)
        os.utime(path, ns=(number * 10**9, number * 10**9))
    assert [load(p).build.name for p in versions_of(path)] == [
        f"build {n}" for n in (6, 5, 4, 3, 2)
    ]


def test_the_newest_versions_are_kept_when_the_clock_is_put_back(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    hours = [9, 8, 7, 6, 5, 4, 3, 2]  # each written an hour before the one before, by the clock
    for number, hour in enumerate(hours):
        save(Build(name=f"build {number}"), path)
        os.utime(path, ns=(hour * 3600 * 10**9,) * 2)
    assert [load(p).build.name for p in versions_of(path)] == [
        f"build {n}" for n in (6, 5, 4, 3, 2)
    ]
    assert all("Z" in p.name for p in versions_of(path))  # no zone, no summer time


def test_versions_from_before_they_were_counted_go_first(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    save(Build(name="old"), path)
    folder = tmp_path / ".a.keel.versions"
    folder.mkdir()
    for day in range(1, 6):
        (folder / f"2026-10-0{day} 19-00-00.000000000.keel").write_bytes(path.read_bytes())
    save(Build(name="new"), path)
    found = versions_of(path)
    assert len(found) == 5
    assert found[0].name.startswith("v000001 ")
    assert [p.name[:10] for p in found[1:]] == [f"2026-10-0{day}" for day in (5, 4, 3, 2)]


@pytest.mark.parametrize(
    "name", [".config/autostart/x.desktop", "notes.txt", "photos/.x", "x.json"]
)
def test_a_bare_build_puts_nothing_but_pictures_and_sections_in_its_folder(
    tmp_path: Path, name: str
) -> None:
    path = tmp_path / "a.keel"
    save(Build(name="a"), path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr(name, b"planted")
        archive.writestr("photos/tail.jpg", b"tail")
    loaded = load(path)
    bare = tmp_path / "bare"
    bare.mkdir()
    with pytest.raises(WouldLose, match=re.escape(name)):
        save(loaded.build, bare / "b.json", others=loaded.others)
    assert not (bare / name).exists()


def test_a_bare_build_writes_through_no_link(tmp_path: Path) -> None:
    elsewhere, bare = tmp_path / "elsewhere", tmp_path / "bare"
    elsewhere.mkdir()
    bare.mkdir()
    (bare / "photos").symlink_to(elsewhere)
    with pytest.raises(CannotSave, match="through a link"):
        save(Build(name="a"), bare / "b.json", attached={"photos/tail.jpg": b"tail"})
    assert list(elsewhere.iterdir()) == []


def test_a_file_changed_behind_our_back_is_not_written_over(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    stamp = save(Build(name="ours"), path)
    save(Build(name="theirs"), path)
    with pytest.raises(CannotSave, match="changed on disk"):
        save(Build(name="ours again"), path, stamp)
    assert load(path).build.name == "theirs"


def test_a_save_that_fails_leaves_the_old_file_and_no_litter(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "a.keel"
    save(Build(name="old"), path)

    def full(_fd: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(CannotSave, match="No space left"):
        save(Build(name="new"), path)
    assert load(path).build.name == "old"
    assert [p.name for p in tmp_path.iterdir() if p.is_file()] == ["a.keel"]


def test_the_files_mode_is_kept(tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    save(Build(), path)
    path.chmod(0o640)
    save(Build(name="more"), path)
    assert path.stat().st_mode & 0o777 == 0o640


def test_a_link_is_written_through(tmp_path: Path) -> None:
    real, link = tmp_path / "real.txt", tmp_path / "link.txt"
    real.write_text("old")
    link.symlink_to(real)
    write_atomically(link, b"new")
    assert link.is_symlink()
    assert real.read_text() == "new"
    assert stamp_of(link) == stamp_of(real)


def test_a_second_hold_is_refused_until_the_first_lets_go(tmp_path: Path) -> None:
    file = tmp_path / "a.keel"
    first = hold_file(file, tmp_path)
    with pytest.raises(FileInUse, match=f"process {os.getpid()}"):
        hold_file(file, tmp_path)
    first.release()
    hold_file(file, tmp_path).release()


def test_a_journal_in_use_is_no_orphan_and_a_closed_one_leaves_nothing(tmp_path: Path) -> None:
    journal = Journal(tmp_path)
    journal.write(demo_build(), None, NOW)
    assert orphans(tmp_path) == []
    journal.close()
    assert orphans(tmp_path) == []
    assert list((tmp_path / "journals").iterdir()) == []


WRITER = """
import sys, itertools
from datetime import datetime, timezone
from pathlib import Path
from hardkeel.project.model import Build
from hardkeel.storage.journal import Journal
journal = Journal(Path(sys.argv[1]))
for n in itertools.count():
    journal.write(Build(name=f"state {n}", log=()), Path("/models/a.keel"), datetime.now(timezone.utc))
    if n == 3:
        print("going", flush=True)
"""


def test_a_journal_survives_a_kill_at_any_moment(tmp_path: Path) -> None:
    for _ in range(4):
        program = subprocess.Popen(
            [sys.executable, "-c", WRITER, str(tmp_path)], stdout=subprocess.PIPE
        )
        assert program.stdout is not None
        program.stdout.readline()
        program.send_signal(signal.SIGKILL)
        program.wait()
        program.stdout.close()
    left = orphans(tmp_path)
    assert len(left) == 4
    assert all(rescued.build.name.startswith("state ") for rescued in left)
    assert left[0].path == Path("/models/a.keel")
    for rescued in left:
        forget(rescued)
    assert orphans(tmp_path) == []


def test_a_damaged_journal_is_passed_over_but_not_thrown_away(tmp_path: Path) -> None:
    folder = tmp_path / "journals"
    folder.mkdir()
    (folder / "x.journal").write_text("not a journal")
    assert orphans(tmp_path) == []
    assert (folder / "x.journal").exists()


def test_hold_tells_an_unknown_holder(tmp_path: Path) -> None:
    with Hold(tmp_path / "l"), pytest.raises(FileInUse):
        Hold(tmp_path / "l")


def test_an_older_file_without_survey_opens(tmp_path: Path) -> None:
    (tmp_path / "build.json").write_text('{"format": "hardkeel/1", "name": "bare"}')
    assert load(tmp_path / "build.json").build.survey is None
    with pytest.raises(BadInput):
        build_from_text('{"format": "hardkeel/999"}')


def test_unknown_keys_keep_their_order_through_an_edit() -> None:
    names = [f"key_{name}" for name in "qwertzuiopasdfghjkl"]
    text = json.dumps({"format": "hardkeel/1", **{name: i for i, name in enumerate(names)}})
    build = build_from_text(text).but(name="Withy").but(phase="dry")
    written = json.loads(text_of(build))
    assert [name for name in written if name in names] == names
