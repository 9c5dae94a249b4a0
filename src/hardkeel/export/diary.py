"""The build diary as PDF: day by day what was done, how long it took, what was read before and after the glue."""

import io
from collections import defaultdict
from collections.abc import Mapping
from types import MappingProxyType
from typing import Final

from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal
from hardkeel.export.booklet import MARGIN, BookletCanvas, half_of
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import (
    Canvas,
    Flowable,
    Image,
    KeepTogether,
    Paragraph,
    Spacer,
    Styles,
    dropped,
    mm,
    register_fonts,
    ruled_table,
    safe,
    sheet_pdf,
)
from hardkeel.glue.coupons import verdict_on
from hardkeel.logbook.entries import total_hours, with_timed
from hardkeel.messages import diary as say
from hardkeel.messages.glue import (
    batch_title,
    coupon_words,
    mixed_words,
    named_joints,
    verdict_words,
)
from hardkeel.messages.log import entry_text
from hardkeel.messages.names import PHASE_WORDS, check_name
from hardkeel.messages.steps import step_title
from hardkeel.messages.verdicts import format_value, verdict_word
from hardkeel.project.model import Build
from hardkeel.schedule.pace import to_go
from hardkeel.survey.checking import Check
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.readings import PHASES

_MARGIN_MM: Final = 18
_MOST_CHECKS: Final = 12
_PHOTO_MM: Final = 88
_DAY: Final = 10  # letters of a date


class DayByDay:
    """What the readings of a build told: by phase, and day by day; worked out once for all its diaries."""

    def __init__(self, build: Build, unit: LengthUnit) -> None:
        self.unit = unit
        survey = build.surveyed
        read = [phase for phase in PHASES if any(r.phase == phase for r in survey.readings)]
        self.phases = {phase: judge_survey(survey, phase) for phase in read}
        days = {one.taken[:_DAY] for one in survey.readings if one.taken}
        self.days = {day: _found_on(build, day, unit) for day in days}


def diary_pdf(
    build: Build,
    read: DayByDay,
    attached: Mapping[str, bytes] = MappingProxyType({}),
    paper: str = "A4",
    *,
    booklet: bool = False,
) -> bytes:
    """The diary as the bytes of a PDF with real text.

    Parameters
    ----------
    read : DayByDay
        What its readings told; its unit is the diary's.
    attached : mapping of str to bytes
        Photos that the log names; one that is not here is left out.
    booklet : bool
        Pages of half the paper, two to a side, so that the stack folds to a booklet.
    """
    unit = read.unit
    register_fonts()
    styles = Styles()
    size = half_of(paper) if booklet else PAPERS[paper]
    margin = MARGIN if booklet else _MARGIN_MM * mm
    width = size[0] * mm - 2 * margin - 4 * mm
    story: list[Flowable] = [
        Paragraph(safe(build.name or say.UNNAMED), styles.title),
        Paragraph(
            safe(
                say.total_words(
                    total_hours(with_timed(build.sessions, build.log)), to_go(build.steps)
                )
            ),
            styles.text,
        ),
        Spacer(1, 4 * mm),
        *_days(build, read, styles, attached),
        *_phases(build, read, styles, width),
        *_weights(build, styles, width),
        *_coupons(build, styles),
        *_dropped(build, unit, styles),
    ]
    title = f"{build.name or say.UNNAMED}: {say.DIARY}"
    canvas = BookletCanvas if booklet else Canvas
    return sheet_pdf(story, size, margin / mm, title, canvas)


def _days(
    build: Build, read: DayByDay, styles: Styles, attached: Mapping[str, bytes]
) -> list[Flowable]:
    told: dict[str, list[tuple[str, str, tuple[str, ...]]]] = defaultdict(list)
    for entry in build.log:
        text = entry_text(build.surveyed, entry, read.unit)
        told[entry.at[:10]].append((entry.at[11:16], text, entry.photos))
    for at, text in _of_glue(build):
        told[at[:10]].append((at[11:16], text, ()))
    hours: dict[str, float] = defaultdict(float)
    for session in with_timed(build.sessions, build.log):
        hours[session.day] += session.hours
    found: list[Flowable] = []
    pasted: set[str] = set()  # a photo that stands under two notes is pasted in once
    for day in sorted({*told, *hours}):
        lines: list[Flowable] = []
        for clock, text, photos in sorted(told[day], key=lambda one: one[0]):
            lines.append(Paragraph(safe(f"{clock}  {text}"), styles.text))
            fresh = [name for name in photos if name in attached and name not in pasted]
            lines += [_photo(attached[name]) for name in fresh]
            pasted.update(fresh)
        lines += [Paragraph(safe(text), styles.text) for text in read.days.get(day, ())]
        notes = [one.note for one in build.sessions if one.day == day and one.note]
        lines += [Paragraph(safe(note), styles.text) for note in notes]
        heading = Paragraph(safe(say.day_title(day, hours.get(day, 0.0))), styles.heading)
        found += [KeepTogether([heading, *lines[:2]]), *lines[2:]]
    return found


def _found_on(build: Build, day: str, unit: LengthUnit) -> list[str]:
    """What the readings of a day told, beside what was known before it."""
    survey = build.surveyed
    taken = [one for one in survey.readings if one.taken]
    today = [one for one in taken if (one.taken or "")[:_DAY] == day]
    if not today:
        return []
    phase = today[-1].phase
    earlier = tuple(one for one in taken if (one.taken or "")[:_DAY] < day)
    was_phase = earlier[-1].phase if earlier else phase
    try:
        before = judge_survey(survey.but(readings=earlier), was_phase)
        now = judge_survey(survey.but(readings=(*earlier, *today)), phase)
    except BadInput:  # so few readings that they do not hang together say nothing
        return []
    told: dict[str, list[str]] = {}
    for check in now.checks:
        name = check_name(survey, check)
        figure = f"{name[:1].lower()}{name[1:]}"
        if check.verdict != "unsure" or _is_known(check):
            figure += f" {format_value(check, unit)}"
            was = before.check(check.id)
            if was is not None and _is_known(was):
                told_before = format_value(was, unit)
                if told_before != format_value(check, unit):
                    other = PHASE_WORDS[was_phase] if was_phase and was_phase != phase else ""
                    figure += f" ({say.was_words(told_before, other)})"
        told.setdefault(verdict_word(check), []).append(figure)
    return say.found_lines(told)


def _is_known(check: Check) -> bool:
    """Whether a figure says more than what is allowed."""
    return check.doubt <= check.tolerance


def _dropped(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """What of the builder's own words could not be printed."""
    words = [
        build.name or "",
        *(entry_text(build.surveyed, entry, unit) for entry in build.log),
        *(session.note or "" for session in build.sessions),
        *(part.name for part in parts_of(build)),
    ]
    missing = dropped("".join(words))
    if not missing:
        return []
    return [Paragraph(safe(say.dropped_words(missing)), styles.text)]


def _of_glue(build: Build) -> list[tuple[str, str]]:
    """When batches were mixed and coupons broken, with what is said of it."""
    found = []
    for batch in build.glue.batches if build.glue is not None else ():
        found.append((batch.mixed, mixed_words(batch)))
        found += [(one.at, coupon_words(batch, one)) for one in batch.coupons]
    return found


def _photo(data: bytes) -> Flowable:
    """As wide as half the page, or as high as a third of it."""
    return Image(
        io.BytesIO(data), _PHOTO_MM * mm, _PHOTO_MM * mm, kind="proportional", hAlign="LEFT"
    )


def _phases(build: Build, read: DayByDay, styles: Styles, width: float) -> list[Flowable]:
    """Each check before the glue, while it was wet and cured, as far as it was read."""
    judged = read.phases
    if not judged:
        return []
    first = next(iter(judged.values()))
    rows = [[say.CHECK, *(PHASE_WORDS[phase] for phase in judged)]]
    for check in first.checks[:_MOST_CHECKS]:
        row = [check_name(build.surveyed, check)]
        for judgement in judged.values():
            now = judgement.check(check.id)
            row.append(
                format_value(now, read.unit)
                if now is not None and _is_known(now)
                else say.NOT_KNOWN
            )
        rows.append(row)
    each = min(32 * mm, 0.2 * width)
    widths = [width - len(judged) * each, *[each] * len(judged)]
    return [
        Paragraph(safe(say.BEFORE_AND_AFTER), styles.heading),
        ruled_table(rows, widths, tuple(range(1, len(judged) + 1))),
    ]


def _weights(build: Build, styles: Styles, width: float) -> list[Flowable]:
    parts = parts_of(build)
    known = weights_of(build, parts)
    rows = [[say.PART, say.ESTIMATED, say.WEIGHED, say.DIFFERENCE]]
    for part in parts:
        weight = known[part.id]
        if weight.weighed is None or weight.estimated is None:
            continue
        rows.append(
            [
                part.name,
                f"{decimal(weight.estimated, 1)} g",
                f"{decimal(weight.weighed, 1)} g",
                f"{decimal(weight.weighed - weight.estimated, 1, signed=True)} g".replace("-", "−"),
            ]
        )
    if len(rows) == 1:
        return []
    each = min(30 * mm, 0.2 * width)
    widths = [width - 3 * each, each, each, each]
    return [Paragraph(safe(say.WEIGHTS), styles.heading), ruled_table(rows, widths, (1, 2, 3))]


def _coupons(build: Build, styles: Styles) -> list[Flowable]:
    shelf = build.glue
    if shelf is None or not shelf.batches:
        return []
    titles = {step.id: step_title(step) for step in build.steps}
    found: list[Flowable] = [Paragraph(safe(say.GLUE), styles.heading)]
    for batch in shelf.batches:
        joints = named_joints([titles.get(one, one) for one in batch.joints])
        bottle = next((one for one in shelf.bottles if one.kind == batch.kind), None)
        told = f"{batch_title(batch)}: {verdict_words(verdict_on(batch, bottle))} {joints}"
        found.append(Paragraph(safe(told), styles.text))
    return found
