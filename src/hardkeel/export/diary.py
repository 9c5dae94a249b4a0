"""The build diary as PDF: day by day what was done, how long it took, what was read before and after the glue."""

import io
from collections import defaultdict
from collections.abc import Mapping
from types import MappingProxyType
from typing import Final

from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.base.units import LengthUnit
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import (
    WIDTH,
    Flowable,
    Image,
    KeepTogether,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Styles,
    dropped,
    mm,
    register_fonts,
    ruled_table,
    safe,
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
from hardkeel.messages.verdicts import format_value
from hardkeel.project.model import Build
from hardkeel.schedule.pace import to_go
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.readings import PHASES

_MARGIN_MM: Final = 18
_MOST_CHECKS: Final = 12
_PHOTO_MM: Final = 88


def diary_pdf(
    build: Build,
    unit: LengthUnit,
    attached: Mapping[str, bytes] = MappingProxyType({}),
    paper: str = "A4",
) -> bytes:
    """The diary as the bytes of a PDF with real text.

    Parameters
    ----------
    attached : mapping of str to bytes
        Photos that the log names; one that is not here is left out.
    """
    register_fonts()
    styles = Styles()
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
        *_days(build, unit, styles, attached),
        *_phases(build, unit, styles),
        *_weights(build, styles),
        *_coupons(build, styles),
        *_dropped(build, unit, styles),
    ]
    out = io.BytesIO()
    SimpleDocTemplate(
        out,
        pagesize=tuple(size * mm for size in PAPERS[paper]),
        leftMargin=_MARGIN_MM * mm,
        rightMargin=_MARGIN_MM * mm,
        topMargin=16 * mm,
        bottomMargin=16 * mm,
        title=f"{build.name or say.UNNAMED}: {say.DIARY}",
        author="Hard Keel",
        invariant=1,
    ).build(story)
    return out.getvalue()


def _days(
    build: Build, unit: LengthUnit, styles: Styles, attached: Mapping[str, bytes]
) -> list[Flowable]:
    told: dict[str, list[tuple[str, str, tuple[str, ...]]]] = defaultdict(list)
    for entry in build.log:
        text = entry_text(build.surveyed, entry, unit)
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
        notes = [one.note for one in build.sessions if one.day == day and one.note]
        lines += [Paragraph(safe(note), styles.text) for note in notes]
        heading = Paragraph(safe(say.day_title(day, hours.get(day, 0.0))), styles.heading)
        found += [KeepTogether([heading, *lines[:2]]), *lines[2:]]
    return found


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


def _phases(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """Each check before the glue, while it was wet and cured, as far as it was read."""
    read = [phase for phase in PHASES if any(r.phase == phase for r in build.surveyed.readings)]
    if not read:
        return []
    judged: dict[str, Judgement] = {phase: judge_survey(build.surveyed, phase) for phase in read}
    first = judged[read[0]]
    rows = [[say.CHECK, *(PHASE_WORDS[phase] for phase in read)]]
    for check in first.checks[:_MOST_CHECKS]:
        row = [check_name(build.surveyed, check)]
        for phase in read:
            now = judged[phase].check(check.id)
            known = now is not None and now.doubt <= now.tolerance
            row.append(format_value(now, unit) if now is not None and known else say.NOT_KNOWN)
        rows.append(row)
    widths = [WIDTH - len(read) * 32 * mm, *[32 * mm] * len(read)]
    return [
        Paragraph(safe(say.BEFORE_AND_AFTER), styles.heading),
        ruled_table(rows, widths, tuple(range(1, len(read) + 1))),
    ]


def _weights(build: Build, styles: Styles) -> list[Flowable]:
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
                f"{weight.estimated:.1f} g",
                f"{weight.weighed:.1f} g",
                f"{weight.weighed - weight.estimated:+.1f} g".replace("-", "−"),
            ]
        )
    if len(rows) == 1:
        return []
    widths = [WIDTH - 90 * mm, 30 * mm, 30 * mm, 30 * mm]
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
