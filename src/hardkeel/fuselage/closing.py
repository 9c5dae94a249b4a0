"""Pulling in: how far nose and tail come in from the straight part, what holds them, what must be soaked."""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.bending import Limits
from hardkeel.fuselage.bending_forces import SPRINGS_BACK, BendLine, bend_lines_of, pulls_of
from hardkeel.fuselage.flexing import Moduli
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Former, Fuselage

End = Literal["nose", "tail"]
Sprung = Literal["less", "expected", "more"]
_STRAIGHT: Final = 0.9  # of the greatest half-width: there the sides lie as good as parallel
_SOAKED: Final = SPRINGS_BACK["soaked"]


@dataclass(frozen=True, slots=True)
class Closing:
    """One end of the fuselage as it is pulled in.

    Attributes
    ----------
    stop : str
        The outermost stop, to which the sides are pulled.
    inward : float
        How far each side comes in there from the widest former, mm.
    width : float
        Between the sides' inner faces there once they are home, mm.
    force : float or None
        What holds one sheet side in there, N; ``None`` for sides of sticks or an unknown wood.
    soaked, breaking : tuple of str
        Members that go round only soaked or steamed; members that do not go round at all.
    """

    end: End
    stop: str
    inward: float
    width: float
    force: float | None
    soaked: tuple[str, ...]
    breaking: tuple[str, ...]

    @property
    def springs_to(self) -> tuple[float, float]:
        """Width between the sides, mm, from and to, that is expected when the clamps come off."""
        low, high = (self.width + 2 * share * self.inward for share in _SOAKED)
        return low, high

    def sprung(self, width: float) -> Sprung:
        """A width read with the clamps off against what was to be expected."""
        low, high = self.springs_to
        return "less" if width < low else "more" if width > high else "expected"


def straight_part(fuselage: Fuselage) -> tuple[Former, ...]:
    """Formers from the first to the last one that is as good as the widest: they are glued first.

    Raises
    ------
    ValueError
        When there are no formers.
    """
    formers = [stop for _, stop in fuselage.stations if isinstance(stop, Former)]
    widest = max(former.half_width for former in formers)
    wide = [i for i, former in enumerate(formers) if former.half_width >= _STRAIGHT * widest]
    return tuple(formers[wide[0] : wide[-1] + 1])


def closings_of(fuselage: Fuselage, limits: Limits, stiffness: Moduli) -> tuple[Closing, ...]:
    """Nose and tail, as far as they are narrower than the straight part.

    Parameters
    ----------
    stiffness : callable
        Young's modulus along the grain of a material bent over so many mm, GPa.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    straight = straight_part(fuselage)
    widest = max(former.half_width for former in straight)
    pulls = pulls_of(fuselage, stiffness)
    lines = bend_lines_of(fuselage, limits)
    found: list[Closing] = []
    ends: tuple[tuple[End, int, float], ...] = (
        ("nose", 0, straight[0].station),
        ("tail", -1, straight[-1].station),
    )
    for end, at, inner in ends:
        name, stop = fuselage.stations[at]
        if stop.station == inner or stop.half_width >= widest:
            continue
        within = min(stop.station, inner), max(stop.station, inner)
        soaked = tuple(one.member for one in lines if _beyond(one, within) == "soaked")
        breaking = tuple(one.member for one in lines if _beyond(one, within) == "too tight")
        force = pulls[at].force if pulls else None
        width = 2 * max(stop.half_width - side_at(fuselage, stop.station), 0.0)
        found.append(Closing(end, name, widest - stop.half_width, width, force, soaked, breaking))
    return tuple(found)


def _beyond(line: BendLine, within: tuple[float, float]) -> str:
    """What a member's wood says to its strain in a stretch; empty where it goes dry or nothing is known."""
    if line.limits is None:
        return ""
    low, high = within
    strain = line.strain[(line.stations >= low) & (line.stations <= high)]
    strain = strain[np.isfinite(strain)]
    dry, soaked = line.limits
    most = float(strain.max()) if len(strain) else 0.0
    return "" if most <= dry else "soaked" if most <= soaked else "too tight"
