"""The manual says what is so: its commands print what stands there, its words are those of the program, it is found in."""

import ast
import re
import shutil
from pathlib import Path

import pytest

import hardkeel
from hardkeel.cli.commands import run_command
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.other_shapes import yarrow
from hardkeel.manual.book import CONTENTS, chapter, chapters, folder, search
from hardkeel.messages.names import mark_name, reading_name
from hardkeel.survey.checking import verdict_of
from hardkeel.survey.proposing import candidates_of

SOURCE = Path(hardkeel.__file__).parent
GLOSSARY = chapter("glossary").text
ROWS = [
    [cell.strip() for cell in line.strip("|").split("|")]
    for line in GLOSSARY.splitlines()
    if line.startswith("| ") and not line.startswith("| word")
]
NOT_SAID = [row[2] for row in ROWS if row[2]]


def _printed() -> list[tuple[str, list[str]]]:
    """Each command that stands in the worked build, with the lines it is said to print."""
    blocks = re.findall(r"```\n(hardkeel .*?)\n\n(.*?)```", chapter("worked-build").text, re.DOTALL)
    return [(command, lines.rstrip().splitlines()) for command, lines in blocks]


@pytest.mark.parametrize(("command", "lines"), _printed())
def test_a_command_prints_what_stands_there(
    command: str,
    lines: list[str],
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    shutil.copy(SOURCE / "resources" / "kettlewick.json", tmp_path / "kettlewick.json")
    monkeypatch.chdir(tmp_path)
    assert run_command(command.split()[1:]) == 0
    told = capsys.readouterr().out.splitlines()
    assert lines
    for line in lines:
        assert line in told


def test_the_worked_build_shows_five_commands() -> None:
    assert len(_printed()) == 5


def test_every_chapter_is_in_the_contents_and_every_link_has_its_heading() -> None:
    files = {one.stem for one in folder().glob("*.md")}
    assert files == {one.id for one in chapters()}
    for one in chapters():
        for name, heading in re.findall(r"\]\(([a-z-]+)\.md(?:#([^)]+))?\)", one.text):
            found = chapter(name)
            assert found.id == name
            if heading:
                assert heading.replace("-", " ") in [it.heading for it in found.sections]


def test_pictures_of_the_manual_are_there() -> None:
    shown = [
        one for it in chapters() for one in re.findall(r"!\[[^\]]+\]\(([^)]+)\)", it.text)
    ]  # fmt: skip
    assert len(shown) >= 7
    for one in shown:
        assert (folder() / one).is_file()
        assert (folder() / ".." / "screenshots" / Path(one).name).is_file()  # as it is packed


def test_words_are_found_heading_first() -> None:
    found = search("pot life")
    assert {one.chapter for one in found} >= {"true", "bench", "glossary"}
    assert search("decalage")
    first = search("order")[0]
    assert "order" in first.heading.lower()
    assert search("") == ()
    assert search("  ") == ()
    assert search("quintuplane") == ()
    assert all("|" not in one.around for one in search("stabilizer"))


def test_a_chapter_that_is_none_is_the_contents() -> None:
    assert chapter("nowhere").id == CONTENTS
    assert chapter("true").title == "True"


# -- the trade's words ------------------------------------------------------------------------------


def _texts(path: Path) -> list[str]:
    """What a module says: its strings of more than a word, docstrings left out."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    return [
        node.value
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docs
    ]


SAID = [text for path in sorted((SOURCE / "messages").glob("*.py")) for text in _texts(path)]
WRITTEN = [one.text for one in chapters() if one.id != "glossary"]


@pytest.mark.parametrize("word", NOT_SAID)
def test_one_thing_has_one_name(word: str) -> None:
    whole = re.compile(rf"\b{re.escape(word)}s?\b", re.IGNORECASE)
    said = [text for text in SAID if " " in text]  # a word alone is a key
    assert [text for text in (*said, *WRITTEN) if whole.search(text)] == []


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row[0])
def test_every_word_of_the_glossary_is_one_that_is_said(row: list[str]) -> None:
    for word in row[0].split(", "):
        stem = re.compile(rf"\b{re.escape(word)}", re.IGNORECASE)
        assert any(stem.search(text) for text in (*SAID, *WRITTEN)), word


def test_the_glossary_is_in_order() -> None:
    words = [row[0] for row in ROWS]
    assert len(words) > 35
    assert words == sorted(words)


# -- figures ---------------------------------------------------------------------------------------


def test_two_sigma_decide_as_it_stands_there() -> None:
    assert "two sigma on either side" in chapter("why").text
    assert verdict_of(0.6, 0.2, 1.0) == "true"
    assert verdict_of(0.61, 0.2, 1.0) == "unsure"
    assert verdict_of(1.41, 0.2, 1.0) == "out"


def test_marks_and_readings_are_named_by_the_same_words() -> None:
    """A mark's id may hold a word that nothing else is called by."""
    for make in (yarrow, demo_build):
        survey = make().surveyed
        told = [mark_name(survey, mark.id) for mark in survey.marks]
        told += [reading_name(survey, one) for one in candidates_of(survey)]
        for word in NOT_SAID:
            assert [text for text in told if word in text.lower().split()] == []
