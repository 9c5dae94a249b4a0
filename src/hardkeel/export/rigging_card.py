"""The rigging card: one page to hang on the wall, with what was wanted, what is allowed and what was reached."""

import io
from typing import Any, Final

from hardkeel.base.units import both_units, format_angle, format_length
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import (
    Flowable,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Styles,
    mm,
    register_fonts,
    ruled_table,
    safe,
)
from hardkeel.messages import record as say
from hardkeel.messages.advice import headline
from hardkeel.messages.names import PHASE_WORDS, check_name
from hardkeel.messages.verdicts import verdict_word
from hardkeel.project.model import Build
from hardkeel.survey.checking import Check
from hardkeel.survey.judging import Judgement

_SCALES: Final = (1.4, 1.2, 1.0, 0.85, 0.7)  # read at arm's length, on a wall
_MARGIN_MM: Final = 16.0
_SIZE: Final = 8.0
_DAY: Final = 10  # letters of a date


def rigging_card_pdf(build: Build, judgement: Judgement, paper: str = "A4") -> bytes:
    """The card as the bytes of a PDF, every length in both units: as large as it goes on one page."""
    *larger, least = _SCALES
    for scale in larger:
        data, pages = _card(build, judgement, paper, scale)
        if pages == 1:
            return data
    return _card(build, judgement, paper, least)[0]


def _card(build: Build, judgement: Judgement, paper: str, scale: float) -> tuple[bytes, int]:
    """At one size of type, and on how many pages."""
    register_fonts()
    styles = Styles(scale)
    wide, tall = (size * mm for size in PAPERS[paper])
    taken = [reading.taken for reading in judgement.readings if reading.taken]
    phase = PHASE_WORDS[judgement.phase] if judgement.phase else say.ALL_PHASES
    told = say.card_line(phase, max(taken)[:_DAY] if taken else "", len(judgement.readings))
    story: list[Flowable] = [
        Paragraph(safe(build.name or say.UNNAMED), styles.title),
        Paragraph(safe(told), styles.text),
        Spacer(1, 3 * mm),
        Paragraph(safe(headline(build.surveyed, judgement)), styles.answer),
        Spacer(1, 4 * mm),
    ]
    rows: list[list[Any]] = [list(say.CARD_COLUMNS)]
    rows += [
        [
            Paragraph(safe(check_name(build.surveyed, check)), styles.text),
            Paragraph(_told(check, check.target), styles.text),
            Paragraph(f"± {_told(check, check.tolerance)}", styles.text),
            Paragraph(_reached(check), styles.text),
            Paragraph(safe(verdict_word(check)), styles.text),
        ]
        for check in judgement.checks
    ]
    room = wide - 2 * _MARGIN_MM * mm
    shares = (0.25, 0.15, 0.17, 0.24, 0.19)
    widths = [share * room for share in shares]
    story.append(ruled_table(rows, widths, (), size=_SIZE * scale))
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out,
        pagesize=(wide, tall),
        leftMargin=_MARGIN_MM * mm,
        rightMargin=_MARGIN_MM * mm,
        topMargin=14 * mm,
        bottomMargin=14 * mm,
        title=f"{build.name or say.UNNAMED}: {say.RIGGING_CARD}",
        author="Hard Keel",
        invariant=1,
    )
    document.build(story)
    return out.getvalue(), document.page


def _reached(check: Check) -> str:
    """What it is, and how far it may be otherwise; not where no verdict is told and that says less than the tolerance."""
    if check.verdict == "unsure" and check.doubt > check.tolerance:
        return say.NOT_READ
    if check.unit != "mm":
        return f"{format_angle(check.value)} ± {format_angle(check.doubt)}"
    both = f"{format_length(check.value, 'mm')} ± {format_length(check.doubt, 'mm')}"
    return f"{both}<br/>{_inches(check.value)}"


def _inches(value: float) -> str:
    return both_units(value).partition(" = ")[2]


def _told(check: Check, value: float) -> str:
    """A figure of a check; a length in both units."""
    if check.unit != "mm":
        return format_angle(value)
    return f"{format_length(value, 'mm')}<br/>{_inches(value)}"
