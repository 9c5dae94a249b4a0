"""The log in sentences, made when it is shown: entries hold ids and figures, and a builder's own words."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length, shortest
from hardkeel.logbook.entries import Entry, EntryKind, Figure, VerdictChange
from hardkeel.messages.deeds import seat_deed, step_deed
from hardkeel.messages.gluing import brought_words
from hardkeel.messages.names import body_name, name_of_check, sentence_case
from hardkeel.messages.steps import title_of
from hardkeel.messages.verdicts import VERDICT_WORDS, way_words
from hardkeel.survey.model import Survey

_MOST: Final = 8  # figures that a line shows: the first and the last of a long sitting
KIND_WORDS: Final[dict[EntryKind, str]] = {
    "note": "note",
    "readings": "readings",
    "verdict": "verdict",
    "correction": "correction",
    "change": "change",
}
KINDS_WORDS: Final[dict[EntryKind, str]] = {
    "note": "notes",
    "readings": "readings",
    "verdict": "verdicts",
    "correction": "corrections",
    "change": "changes",
}


def entry_text(survey: Survey, entry: Entry, unit: LengthUnit) -> str:
    """What an entry says; files from before hold the app's own sentences, which then stand."""
    if entry.text:
        return entry.text
    if entry.verdict is not None:
        return _verdict_text(survey, entry.verdict, unit)
    if entry.seat is not None:
        seat = entry.seat
        if entry.phase == "wet" and not seat.steps:  # in files from before it was sanded even so
            return brought_words(survey, seat.body)
        steps = (seat_deed(survey, seat.body, step, unit) for step in seat.steps)
        return f"{sentence_case(body_name(survey, seat.body))} seat: {' '.join(steps)}"
    if entry.step is not None:
        return step_deed(title_of(entry.step), entry.step.minutes)
    if entry.photos:
        return "A photo" if len(entry.photos) == 1 else f"{len(entry.photos)} photos"
    if entry.kind == "readings":
        return _readings_text(entry, unit)
    return ""


def _readings_text(entry: Entry, unit: LengthUnit) -> str:
    """``Took 3 readings: r12 955.0 mm, r13 0.80°, r14 954.0 mm``."""
    count = entry.count or 1
    text = f"Took {count} readings" if count > 1 else "Took a reading"
    told = [f"{one.id} {_figure(one, unit)}" for one in entry.figures]
    if len(told) > _MOST:
        told = [*told[: _MOST // 2], "…", *told[-_MOST // 2 :]]
    return f"{text}: {', '.join(told)}" if told else text


def _figure(one: Figure, unit: LengthUnit) -> str:
    return format_angle(one.value) if one.unit == "deg" else format_length(one.value, unit)


def _verdict_text(survey: Survey, change: VerdictChange, unit: LengthUnit) -> str:
    """``Stabilizer level: not known yet, now out (starboard tip 2.3 mm high)``."""
    name = name_of_check(survey, change.check, change.kind, change.body)
    text = f"{name}: {VERDICT_WORDS[change.was]}, now {VERDICT_WORDS[change.now]}"
    if change.now == "out":
        text += f" ({way_words(change.kind, change.error, change.reach, unit)})"
    return text


# page
WRITE_WHAT_YOU_DID: Final = "Write what you did, changed or found, and press Enter"
HOURS_AT_THE_BENCH: Final = "Hours at the bench"
LOG_ENTRIES: Final = "Log entries"
WRITE_HOURS_LIKE: Final = "Write hours like 1.5 or 1h30, and what for if you like."
LOG: Final = "Log"
PHOTO: Final = "photo…"
PHOTO_TIP: Final = "Put a photo beside the note: the way it was held, made smaller, and nothing of where it was taken"
PHOTOS: Final = "Photos"
WHICH_PHOTO: Final = "Which photo?"
PHOTO_FILES: Final = "Photos (*.jpg *.jpeg *.png *.webp)"
ADD_TIME_TO_TODAY: Final = "Add time to today:"
NOTHING_WRITTEN_YET: Final = "Nothing written yet. Readings and verdicts will appear by themselves."


def added_today(hours: float) -> str:
    """``Added … h to today.``."""
    return f"Added {shortest(hours)} h to today."


DAY_HOURS: Final = "A day at the bench has more than 0 and at most 24 hours."
HOURS_LIKE: Final = "1.5 tonight, or 1h30 covering"


# -- steps as undo names them -----------------------------------------------------------------------

WRITE_NOTE: Final = "write a note"
ADD_PHOTO: Final = "add a photo"


def add_hours_edit(what: str) -> str:
    """``add … h``."""
    return f"add {what} h"
