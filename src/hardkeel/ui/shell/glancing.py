"""Looks into builds that were lately on the bench, beside the window."""

from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING

from hardkeel.base.errors import HardKeelError
from hardkeel.base.late import late
from hardkeel.base.units import LengthUnit
from hardkeel.messages import practising
from hardkeel.messages import shell as say
from hardkeel.messages.advice import headline, next_step
from hardkeel.picture.truing import keel_strokes
from hardkeel.survey.judging import judge_survey
from hardkeel.ui.shell.recent_card import Glance

if TYPE_CHECKING:
    from hardkeel.storage import package
else:
    package = late("hardkeel.storage.package")


def unread(path: Path, now: datetime) -> Glance:
    """What is known of a file before it is read."""
    return Glance(path.stem, _when(path, now))


def glance_at(path: Path, now: datetime, unit: LengthUnit) -> Glance:
    """What a file's build shows; its name alone where it can't be read."""
    plain = unread(path, now)
    try:
        build = package.load(path).build
    except HardKeelError:
        return Glance(plain.name, plain.when, say.CANNOT_BE_READ)
    name, strokes = build.name or plain.name, keel_strokes(build)
    if build.practice is not None:
        return Glance(name, plain.when, practising.NOT_YOURS, strokes=strokes)
    if build.survey is None:
        return Glance(name, plain.when, strokes=strokes)
    judgement = judge_survey(build.surveyed, build.phase)
    out = frozenset(
        body
        for one in judgement.checks
        if one.verdict == "out"
        for body in judgement.charged[one.id]
    )
    all_true = all(one.verdict == "true" for one in judgement.checks)
    return Glance(
        name,
        plain.when,
        headline(build.surveyed, judgement),
        say.next_act(next_step(build.surveyed, judgement, unit).title),
        "out" if out else "true" if all_true and judgement.checks else "unsure",
        out,
        strokes,
    )  # fmt: skip


def _when(path: Path, now: datetime) -> str:
    try:
        saved = datetime.fromtimestamp(path.stat().st_mtime, now.tzinfo)
    except OSError:
        return ""
    return say.saved_when(saved, now)
