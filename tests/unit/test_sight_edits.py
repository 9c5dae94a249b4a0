"""Photos and clicks as edits: kept with the build, put right, taken away."""

import io
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from pypdf import PdfReader

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import sight as edits
from hardkeel.edits.truing import correction_done, set_phase
from hardkeel.export.record import record_pdf
from hardkeel.export.sheets import readings_csv
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.photographing import camera_for, picture_of, seen_from
from hardkeel.sight.pictures import jpeg_of
from hardkeel.storage.attaching import images_named
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.package import load, save
from hardkeel.survey.judging import judge_survey

NOON = datetime(2026, 10, 6, 12, tzinfo=UTC)


def test_a_photo_and_its_clicks_are_written_by_the_contract_and_read_back() -> None:
    build = edits.add_photo(demo_build(), "photos/a.jpg", (4000, 3000), 3250.0, NOON, original="ab")
    build = edits.take_sighting(build, "p1", "stab_tip_te_port", (1812.4, 1490.2), NOON, sigma=1.5)
    text = text_of(build)
    assert '"photos": [' in text
    assert build_from_text(text) == build
    sight = build.surveyed.sightings[0]
    assert (sight.kind, sight.photo, sight.mark) == ("sight", "p1", "stab_tip_te_port")
    assert sight.phase == build.phase
    assert build.surveyed.reading(sight.id) is None
    assert len(build.surveyed.figures) == len(demo_build().surveyed.readings)
    assert images_named(build) == ("photos/a.jpg",)
    assert build.log[-1].photos == ("photos/a.jpg",)


def test_a_mark_clicked_again_is_put_right_not_taken_twice() -> None:
    build = edits.add_photo(demo_build(), "photos/a.jpg", (4000, 3000), None, NOON)
    build = edits.take_sighting(build, "p1", "nose_pin", (10.0, 20.0), NOON, sigma=0.5)
    build = edits.take_sighting(build, "p1", "nose_pin", (11.0, 20.0), NOON)
    (sight,) = build.surveyed.sightings
    assert sight.value == (11.0, 20.0)
    assert sight.sigma is None
    assert edits.drop_sighting(build, sight.id).surveyed.sightings == ()
    with pytest.raises(BadInput, match="no sighting"):
        edits.drop_sighting(build, "s9")


def test_a_photo_goes_with_its_clicks_and_ids_are_not_used_twice() -> None:
    build = demo_build()
    for name in ("a", "b"):
        build = edits.add_photo(build, f"photos/{name}.jpg", (4000, 3000), None, NOON)
    build = edits.take_sighting(build, "p1", "nose_pin", (10.0, 20.0), NOON)
    build = edits.take_sighting(build, "p2", "nose_pin", (10.0, 20.0), NOON)
    less = edits.drop_photo(build, "p1")
    assert [one.photo for one in less.surveyed.sightings] == ["p2"]
    more = edits.add_photo(less, "photos/c.jpg", (4000, 3000), None, NOON)
    assert [one.id for one in more.surveyed.photos] == ["p2", "p3"]
    faults: tuple[Callable[[], object], ...] = (
        lambda: edits.drop_photo(build, "p9"),
        lambda: edits.take_sighting(build, "p9", "nose_pin", (1.0, 1.0), NOON),
        lambda: edits.take_sighting(build, "p1", "tail_pin", (4001.0, 1.0), NOON),
    )
    for fault in faults:
        with pytest.raises(BadInput):
            fault()


def test_a_smaller_image_leaves_the_clicks_as_they_are() -> None:
    build = edits.add_photo(demo_build(), "photos/a.jpg", (4000, 3000), None, NOON)
    build = edits.take_sighting(build, "p1", "nose_pin", (3900.0, 20.0), NOON)
    small = edits.replace_image(build, "p1", "photos/b.jpg")
    assert small.surveyed.photos[0].size == (4000, 3000)
    assert small.surveyed.sightings == build.surveyed.sightings
    assert images_named(small) == ("photos/b.jpg",)


def test_a_corrected_seat_leaves_the_clicks_on_its_body_behind() -> None:
    build = edits.add_photo(demo_build(), "photos/a.jpg", (4000, 3000), None, NOON)
    for mark in ("nose_pin", "stab_tip_te_port"):
        build = edits.take_sighting(build, "p1", mark, (10.0, 20.0), NOON)
    after = correction_done(build, "stab", "dry", (), NOON)
    assert [one.ignored for one in after.surveyed.sightings] == [False, True]


def test_photos_live_in_the_keel(tmp_path: Path) -> None:
    out = io.BytesIO()
    Image.new("RGB", (100, 80), "brown").save(out, "JPEG")
    build = edits.add_photo(demo_build(), "photos/a.jpg", (100, 80), None, NOON)
    save(build, tmp_path / "model.keel", attached={"photos/a.jpg": out.getvalue()})
    loaded = load(tmp_path / "model.keel")
    assert loaded.build.surveyed.photos == build.surveyed.photos
    assert loaded.attached()["photos/a.jpg"] == out.getvalue()


def test_the_record_shows_the_photo_with_what_lies_over_it_and_its_figures() -> None:
    build = demo_build()
    hidden = hidden_from(build.surveyed, build.hidden or {})
    rng = np.random.default_rng(2)
    size = (640, 480)
    camera = camera_for(hidden, "behind", rng, size)
    image = jpeg_of(picture_of(hidden, build.fuselage, camera, rng, size))
    build = edits.add_photo(build, "photos/a.jpg", size, 0.8125 * size[0], NOON)
    for mark, at in seen_from(hidden, build.fuselage, camera).items():
        u, v = (float(one) for one in camera.project(at[None], size)[0])
        off = 25.0 if mark == "wing_tip_te_port" else 0.0
        build = edits.take_sighting(build, "p1", mark, (u + off, v), NOON, sigma=0.3)
    judged = judge_survey(build.surveyed, "dry")
    plain, with_photo = (
        record_pdf(build, judged, "mm", attached) for attached in ({}, {"photos/a.jpg": image})
    )
    text = " ".join(
        " ".join(page.extract_text() for page in PdfReader(io.BytesIO(with_photo)).pages).split()
    )
    assert "Photo p1: 20 marks clicked." in text
    assert "The camera stood" in text
    assert "White: as it should stand" in text
    assert "The click on wing tip TE port in p1 lies" in text
    images = [one for page in PdfReader(io.BytesIO(with_photo)).pages for one in page.images]
    assert [one.image.size for one in images if one.image is not None] == [size]
    assert not [one for page in PdfReader(io.BytesIO(plain)).pages for one in page.images]
    rows = readings_csv(build, judged).splitlines()
    assert len([row for row in rows if ",sight," in row]) == 20


def test_a_photo_shows_one_moment() -> None:
    build = edits.add_photo(demo_build(), "photos/a.jpg", (4000, 3000), None, NOON)
    build = edits.take_sighting(build, "p1", "nose_pin", (10.0, 20.0), NOON)
    wet = set_phase(build, "wet")
    wet = edits.take_sighting(wet, "p1", "tail_pin", (10.0, 20.0), NOON)
    assert {one.phase for one in wet.surveyed.sightings} == {"dry"}
    wet = edits.take_sighting(wet, "p1", "nose_pin", (12.0, 20.0), NOON)
    assert len(wet.surveyed.sightings) == 2
    wet = edits.add_photo(wet, "photos/b.jpg", (4000, 3000), None, NOON)
    wet = edits.take_sighting(wet, "p2", "nose_pin", (10.0, 20.0), NOON)
    assert wet.surveyed.sightings[-1].phase == "wet"
