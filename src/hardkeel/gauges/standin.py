"""A stand-in gauge: answers the protocol by measuring the hidden airframe, with its own faults.

Like a real one it has a zero of its own: until it was zeroed on the datum, all it shows is off.
"""

from dataclasses import dataclass
from functools import cache
from typing import TYPE_CHECKING, Final, Protocol

from pydantic import TypeAdapter, ValidationError

from hardkeel.gauges.protocol import TAKES, UNITS, GaugeKind, value_line
from hardkeel.survey.readings import DEFAULT_SIGMA, Reading

if TYPE_CHECKING:
    import numpy as np


@cache
def _read() -> TypeAdapter[Reading]:
    """Made when a stand-in is first held somewhere: pydantic takes its time over it."""
    return TypeAdapter(Reading)


@dataclass(frozen=True, slots=True)
class Make:
    """What a gauge is like.

    Attributes
    ----------
    offset : float
        Spread of its own zero, degrees or mm, before it is zeroed.
    step : float
        Its resolution.
    """

    offset: float
    step: float
    digits: int


MAKES: Final[dict[GaugeKind, Make]] = {
    "incidence": Make(0.8, 0.05, 2),
    "level": Make(0.4, 0.05, 2),
    "tape": Make(1.2, 0.1, 1),
}


class Airframe(Protocol):
    """What a stand-in is held on."""

    def show(self, reading: Reading) -> float:
        """What a perfect instrument would read, mm or degrees."""
        ...

    @property
    def bench_pitch(self) -> float:
        """How far the datum line leans against the board, degrees."""
        ...


class StandIn:
    """One gauge in the hand of somebody who holds it where he is told.

    Parameters
    ----------
    hidden : Airframe
        What it measures.
    rng : numpy Generator
        Its noise and its own zero.
    """

    def __init__(self, kind: GaugeKind, hidden: Airframe, rng: "np.random.Generator") -> None:
        self.kind = kind
        self._make = MAKES[kind]
        self._hidden = hidden
        self._rng = rng
        self._reference = float(rng.normal(0.0, self._make.offset))
        self._held: Reading | None = None

    def answer(self, line: str) -> str:
        """The answer to one line."""
        word, _, rest = line.strip().partition(" ")
        match word:
            case "WHO":
                return f"IAM {self.kind} stand-in 1"
            case "READ":
                return value_line(self._shown(), UNITS[self.kind], self._make.digits)
            case "ZERO":
                self._reference = self._felt()
                return "OK"
            case "HOLD":
                return self._hold(rest)
            case _:
                return "ERR not understood"

    def _hold(self, what: str) -> str:
        if what == "datum":
            self._held = None
            return "OK"
        try:
            reading = _read().validate_json(what)
            if reading.kind not in TAKES[self.kind]:
                return f"ERR a {self.kind} gauge can't take {reading.kind}"
            self._hidden.show(reading)
        except (ValidationError, KeyError):
            return "ERR there is no such place"
        self._held = reading
        return "OK"

    def _felt(self) -> float:
        """What the sensor feels, against gravity or the end of the tape, before its own zero."""
        lean = self._hidden.bench_pitch if self.kind == "incidence" else 0.0
        if self._held is None:
            return lean
        return lean + self._hidden.show(self._held)

    def _shown(self) -> float:
        sigma = DEFAULT_SIGMA[self._held.kind] if self._held is not None else self._make.step
        value = self._felt() - self._reference + float(self._rng.normal(0.0, sigma / 2))
        return round(value / self._make.step) * self._make.step
