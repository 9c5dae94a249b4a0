import csv
import io
import json
import re
from collections import Counter
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

import pytest
from pypdf import PdfReader

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.airframe.orders.frame import STAGE, frame_steps
from hardkeel.base.errors import CannotSave, NotOurs
from hardkeel.base.units import format_angle
from hardkeel.cli.commands import run_command
from hardkeel.demo.fleet import sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits.steps import plan_steps, tick
from hardkeel.edits.truing import set_gluing, set_locked
from hardkeel.export.booklet import leaves
from hardkeel.export.bundle import export_record
from hardkeel.export.diary import DayByDay, diary_pdf
from hardkeel.export.record import record_pdf
from hardkeel.export.renewing import Destination, file_stem
from hardkeel.export.rigging_card import rigging_card_pdf
from hardkeel.export.sheets import COLUMNS, readings_csv
from hardkeel.export.templates import former_files
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.messages.names import check_name
from hardkeel.project.model import Build, empty_build
from hardkeel.storage.package import load, save
from hardkeel.survey.judging import judge_survey


def bare() -> Build:
    """The demo with little to cut: for what is asked of files, whatever is in them."""
    demo = demo_build()
    assert demo.fuselage is not None
    fuselage = demo.fuselage.but(framing=None, sections=())
    return demo.but(fuselage=fuselage, tail=tuple(one.but(kind=None) for one in demo.tail))


def text_of_pdf(content: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)


def test_the_record_holds_real_text_of_all_its_parts() -> None:
    build = demo_build()
    text = text_of_pdf(record_pdf(build, judge_survey(build.surveyed, "dry"), "mm"))
    for words in (
        "Kettlewick 1280", "Stabilizer out of true", "Read with", "In the round", "Stabilizer level", "OUT: starboard tip",
        "Only sanding", "Only shims", "Doubts", "Readings", "Log", "Doublers glued", "For model aircraft only",
    ):  # fmt: skip
        assert words in text


def test_the_record_tells_frame_squareness_and_order_of_work() -> None:
    build = sallow()
    build = tick(
        plan_steps(build, frame_steps(build), STAGE), "cut", datetime(2026, 11, 25, tzinfo=UTC)
    )
    text = text_of_pdf(record_pdf(build, judge_survey(build.surveyed, "dry"), "mm"))
    for words in (
        "Frame", "lower longeron", "Square", "Twisted. From nose to tail it turns 2.77° ± 0.20°",
        "Height of F3 top starboard does not fit the rest", "Twist the whole box back", "Hold it so", "F1 square in itself",
        "Readings of the frame", "F9 top middle off the centre line", "Order of work", "This can't be undone",
        "Close the tail", "done",
    ):  # fmt: skip
        assert words in text, words


def test_a_frame_that_was_never_read_or_ordered_takes_no_room_in_the_record() -> None:
    build = withy().but(steps=())
    text = text_of_pdf(record_pdf(build, judge_survey(build.surveyed, "dry"), "in"))
    assert "Order of work" not in text
    assert "Readings of the frame" not in text


@pytest.mark.parametrize(
    "build", [empty_build(), Build(name="<b>&"), build_from(Figures(name="x" * 200))]
)
def test_a_record_of_little_is_still_a_record(build: Build) -> None:
    text = text_of_pdf(record_pdf(build, judge_survey(build.surveyed), "in"))
    assert "For model aircraft only" in text


def test_the_csv_has_a_line_for_each_reading_with_its_fit() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")
    rows = list(csv.DictReader(io.StringIO(readings_csv(build, judgement))))
    assert tuple(rows[0]) == COLUMNS
    assert len(rows) == len(judgement.readings)
    for row, fit in zip(rows, judgement.fits, strict=True):
        assert float(row["residual"]) == pytest.approx(fit.residual, abs=1e-4)
        assert row["used"] == ("yes" if fit.used else "no")


def test_a_label_is_never_a_formula_in_the_csv() -> None:
    build = demo_build()
    evil = build.but(
        survey=build.surveyed.but(
            marks=tuple(m.but(label=f"=1+{m.id}") for m in build.surveyed.marks)
        )
    )
    rows = csv.DictReader(io.StringIO(readings_csv(evil, judge_survey(evil.surveyed))))
    assert not any(row["what"].startswith("=") for row in rows)


def test_the_command_writes_pdf_csv_and_a_build_that_loads(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    save(demo_build(), tmp_path / "demo.keel")
    assert (
        run_command(["export", str(tmp_path / "demo.keel"), "--to", str(tmp_path / "out" / "deep")])
        == 0
    )
    written = [Path(line) for line in capsys.readouterr().out.splitlines()]
    plans = [p for p in written if p.name.startswith("kettlewick-1280-plan")]
    assert [p.name[16:] for p in plans] == [
        *(
            f"plan-{name}.{kind}"
            for name in (
                "side",
                "top",
                "sections",
                "sections-2",
                "elevation",
                "stab",
                "fin",
                "props-stab",
            )
            for kind in ("dxf", "svg")
        ),
        "plan-A4.pdf",
        "plan.pdf",
    ]
    record = [
        p for p in written if "-dxf" not in str(p) and "-svg" not in str(p) and p not in plans
    ]
    assert [p.suffix for p in record] == [
        ".pdf", ".csv", ".json", ".pdf", ".pdf", ".pdf", ".pdf", ".csv", *[".dxf"] * 7, ".pdf", ".csv", ".pdf", ".csv"
    ]  # fmt: skip
    assert (
        len([p for p in written if "-svg" in str(p)])
        == len([p for p in written if "-dxf" in str(p)])
        > 6  # one for each sheet of wood
    )
    assert all(path.stat().st_size for path in written)
    assert load(written[2]).build == demo_build()
    assert json.loads(written[2].read_text())["format"] == "hardkeel/1"


def names_in(folder: Path) -> set[str]:
    return {str(file.relative_to(folder)) for file in folder.rglob("*") if file.is_file()}


def test_a_second_export_renews_ours_as_a_whole(tmp_path: Path) -> None:
    build = bare()
    export_record(build, Destination(tmp_path), "dry", "mm")
    (tmp_path / "my notes.txt").write_text("mine")
    first = names_in(tmp_path)
    assert "kettlewick-1280-formers/F4.dxf" in first
    export_record(drawing_edits.delete_former(build, "F4"), Destination(tmp_path), "dry", "in")
    gone = first - names_in(tmp_path)
    assert "kettlewick-1280-formers/F4.dxf" in gone
    assert "my notes.txt" not in gone


def light() -> Build:
    """The demo without what takes long to nest: whose file is whose does not hang on it."""
    build = demo_build()
    assert build.fuselage is not None
    return build.but(tail=(), fuselage=build.fuselage.but(framing=None))


def test_every_page_is_of_the_paper_that_was_asked_for(tmp_path: Path) -> None:
    wide, tall = 215.9, 279.4
    for path in export_record(bare(), Destination(tmp_path, paper="Letter"), "dry", "in"):
        if path.suffix == ".pdf" and not path.name.endswith("-plan.pdf"):  # each of its own size
            for page in PdfReader(path).pages:
                size = [
                    float(side) / 72 * 25.4 for side in (page.mediabox.width, page.mediabox.height)
                ]
                if path.name.endswith("-booklet.pdf"):  # it lies, two pages to a side
                    size.reverse()
                assert size == pytest.approx([wide, tall], abs=0.1), path.name


def test_two_builds_in_one_folder_leave_each_other_alone(tmp_path: Path) -> None:
    export_record(light(), Destination(tmp_path, of=tmp_path / "a.keel"), "dry", "mm")
    before = {name: (tmp_path / name).read_bytes() for name in names_in(tmp_path)}
    export_record(light().but(name="Another"), Destination(tmp_path), "dry", "mm")
    assert {name: (tmp_path / name).read_bytes() for name in before} == before
    with pytest.raises(NotOurs):  # a build of the same name from another file
        export_record(light(), Destination(tmp_path, of=tmp_path / "b.keel"), "dry", "in")
    assert {name: (tmp_path / name).read_bytes() for name in before} == before


@pytest.mark.parametrize(
    "name", ["kettlewick-1280-record.pdf", "kettlewick-1280-formers/F4.dxf", "kettlewick-1280-formers/mine.dxf"]
)  # fmt: skip
def test_anothers_file_is_never_written_over_unasked(tmp_path: Path, name: str) -> None:
    (tmp_path / name).parent.mkdir(exist_ok=True)
    (tmp_path / name).write_text("another's")
    with pytest.raises(NotOurs, match=Path(name).name):
        export_record(light(), Destination(tmp_path), "dry", "mm")
    assert names_in(tmp_path) == {name}
    assert (tmp_path / name).read_text() == "another's"
    export_record(light(), Destination(tmp_path, overwrite=True), "dry", "mm")
    assert "kettlewick-1280-build.json" in names_in(tmp_path)


def test_what_the_builder_changed_in_our_files_is_not_ours_any_more(tmp_path: Path) -> None:
    export_record(light(), Destination(tmp_path), "dry", "mm")
    notes = tmp_path / "kettlewick-1280-readings.csv"
    notes.write_text(notes.read_text() + "my own line\n")
    with pytest.raises(NotOurs, match=r"readings\.csv"):
        export_record(light(), Destination(tmp_path), "dry", "mm")


def test_the_command_refuses_and_overwrites_only_when_told(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    save(light(), tmp_path / "demo.keel")
    out = tmp_path / "out"
    out.mkdir()
    (out / "kettlewick-1280-record.pdf").write_text("another's")
    command = ["export", str(tmp_path / "demo.keel"), "--to", str(out)]
    assert run_command(command) == 2
    told = capsys.readouterr()
    assert told.out == ""
    assert told.err.count("\n") == 1
    assert "--overwrite" in told.err
    assert run_command([*command, "--overwrite"]) == 0
    assert (out / "kettlewick-1280-record.pdf").read_bytes().startswith(b"%PDF")


@pytest.mark.parametrize("text", ["word " * 1500, "x" * 7500, "line\n" * 3000, "\x0b\x00 & <b>"])
def test_a_long_note_goes_on_over_the_pages_of_the_record(text: str) -> None:
    build = demo_build()
    entry = build.log[0].model_copy(update={"text": text})
    long = build.but(log=(entry, *build.log), name=text[:5000])
    pages = PdfReader(io.BytesIO(record_pdf(long, judge_survey(long.surveyed), "mm"))).pages
    assert len(pages) > (2 if len(text) > 100 else 0)


def test_no_millimetres_stand_in_an_inch_record() -> None:
    build = demo_build().but(log=())
    text = text_of_pdf(record_pdf(build, judge_survey(build.surveyed, "dry"), "in"))
    assert not re.findall(r"[^\n]*\d mm\b[^\n]*", text)


def test_a_folder_that_can_not_be_made_is_told(tmp_path: Path) -> None:
    (tmp_path / "taken").write_text("a file")
    with pytest.raises(CannotSave):
        export_record(bare(), Destination(tmp_path / "taken" / "x"), "dry", "mm")


@pytest.mark.parametrize(
    ("name", "stem"),
    [("Kettlewick 1280", "kettlewick-1280"), ("", "build"), ("../../x", "x"), ("Ä/b", "b")],
)
def test_a_name_never_leaves_its_folder(name: str, stem: str) -> None:
    assert file_stem(name) == stem


def test_the_table_says_the_same_as_the_window(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    save(demo_build(), tmp_path / "demo.keel")
    assert run_command(["true", str(tmp_path / "demo.keel"), "--phase", "dry"]) == 0
    out = capsys.readouterr().out
    for words in (
        "Stabilizer out of true",
        "take it again",
        "Sand ",
        "with shims only",
        "Next",
        "Readings",
    ):
        assert words in out


def test_formers_of_a_fuselage_that_is_not_framed_are_printed_at_full_size(tmp_path: Path) -> None:
    build = light()
    assert build.fuselage is not None
    files = former_files(build, "mm")
    names = [former.id for former in build.fuselage.formers]
    assert list(files) == ["formers.pdf", *(f"formers/{name}.dxf" for name in names)]
    pages = PdfReader(io.BytesIO(files["formers.pdf"])).pages
    assert len(pages) < len(names), "several lie on one page"
    text = "\n".join(page.extract_text() for page in pages)
    assert all(re.search(rf"^ ?{name}\b", text, re.MULTILINE) for name in names)
    assert text.count("100 mm on the print") == len(pages)
    widths = set()
    for page in pages:
        content = page.get_contents()
        assert content is not None
        spots = _path_points(content.get_data().decode("latin-1"))
        for axis in (0, 1):  # some lie turned
            widths |= {round(abs(a[axis] - b[axis]) / 72 * 25.4, 1) for a in spots for b in spots}
    for former in build.fuselage.formers[1:3]:  # uncut along their widest line
        inner = 2 * (former.half_width - build.fuselage.side_thickness)
        assert any(abs(wide - inner) < 0.11 for wide in widths), former.id


def test_formers_of_a_framed_fuselage_lie_on_its_templates() -> None:
    assert "formers.pdf" not in former_files(demo_build(), "mm")


def _path_points(content: str) -> list[tuple[float, float]]:
    return [(float(x), float(y)) for x, y in re.findall(r"(-?[\d.]+) (-?[\d.]+) [ml]\b", content)]


def test_a_large_former_gets_pages_enough_and_odd_names_plain_files() -> None:
    big = Former(id="../ Ω", station=0.0, half_width=180.0, bottom=-200.0, top=220.0)
    other = Former(id="bay/2", station=50.0, half_width=20.0, bottom=-20.0, top=20.0)
    like = Former(id="bay-2", station=80.0, half_width=20.0, bottom=-20.0, top=20.0)
    build = Build(format="hardkeel/1", fuselage=Fuselage(formers=(big, other, like)))
    files = former_files(build, "in")
    assert list(files) == [
        "formers.pdf",
        "formers/former-1.dxf",
        "formers/bay-2.dxf",
        "formers/bay-2-3.dxf",
    ]
    pages = PdfReader(io.BytesIO(files["formers.pdf"])).pages
    assert len(pages) > 4, "a former larger than a page takes several"
    assert {round(float(page.mediabox.width), 1) for page in pages} == {595.3}
    assert former_files(Build(format="hardkeel/1"), "mm") == {}


def test_the_record_tells_stages_gluing_and_what_it_does_in_the_air() -> None:
    build = set_gluing(
        set_locked(
            demo_build(), "wing", locked=True, now=datetime(2026, 11, 30, 20, 15, tzinfo=UTC)
        ),
        "stab",
    )
    text = _text_of(record_pdf(build, judge_survey(build.surveyed, "wet"), "mm"))
    for words in (
        "Stages of rigging", "Wing: glued, and left as it stands, since Mon 30 Nov 20:15.", "What the glue has moved",
        "In the air", "Neutral point at", "At the edge of what is allowed",
    ):  # fmt: skip
        assert words in text, words
    plain = _text_of(record_pdf(demo_build(), judge_survey(demo_build().surveyed, "dry"), "mm"))
    assert "What the glue has moved" not in plain
    assert "elevator" in plain
    bare = _text_of(record_pdf(Build(), judge_survey(Build().surveyed), "mm"))
    assert "Neutral point" not in bare


def _text_of(data: bytes) -> str:
    pages = PdfReader(io.BytesIO(data)).pages
    return " ".join(" ".join(page.extract_text().split()) for page in pages)


def test_the_first_page_of_the_record_is_the_answer_and_the_rest_goes_part_by_part() -> None:
    build = demo_build()
    pages = PdfReader(
        io.BytesIO(record_pdf(build, judge_survey(build.surveyed, "dry"), "mm"))
    ).pages
    first, second = (page.extract_text() for page in pages[:2])
    assert "Stabilizer out of true" in first
    assert "33 readings of 34 fit each other" in first
    assert "From above; from behind; from port." in first
    assert "Stabilizer level" not in first
    places = [second.index(f"\n{part}\n") for part in ("Wing", "Stabilizer", "Fin")]
    assert places == sorted(places)
    assert second.index("Stabilizer level") > places[1]
    assert second.index("Stabilizer level") < places[2]


def test_the_rigging_card_says_what_is_wanted_and_what_was_reached() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")
    (page,) = PdfReader(io.BytesIO(rigging_card_pdf(build, judgement))).pages
    text = " ".join(page.extract_text().split())
    for check in judgement.checks:
        name = check_name(build.surveyed, check)
        if check.unit == "deg":
            reached = (
                "not known"
                if check.doubt > check.tolerance
                else f"{format_angle(check.value)} ± {format_angle(check.doubt)}"
            )
            wanted = f"{format_angle(check.target)} ± {format_angle(check.tolerance)}"
            assert f"{name} {wanted} {reached}" in text
    assert "0.0 mm 0″" in text, "lengths in both units"


def test_a_card_of_many_checks_is_one_page_still() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")
    many = replace(judgement, checks=judgement.checks * 3)
    (page,) = PdfReader(io.BytesIO(rigging_card_pdf(build, many))).pages
    names = [check_name(build.surveyed, check) for check in judgement.checks]
    text = " ".join(page.extract_text().split())
    assert all(text.count(name) >= 3 for name in names)


def test_the_diary_says_what_the_readings_of_a_day_told() -> None:
    build = demo_build()
    text = " ".join(
        " ".join(page.extract_text().split())
        for page in PdfReader(io.BytesIO(diary_pdf(build, DayByDay(build, "mm")))).pages
    )
    dry = judge_survey(build.surveyed, "dry").check("wing_incidence")
    wet = judge_survey(build.surveyed, "wet").check("wing_incidence")
    assert dry is not None
    assert wet is not None
    assert "Took 34 readings: r1 −0.25°, " in text
    assert f"r34 −1.2 mm True: wing incidence {format_angle(dry.value)}," in text
    assert "Out: stabilizer to wing" in text
    assert (
        f"wing incidence {format_angle(wet.value)} (was {format_angle(dry.value)}, dry fit)" in text
    )


@pytest.mark.parametrize("count", [1, 2, 4, 5, 8, 11])
def test_a_booklet_reads_through_when_it_is_folded(count: int) -> None:
    """Sheets one in the other, folded: each leaf's two sides, from the outermost in, then out again."""
    sides = list(leaves(count))
    fronts, backs = sides[::2], sides[1::2]
    read = []
    for front, back in zip(fronts, backs, strict=True):
        read += [front[1], back[0]]
    for front, back in reversed(list(zip(fronts, backs, strict=True))):
        read += [back[1], front[0]]
    assert read[:count] == list(range(count))
    assert set(read[count:]) <= {None}


def test_the_folded_diary_holds_the_same_words() -> None:
    build = demo_build()
    flat, folded = (
        PdfReader(io.BytesIO(diary_pdf(build, DayByDay(build, "mm"), booklet=way)))
        for way in (False, True)
    )
    assert {round(float(page.mediabox.width)) for page in folded.pages} == {842}
    assert len(folded.pages) % 2 == 0
    words = Counter(" ".join(page.extract_text() for page in flat.pages).split())
    again = Counter(" ".join(page.extract_text() for page in folded.pages).split())
    assert again == words
