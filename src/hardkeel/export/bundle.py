"""The whole record in a folder."""

from collections.abc import Callable, Mapping
from pathlib import Path
from types import MappingProxyType

from hardkeel.airframe.parts import parts_of
from hardkeel.base.units import LengthUnit
from hardkeel.export.building_plan import plan_files
from hardkeel.export.diary import DayByDay, diary_pdf
from hardkeel.export.framing import named_templates
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.parts import parts_csv
from hardkeel.export.record import record_pdf
from hardkeel.export.renewing import Destination, file_stem, renew_all
from hardkeel.export.rigging_card import rigging_card_pdf
from hardkeel.export.rigging_form import rigging_form_pdf
from hardkeel.export.sheets import readings_csv
from hardkeel.export.tail import tail_files
from hardkeel.export.templates import former_files
from hardkeel.messages import record as say
from hardkeel.project.model import Build
from hardkeel.storage.format import text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.readings import Phase


class _Told:
    """Says what is being made; again at every step of it, so that it can be left off within, too."""

    def __init__(self, doing: Callable[[str], object]) -> None:
        self._doing, self._what = doing, ""

    def __call__(self, what: str) -> None:
        """Begin with something."""
        self._what = what
        self._doing(what)

    def again(self, _done: int, _total: int) -> None:
        """A step of it."""
        self._doing(self._what)


def export_record(
    build: Build,
    to: Destination,
    phase: Phase | None,
    unit: LengthUnit,
    attached: Mapping[str, bytes] = MappingProxyType({}),
    *,
    doing: Callable[[str], object] = lambda _what: None,
) -> list[Path]:
    """Write record, readings, parts, formers and the build, each under the build's own name; the paths.

    Where the fuselage is framed, or the tail says how it is built, all templates go along.

    Parameters
    ----------
    attached : mapping of str to bytes
        Scans that the build names; they go along, so that the written build finds them.
    doing : callable
        Told what is being made, in words; where it raises, nothing was written.

    Raises
    ------
    NotOurs
        When a file of another hand, or of another build, stands where ours would go.
    CannotSave
        When the folder can't be made or written.
    BadInput
        When the survey can't be adjusted.
    """
    begin = _Told(doing)
    judgement = judge_survey(build.surveyed, phase)
    stem = file_stem(build.name)
    begin(say.THE_RECORD)
    contents = {
        f"{stem}-record.pdf": record_pdf(build, judgement, unit, attached, to.paper),
        f"{stem}-readings.csv": readings_csv(build, judgement).encode("utf-8"),
        f"{stem}-build.json": text_of(build, profiles=False).encode("utf-8"),
    }
    begin(say.THE_DIARY)
    if build.log or build.sessions:
        read = DayByDay(build, unit)
        contents[f"{stem}-diary.pdf"] = diary_pdf(build, read, attached, to.paper)
        folded = diary_pdf(build, read, attached, to.paper, booklet=True)
        contents[f"{stem}-diary-booklet.pdf"] = folded
    begin(say.THE_LISTS)
    if build.surveyed.bodies:
        sheet = rigging_form_pdf(build, unit, PAPERS[to.paper])
        contents[f"{stem}-rigging-sheet.pdf"] = sheet
        contents[f"{stem}-rigging-card.pdf"] = rigging_card_pdf(build, judgement, to.paper)
    if parts_of(build):
        contents[f"{stem}-parts.csv"] = parts_csv(build).encode("utf-8")
    contents |= {
        f"{stem}-{name}": data for name, data in former_files(build, unit, to.paper).items()
    }
    contents |= attached
    contents |= {name: words.encode("utf-8") for name, words in build.profiles.items()}
    lists = {stem: contents}
    begin(say.THE_TEMPLATES)
    if build.fuselage is not None and build.fuselage.framing is not None:
        lists[f"{stem}-templates"] = named_templates(build, to.paper, unit, begin.again)
    begin(say.THE_TAIL)
    if any(surface.kind is not None for surface in build.tail):
        tail = tail_files(build, to.paper, unit, begin.again)
        lists[f"{stem}-tail"] = {f"{stem}-{name}": data for name, data in tail.items()}
    begin(say.THE_PLAN)
    lists[f"{stem}-plan"] = {
        f"{stem}-{name}": data for name, data in plan_files(build, unit, to.paper).items()
    }
    begin(say.ALL_OF_IT)  # from here on all of it is written, or none
    renew_all(to, lists)
    return [to.folder / name for written in lists.values() for name in written]
