"""While the glue is workable: which few dry readings to repeat, and in what order round the model."""

import math
from collections.abc import Sequence
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.gluing import Dry
from hardkeel.survey.model import FUSELAGE, Body, Survey
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Incidence, Reading, marks_of, place_of, sigma_of
from hardkeel.survey.reliability import Watch

TO_REPEAT: Final = 4
TO_CONFIRM: Final = 2
_SIX: Final = ("dx", "dy", "dz", "roll", "pitch", "yaw")


def worth_repeating(
    net: Network, dry: Dry, taken: Sequence[Reading], body: str
) -> tuple[Reading, ...]:
    """Four readings that tell at once whether the glued body moved, and two that confirm them.

    They are dry readings of it, taken again: the four that leave least doubt of its six movements in
    millimetres at its tips and over its chord, then the two that watch best over these.  Each group is in the
    order of a walk round the model.  Fewer where fewer were taken.

    Parameters
    ----------
    taken : sequence of Reading
        The dry readings.
    """
    held = net.survey.body(body)
    mine = _of_body(net.survey, taken, body)
    if held is None or not mine:
        return ()
    predicted, rows = net.observer(mine).predict(dry.unknowns, net.placer.place(dry.unknowns))
    white = rows / np.array([sigma_of(reading) for reading in mine])[:, None]
    none = np.zeros((0, net.columns.size))
    watch = Watch(none, dry.covariance + np.diag(dry.may_move), _in_mm(net, held))
    chosen: list[int] = []
    for count in range(min(TO_REPEAT + TO_CONFIRM, len(mine))):
        more = watch.one_more(white)
        left = more.sharpened() if count < TO_REPEAT else more.worth()
        left[chosen] = np.inf
        best = int(np.argmin(left))
        chosen.append(best)
        watch = watch.having(white[best])
    order = {at: _bearing(net.survey, mine[at], held) for at in chosen}
    walk = [*sorted(chosen[:TO_REPEAT], key=order.get), *sorted(chosen[TO_REPEAT:], key=order.get)]  # type: ignore[arg-type]
    return tuple(
        mine[at].but(value=float(predicted[at]), phase=None, taken=None, ignored=False)
        for at in walk
    )


def still_to_take(repeats: Sequence[Reading], taken: Sequence[Reading]) -> tuple[Reading, ...]:
    """Those of the short list that were not taken in this phase yet."""
    done = {place_of(reading) for reading in taken}
    return tuple(reading for reading in repeats if place_of(reading) not in done)


def _of_body(survey: Survey, taken: Sequence[Reading], body: str) -> list[Reading]:
    """Each place on the body once."""
    owners = {mark.id: mark.body for mark in survey.marks}
    found: dict[object, Reading] = {}
    for reading in taken:
        on = (
            {reading.body}
            if isinstance(reading, Incidence)
            else {owners[mark] for mark in marks_of(reading)}
        )
        if body in on and on <= {body, FUSELAGE}:
            found[place_of(reading)] = reading
    return list(found.values())


def _in_mm(net: Network, body: Body) -> Array:
    """The body's six movements as slopes in mm: turns at the tip, or over the chord; shape (6, n)."""
    tip, chord = (body.span or 1.0) / 2, body.chord or 1.0
    arms = {"roll": tip, "yaw": tip, "pitch": chord}
    slopes = np.zeros((len(_SIX), net.columns.size))
    for i, name in enumerate(_SIX):
        column = net.columns.column(body.id, name)
        if column is not None:
            slopes[i, column] = math.radians(arms[name]) if name in arms else 1.0
    return slopes


def _bearing(survey: Survey, reading: Reading, body: Body) -> float:
    """Where one stands to take it, as an angle round the body from its port nose over the tail; degrees."""
    if isinstance(reading, Incidence):
        side = {"port": -1.0, "starboard": 1.0}.get(reading.side, 0.0)
        at = np.array([0.0, side * (body.span or 1.0) / 2])
    else:
        marks = [survey.mark(mark) for mark in marks_of(reading)]
        places = [mark.at for mark in marks if mark is not None and mark.body == body.id]
        at = np.mean(np.array(places), axis=0)[:2] - np.array(body.origin[:2])
    return math.degrees(math.atan2(at[0], -at[1])) % 360.0 if np.any(at) else 90.0
