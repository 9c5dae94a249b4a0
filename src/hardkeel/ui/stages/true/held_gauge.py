"""The gauge at the reading in the hands: whether what it shows may be taken, and what is asked before."""

from dataclasses import dataclass, field

from hardkeel.gauges.link import GaugeReport
from hardkeel.gauges.protocol import GaugeKind
from hardkeel.gauges.resting import Resting
from hardkeel.messages import true as say


@dataclass(slots=True)
class HeldGauge:
    """What is known of the gauge that writes into the field.

    Attributes
    ----------
    writes : bool
        What stands in the field is what the gauge shows.
    off : bool
        It was not zeroed: what it shows is off by who knows what.
    said : str
        What was said when it was last to be taken, and still holds.
    """

    writes: bool = False
    off: bool = False
    said: str = ""
    _kind: GaugeKind | None = None
    _resting: dict[GaugeKind, Resting] = field(default_factory=dict)
    _warned: frozenset[str] = frozenset()

    def hear(self, kind: GaugeKind, report: GaugeReport) -> None:
        """Follow a gauge, wherever it is held: it moves, rests, or is gone."""
        resting = self._resting.setdefault(kind, Resting())
        if report.shown is None:
            resting.forget()
        elif resting.show(report.shown.value, report.shown.unit, report.at) and kind == self._kind:
            self._ask_anew()
        if self.said == say.STILL_MOVES and resting.still:
            self.said = ""

    def write(self, kind: GaugeKind, *, zeroed: bool) -> None:
        """It writes into the field."""
        if kind != self._kind or self.off == zeroed:
            self._ask_anew()
        self.writes, self.off, self._kind = True, not zeroed, kind

    def let_go(self) -> None:
        """What stands in the field is not its any more."""
        self.writes = self.off = False
        self._ask_anew()

    def take(self, far: str) -> str:
        """What is to be said instead of taking what it shows; empty where it is taken.

        Parameters
        ----------
        far : str
            What is asked about a figure far from what is expected; empty for any other.
        """
        resting = self._resting.get(self._kind) if self._kind is not None else None
        if resting is None:
            return ""
        if not resting.still:
            self.said = say.STILL_MOVES
            return self.said
        due = {"off": say.TAKE_OFF if self.off else "", "far": far}
        due["same"] = "" if resting.moved else say.SAME_AGAIN
        due = {name: words for name, words in due.items() if words}
        if due.keys() <= self._warned:
            return ""
        self._warned = frozenset(due)
        self.said = " ".join(due.values())
        return self.said

    def taken(self) -> None:
        """What it shows was taken: the next is another only when it has moved."""
        if self.writes and self._kind is not None:
            self._resting[self._kind].read()
        self._ask_anew()

    def _ask_anew(self) -> None:
        self._warned, self.said = frozenset(), ""
