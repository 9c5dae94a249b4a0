"""Chapters of the manual with their sections, read from the package; a search through all of them."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from importlib import resources
from pathlib import Path
from typing import Final

CONTENTS: Final = "index"
_LINE: Final = re.compile(r"^- \[(?P<title>[^\]]+)\]\((?P<id>[a-z-]+)\.md\)", re.MULTILINE)
_HEADING: Final = re.compile(r"^(#{1,3}) (.+)$", re.MULTILINE)
_MARKS: Final = re.compile(r"[*`|#]|\]\([^)]*\)|!?\[")
_AROUND: Final = 60  # letters of a find's surroundings on either side


@dataclass(frozen=True, slots=True)
class Section:
    """Text under a heading; the chapter's own for what stands before the first."""

    heading: str
    text: str

    @property
    def plain(self) -> str:
        """The same without marks, on one line."""
        return " ".join(_MARKS.sub(" ", self.text).split())


@dataclass(frozen=True, slots=True)
class Chapter:
    """One file of the manual.

    Attributes
    ----------
    text : str
        Its Markdown.
    """

    id: str
    title: str
    text: str

    @property
    def sections(self) -> tuple[Section, ...]:
        """By heading, from the first to the last."""
        found = list(_HEADING.finditer(self.text))
        ends = [*(one.start() for one in found[1:]), len(self.text)]
        return tuple(
            Section(one.group(2).strip(), self.text[one.end() : end].strip())
            for one, end in zip(found, ends, strict=True)
        )


@dataclass(frozen=True, slots=True)
class Find:
    """Where what was looked for stands."""

    chapter: str
    heading: str
    around: str


def folder() -> Path:
    """Where the chapters lie."""
    return Path(str(resources.files("hardkeel.resources") / "manual"))


@cache
def chapters() -> tuple[Chapter, ...]:
    """All of them in the contents' order, the contents first."""
    contents = _read(CONTENTS)
    listed = [one.group("id") for one in _LINE.finditer(contents.text)]
    return (contents, *(_read(one) for one in listed))


def chapter(chapter_id: str) -> Chapter:
    """The one with this id; the contents where there is none."""
    return next((one for one in chapters() if one.id == chapter_id), chapters()[0])


def _read(chapter_id: str) -> Chapter:
    text = (folder() / f"{chapter_id}.md").read_text(encoding="utf-8")
    first = _HEADING.search(text)
    return Chapter(chapter_id, first.group(2) if first is not None else chapter_id, text)


def search(words: str) -> tuple[Find, ...]:
    """Sections in which all the words stand, those with one in their heading first; nothing for no word."""
    wanted = words.lower().split()
    if not wanted:
        return ()
    found = list(_finds(wanted))
    return tuple(sorted(found, key=lambda one: not any(it in one.heading.lower() for it in wanted)))


def _finds(wanted: list[str]) -> Iterator[Find]:
    for one in chapters()[1:]:
        for section in one.sections:
            said = f"{section.heading} {section.plain}"
            lower = said.lower()
            if all(it in lower for it in wanted):
                plain = section.plain
                at = max(0, plain.lower().find(wanted[0]))
                start = max(0, at - _AROUND)
                around = plain[start : at + _AROUND + len(wanted[0])].strip()
                lead = "… " if start else ""
                yield Find(one.id, section.heading, f"{lead}{around} …")
