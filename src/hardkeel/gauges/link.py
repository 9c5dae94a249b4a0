"""The link to one gauge: a thread that asks, listens, and survives a pulled cable.

It would talk to a real gauge through the same code: any URL that pyserial opens will do
(``/dev/ttyUSB0``, ``socket://host:port``, a stand-in's pseudo-terminal).
"""

import queue
import re
import termios
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.gauges.protocol import LONGEST_LINE, UNITS, GaugeKind, Shown, parse_value
from hardkeel.gauges.wire import Serial, open_port

# ``missed``: one question unanswered; ``odd``: it answers what is no reading; ``unit``: it shows another unit
LinkState = Literal["silent", "live", "lost", "other", "missed", "odd", "unit"]
_NAMED: Final = re.compile(r"IAM (\w{1,20})\b")
_POLL_S: Final = 0.35
_ANSWER_S: Final = 0.8
_RETRY_S: Final = 1.0
_SILENT_AFTER: Final = 3  # unanswered or garbled questions before we say so


@dataclass(frozen=True, slots=True)
class GaugeReport:
    """What became known of a gauge: its state, and what it shows if it shows something.

    Attributes
    ----------
    held : bool
        Whether it is held where the reading is wanted; a stand-in says no to a place that it can't take.
    name : str
        What it called itself, where it is another gauge than was plugged in here; the unit, where it shows
        another one.
    at : str
        Where a stand-in was held when it showed this, as it was told: what it shows is no answer to a
        place that it was told of since.  Empty for a real gauge, which only the builder's hand holds.
    zeroed : bool
        Whether it has said OK to a zero on this link, and has answered every question since.
    refused : str
        What it said to the last zero instead.
    """

    state: LinkState
    shown: Shown | None = None
    held: bool = True
    name: str = ""
    at: str = ""
    zeroed: bool = False
    refused: str = ""


class GaugeLink:
    """Keeps asking one gauge until closed.

    Parameters
    ----------
    url : str
        What pyserial opens.
    report : callable
        Called in the link's own thread with each `GaugeReport`.
    kind : GaugeKind, optional
        What it should be; another gauge is told, and nothing it shows is passed on.
    stand_in : bool
        Whether it can be told where it is held, and on the datum before it is zeroed.
    """

    def __init__(
        self,
        url: str,
        report: Callable[[GaugeReport], None],
        *,
        kind: GaugeKind | None = None,
        stand_in: bool = False,
    ) -> None:
        self._url = url
        self._report = report
        self._kind = kind
        self._stand_in = stand_in
        self._held, self._at = True, ""
        self._zeroed, self._refused = False, ""
        self._orders: queue.SimpleQueue[str] = queue.SimpleQueue()
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._run, name=f"gauge {url}", daemon=True)
        self._thread.start()

    def zero(self) -> None:
        """Hold it on the datum and zero it."""
        if self._stand_in:
            self._orders.put("HOLD datum")
        self._orders.put("ZERO")

    def hold(self, reading_json: str) -> None:
        """Tell a stand-in where it is held; a real gauge is held by the builder's hand."""
        if self._stand_in:
            self._orders.put(f"HOLD {reading_json}")

    def close(self) -> None:
        """Stop asking; returns at once, the thread ends by itself."""
        self._stop.set()

    def join(self, timeout_s: float = 3.0) -> None:
        """Wait for the thread to end, after `close`."""
        self._thread.join(timeout_s)

    def _run(self) -> None:
        while not self._stop.is_set():
            try:
                with open_port(self._url, _ANSWER_S) as port:
                    self._talk(port)
            except (OSError, ValueError, termios.error):
                # SerialException is an OSError; a hung-up terminal speaks through termios
                self._tell(GaugeReport("lost"))
                self._stop.wait(_RETRY_S)

    def _talk(self, port: Serial) -> None:
        while not self._stop.is_set() and self._is_the_one(port):
            self._begin_anew()
            self._listen(port)

    def _begin_anew(self) -> None:
        """A gauge that was away was not zeroed, and what was ordered before it went is not to be done now."""
        self._zeroed, self._refused = False, ""
        kept = ""
        while not self._orders.empty():
            order = self._orders.get()
            kept = order if order.startswith("HOLD {") else kept
        if kept:
            self._orders.put(kept)

    def _listen(self, port: Serial) -> None:
        """Ask what it shows, until it has been silent for a while."""
        missed = 0
        while not self._stop.is_set():
            self._obey(port)
            answer = self._ask(port, "READ")
            shown = parse_value(answer)
            if not answer:
                self._zeroed = False  # it may have been switched off, and on again
            if shown is not None and self._kind is not None and shown.unit != UNITS[self._kind]:
                self._tell(GaugeReport("unit", name=shown.unit))
            elif shown is not None:
                missed = 0
                self._tell(
                    GaugeReport(
                        "live",
                        shown,
                        self._held,
                        at=self._at,
                        zeroed=self._zeroed,
                        refused=self._refused,
                    )
                )
            else:
                missed += 1
                if missed < _SILENT_AFTER:
                    self._tell(GaugeReport("missed"))
                elif answer:
                    self._tell(GaugeReport("odd"))
                else:
                    self._tell(GaugeReport("silent"))
                    return
            self._stop.wait(_POLL_S)

    def _obey(self, port: Serial) -> None:
        while not self._orders.empty():
            order = self._orders.get()
            answer = self._ask(port, order).strip()
            if order.startswith("HOLD"):
                self._held, self._at = answer == "OK", order.removeprefix("HOLD ")
            else:
                done = answer == "OK" and self._held
                self._zeroed = done
                self._refused = "" if done else answer.removeprefix("ERR").strip() or "no answer"

    def _is_the_one(self, port: Serial) -> bool:
        """Ask who it is until it says so: what a stranger shows must not be read, late or not."""
        missed = 0
        while not self._stop.is_set():
            named = _NAMED.match(self._ask(port, "WHO"))
            if named and self._kind in (None, named[1]):
                return True
            if named:
                self._tell(GaugeReport("other", name=named[1]))
                self._stop.wait()
                return False
            missed += 1
            if missed >= _SILENT_AFTER:
                self._tell(GaugeReport("silent"))
            self._stop.wait(_POLL_S)
        return False

    def _ask(self, port: Serial, line: str) -> str:
        port.reset_input_buffer()  # an answer that came too late belongs to another question
        port.write(line.encode("ascii", errors="replace") + b"\n")
        end = time.monotonic() + _ANSWER_S
        answer = bytes(port.read_until(b"\n", LONGEST_LINE))
        if not answer and time.monotonic() < end - _ANSWER_S / 2:
            # a port that returns nothing at once, again and again, has been hung up
            raise OSError
        return answer.decode("ascii", errors="replace")

    def _tell(self, report: GaugeReport) -> None:
        if not self._stop.is_set():
            self._report(report)
