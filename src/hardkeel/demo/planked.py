"""An oval fuselage, planked on a keel: a round ring at the nose, egg-shaped where the pilot sits, a fine oval tail; made up."""

from functools import cache
from typing import Final

from hardkeel.airframe.starters import start_from
from hardkeel.demo.laid import with_order
from hardkeel.edits import framing as edits
from hardkeel.edits.fuselage import fuselage_of, take_longerons_out, with_fuselage
from hardkeel.fuselage.model import CutOut, Former, SectionShape, TailPost
from hardkeel.project.model import Build

PLANKED: Final = "Sorrel 1400"
_SPAN_MM, _LENGTH_MM = 1400.0, 1150.0
# of the length; half-width, bottom, top and widest line in mm; fullness above and below
_FORMERS: Final = (
    (0.000, 44.0, -44.0, 44.0, 0.0, 2.0, 2.0),
    (0.055, 52.0, -56.0, 50.3, -2.0, 2.1, 2.1),
    (0.130, 60.0, -68.0, 57.0, -6.0, 2.2, 2.2),
    (0.215, 63.0, -73.0, 61.0, -8.0, 2.3, 2.3),
    (0.300, 63.0, -74.0, 66.0, -8.0, 2.4, 2.3),
    (0.385, 61.0, -72.0, 74.0, -7.0, 2.2, 2.3),
    (0.470, 56.0, -66.0, 78.0, -4.0, 2.1, 2.2),
    (0.560, 49.0, -56.0, 74.0, 0.0, 2.0, 2.1),
    (0.660, 40.0, -42.0, 64.0, 5.0, 2.0, 2.0),
    (0.765, 30.0, -25.0, 54.0, 10.0, 2.0, 2.0),
    (0.865, 20.0, -9.0, 46.0, 15.0, 2.0, 2.0),
    (0.945, 11.0, 3.0, 41.0, 20.0, 2.0, 2.0),
)
_RIM_MM: Final = 12.0  # of a former's ring about its opening
_OVER_KEEL_MM: Final = 8.0
_OPENED: Final = range(2, 9)
_FIREWALL_MM, _FORMER_MM = 5.0, 3.0


@cache
@with_order
def sorrel() -> Build:
    """The build, framed and planked, nothing cut yet."""
    build = start_from("board", _SPAN_MM, _LENGTH_MM, PLANKED)
    fuselage = fuselage_of(build)
    formers = tuple(_former(number, *row) for number, row in enumerate(_FORMERS, start=1))
    post = TailPost(station=_LENGTH_MM, half_width=3.0, bottom=12.0, top=38.0)
    build = with_fuselage(
        take_longerons_out(build),
        fuselage.but(
            formers=formers,
            tail_post=post,
            longerons=(),
            side_thickness=0.0,
            top_skin=0.0,
            bottom_skin=0.0,
            board=fuselage.board.but(z=-110.0) if fuselage.board is not None else None,
            sections=tuple(
                one.but(from_="F1", to="tail_post", method="board") for one in fuselage.sections[:1]
            ),
        ),
    )
    build = edits.add_member(build, "keel", "F1", "F12")
    build = edits.set_member(build, "keel", height=9.0, thickness=3.0)
    build = edits.add_member(build, "nose-block", "F1", "F1")
    build = edits.set_member(
        build, "nose block", station=-34.0, width=58.0, height=58.0, thickness=12.0, inset=10.0
    )
    build = edits.add_member(build, "canopy", "F5", "F7")
    build = edits.set_member(build, "canopy", station=430.0, height=24.0, width=58.0)
    build = edits.set_planking(build, width=8.0, thickness=2.0, keel_width=6.0)
    return edits.set_framing(build, sheet=(1000.0, 150.0))


def _former(  # noqa: PLR0913, PLR0917  a row of the table
    number: int, share: float, half: float, low: float, high: float, widest: float, above: float, below: float
) -> Former:  # fmt: skip
    return Former(
        id=f"F{number}",
        station=round(share * _LENGTH_MM, 1),
        half_width=half,
        bottom=low,
        top=high,
        thickness=_FIREWALL_MM if number == 1 else _FORMER_MM,
        material="birch-ply" if number == 1 else "light-ply",
        section=SectionShape(widest=widest, top=above, bottom=below),
        cutouts=(_opening(half, low, high),) if number in _OPENED else (),
    )


def _opening(half: float, low: float, high: float) -> CutOut:
    """What is left out of a former's middle, more wood over the keel than elsewhere."""
    return CutOut(
        id="hole",
        kind="tank",  # round
        width=2 * (half - _RIM_MM),
        height=high - low - 2 * _RIM_MM - _OVER_KEEL_MM,
        z=(low + high + _OVER_KEEL_MM) / 2,
    )
