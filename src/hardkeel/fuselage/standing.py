"""Where a former's faces stand."""

from typing import Final

from hardkeel.fuselage.model import Former, Fuselage

USUAL_FORMER_MM: Final = 3.0  # the usual former of a sport model, where nothing is said


def beyond_the_board(fuselage: Fuselage) -> tuple[str, ...]:
    """Formers that stand behind the board's end, where its front end lies under the first; none on a long enough one."""
    board = fuselage.board
    if board is None or board.length is None or not fuselage.formers:
        return ()
    first = min(former.station for former in fuselage.formers)
    return tuple(one.id for one in fuselage.formers if one.station > first + board.length)


def faces_of(fuselage: Fuselage, former: Former) -> tuple[float, float]:
    """Stations of a former's front and rear face, mm.

    It stands centred on its station like an upright; the first's front face and the last's rear face
    lie on theirs.
    """
    thick = former.thickness or USUAL_FORMER_MM
    names = [name for name, _ in fuselage.stations]
    if names and former.id == names[0]:
        return former.station, former.station + thick
    if names and former.id == names[-1]:
        return former.station - thick, former.station
    return former.station - thick / 2, former.station + thick / 2
