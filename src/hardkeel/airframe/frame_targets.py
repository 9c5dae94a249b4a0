"""Printed targets for a frame on its board: on formers' corners that are seen from above and from starboard, and on the board."""

from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point
from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.fuselage.squaring import BOARD, frame_survey, measured_survey
from hardkeel.survey.model import Survey, Target

SIZE_MM: Final = 12.0  # a square of card at a corner has room for no more; the board takes the same
_BESIDE_MM: Final = 40.0  # from a former's side to a target on the board
_MOST: Final = 100  # codes that there are
_UP: Final[Point] = (0.0, 0.0, 1.0)
_PER_BOARD_PAIR: Final = 2  # formers to each pair of targets on the board


def frame_targets(fuselage: Fuselage) -> tuple[Target, ...]:
    """Targets that a frame has not got yet: the board's first, then each former's upper corners and the lower starboard one.

    Raises
    ------
    BadInput
        When there is no board, or no former to stick one on.
    """
    survey = frame_survey(fuselage)
    if not survey.bodies:
        raise BadInput("", "there is no former yet to stick a target on")
    squaring = fuselage.squaring
    there = {one.mark for one in squaring.targets} if squaring is not None else set()
    codes = {one.code for one in squaring.targets} if squaring is not None else set()
    places = {mark.id: mark.at for mark in survey.marks}
    wanted: list[tuple[str, Point]] = []
    last = len(survey.bodies) - 1
    for number, body in enumerate(survey.bodies):
        if number % _PER_BOARD_PAIR and number != last:
            continue
        x, y, _ = places[f"{body.id}.bs"]
        out = abs(y) + _BESIDE_MM
        wanted += [(f"{BOARD}.{round(x)}.{way * round(out)}", _UP) for way in (-1, 1)]
    for body in survey.bodies:
        side = 1.0 if places[f"{body.id}.bs"][1] > 0 else -1.0
        wanted += [
            (f"{body.id}.tp", _UP),
            (f"{body.id}.ts", _UP),
            (f"{body.id}.bs", (0.0, side, 0.0)),
        ]
    free = iter(code for code in range(_MOST) if code not in codes)
    return tuple(
        Target(code=code, mark=mark, normal=normal)
        for (mark, normal), code in zip(
            (one for one in wanted if one[0] not in there), free, strict=False
        )
    )


def laid_frame(fuselage: Fuselage) -> Survey:
    """The frame with its targets; where it has none yet with those that it would be given.

    Raises
    ------
    BadInput
        As `frame_targets`.
    """
    survey = measured_survey(fuselage)
    if survey.targets:
        return survey
    squaring = (fuselage.squaring or Squaring()).but(targets=frame_targets(fuselage))
    return measured_survey(fuselage.but(squaring=squaring)).but(target_size=SIZE_MM)
