"""A stand-in behind a pseudo-terminal: the window opens it as it would a real serial port."""

import os
import select
import threading
import tty

from hardkeel.gauges.protocol import LONGEST_LINE
from hardkeel.gauges.standin import StandIn

_TICK = 0.1


class StandInPort:
    """Serves a stand-in on a pseudo-terminal, in a thread of its own, until it is unplugged.

    Parameters
    ----------
    delay_s : float
        How long it takes to answer; a slow gauge for tests.
    garble : bool
        Answer noise instead; a bad cable for tests.
    """

    def __init__(self, gauge: StandIn, *, delay_s: float = 0.0, garble: bool = False) -> None:
        self._gauge = gauge
        self._delay_s = delay_s
        self._garble = garble
        self._master, slave = os.openpty()
        tty.setraw(slave)
        self.url = os.ttyname(slave)
        # Our own handle on the far end keeps the terminal alive while nobody has it open.
        self._slave = slave
        self._stop = threading.Event()
        self._thread = threading.Thread(
            target=self._serve, name=f"stand-in {gauge.kind}", daemon=True
        )
        self._thread.start()

    def unplug(self, wait_s: float = 0.0) -> None:
        """Pull the cable; wait for the thread to end only where asked to."""
        self._stop.set()
        if wait_s:
            self._thread.join(wait_s)

    def _serve(self) -> None:
        waiting = b""
        try:
            while not self._stop.is_set():
                ready, _, _ = select.select([self._master], [], [], _TICK)
                if not ready:
                    continue
                waiting = (waiting + os.read(self._master, 1024))[-LONGEST_LINE:]
                while b"\n" in waiting:
                    line, _, waiting = waiting.partition(b"\n")
                    self._reply(line.decode("ascii", errors="replace"))
        except OSError:
            pass
        finally:
            os.close(self._slave)
            os.close(self._master)

    def _reply(self, line: str) -> None:
        if self._delay_s and self._stop.wait(self._delay_s):
            return
        answer = b"\xff\x00V?L --\x07" if self._garble else self._gauge.answer(line).encode("ascii")
        os.write(self._master, answer + b"\n")
