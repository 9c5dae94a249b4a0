"""Where a former's faces stand."""

from typing import Final

from hardkeel.fuselage.model import Former, Fuselage

USUAL_FORMER_MM: Final = 3.0  # the usual former of a sport model, where nothing is said


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
