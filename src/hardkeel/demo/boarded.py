"""Readings of a frame on its board, made up: a twist that the builder has not found yet, and one slip."""

from datetime import datetime, timedelta, timezone
from typing import Final

import numpy as np

from hardkeel.edits.squaring import take_square
from hardkeel.fuselage.model import Squaring
from hardkeel.fuselage.squaring import square
from hardkeel.fuselage.squaring_next import readings_at_hand
from hardkeel.project.model import Build
from hardkeel.survey.readings import ANGULAR, Height, Incidence, Offset, Reading, Tilt, sigma_of

_SEED: Final = 12
_TWIST: Final = 2.6  # degrees from the first former to the last
_CAREFUL: Final = 0.1  # mm and degrees that a careful hand leaves
_SLIP_MM: Final = 5.0  # a rule read off by a mark
_SLIP_AT: Final = "F3.ts"
_START: Final = datetime(2026, 10, 17, 18, 40, tzinfo=timezone(timedelta(hours=1)))


def squared_in_part(build: Build) -> Build:
    """The build with heights, levels, leans and centre marks taken, dry; diagonals are still to come."""
    fuselage = build.fuselage
    if fuselage is None:
        return build
    # each of its readings errs by itself
    build = build.but(fuselage=fuselage.but(squaring=Squaring()))
    rng = np.random.default_rng(_SEED)
    bare = square(fuselage)
    unknowns = np.zeros(bare.net.columns.size)
    share = np.linspace(-0.5, 0.5, len(bare.formers))
    for name, at in zip(bare.formers, share, strict=True):
        start = bare.net.columns.start[name]
        unknowns[start : start + 7] = rng.normal(0, _CAREFUL, 7)
        unknowns[start + 3] += _TWIST * at
    taken = [one for one in readings_at_hand(bare.formers) if _is_taken(one)]
    values, _ = bare.net.observer(taken).predict(unknowns, bare.net.placer.place(unknowns))
    for number, (one, value) in enumerate(zip(taken, values, strict=True)):
        read = float(value + rng.normal() * sigma_of(one))
        if isinstance(one, Height) and one.mark == _SLIP_AT:
            read += _SLIP_MM
        digits = 2 if one.kind in ANGULAR else 1
        at = _START + timedelta(minutes=number)
        build = take_square(build, one.but(value=round(read, digits)), "dry", at)
    return build


def _is_taken(reading: Reading) -> bool:
    return isinstance(reading, Height | Tilt | Incidence | Offset)
