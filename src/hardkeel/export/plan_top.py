"""The fuselage from above, at full size: the box with its cross-pieces, or the crutch; and what stands on the board."""

from typing import Final

import numpy as np

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.export.plan_drawing import SMALL_MM, PlanDrawing
from hardkeel.export.plan_stations import draw_stations
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.flatwork import flatwork_of
from hardkeel.fuselage.inside import skins_along
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.methods.method import side_at
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.fuselage.standing import faces_of
from hardkeel.messages import building_plan as say

_EVERY_MM: Final = 4.0
_ASIDE_MM: Final = 2.4


def top_plan(fuselage: Fuselage, unit: LengthUnit) -> PlanDrawing | None:
    """Both sides from above with the formers between them, or the crutch in their place; ``None`` without a side.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    if not fuselage.sections:
        return None
    drawing = PlanDrawing("top")
    crutches = [piece for piece in flatwork_of(fuselage) if piece.kind == "crutch"]
    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    x = np.unique(np.concatenate([np.arange(first, last, _EVERY_MM), loft.stations]))
    outside = np.maximum(loft.half_width.value(x), 0.0)
    inside = np.maximum(outside - skins_along(fuselage, x)[0], 0.0)
    for hand in (1.0, -1.0):
        outer = list(zip(x.tolist(), (hand * outside).tolist(), strict=True))
        inner = list(zip(x.tolist(), (hand * inside).tolist(), strict=True))
        if np.any(outside - inside > 0):
            drawing.line("OUTLINE", [*outer, *reversed(inner)], closed=True)
        else:
            drawing.line("OUTLINE", outer)
    for crutch in crutches:
        for ring in (crutch.outline, *crutch.holes):
            drawing.line("STICKS", [*ring, ring[0]])
    for former in fuselage.formers:
        _stand(drawing, fuselage, former)
    drawing.line("CENTRE", [(first - 10, 0.0), (last + 10, 0.0)])
    stops = [(name, stop.station) for name, stop in fuselage.stations]
    drawing.figures.update({say.station_of(name): at for name, at in stops})
    low = draw_stations(drawing, stops, unit)
    for former in fuselage.formers:
        drawing.figures[say.width_of(former.id)] = 2 * former.half_width
        text = format_length(2 * former.half_width, unit)
        drawing.label(_beside_former(fuselage, former), text, SMALL_MM)
    drawing.front((first, low - 8), say.FROM_ABOVE)
    return drawing


def board_plan(fuselage: Fuselage, unit: LengthUnit) -> PlanDrawing | None:
    """The board with stations, where each former stands, and how high its spacers are; ``None`` without a board.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    if fuselage.board is None or not fuselage.formers:
        return None
    drawing = PlanDrawing("board")
    for former in fuselage.formers:
        _stand(drawing, fuselage, former)
    stops = [(name, stop.station) for name, stop in fuselage.stations]
    drawing.figures.update({say.station_of(name): at for name, at in stops})
    drawing.line("CENTRE", [(stops[0][1] - 10, 0.0), (stops[-1][1] + 10, 0.0)])
    low = draw_stations(drawing, stops, unit)
    heights = {fitted.id: fitted.spacer for fitted in fitted_formers(fuselage)}
    for former in fuselage.formers:
        height = heights.get(former.id)
        if height is not None:
            drawing.figures[say.block_of(former.id)] = height
            text = say.spacer_words(format_length(height, unit))
            drawing.label(_beside_former(fuselage, former), text, SMALL_MM)
    words = say.UPSIDE_DOWN if fuselage.board.inverted else say.ON_THE_BOARD
    drawing.front((stops[0][1], low - 8), words)
    return drawing


def _beside_former(fuselage: Fuselage, former: Former) -> list[tuple[tuple[float, float], float]]:
    """Places for a figure beside a former, upright, off the centre line."""
    front, rear = faces_of(fuselage, former)
    return [
        ((at, v), 90.0)
        for v in (9.0, -9.0, 13.0, -13.0, 18.0, -18.0)
        for at in (max(rear, former.station) + _ASIDE_MM, min(front, former.station) - _ASIDE_MM)
    ]


def _stand(drawing: PlanDrawing, fuselage: Fuselage, former: Former) -> None:
    """A former as it stands: its faces, between the sides."""
    wide = former.half_width - side_at(fuselage, former.station)
    front, rear = faces_of(fuselage, former)
    drawing.line(
        "FORMERS", [(front, -wide), (rear, -wide), (rear, wide), (front, wide)], closed=True
    )
