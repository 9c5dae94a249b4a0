"""The wire to a gauge, by pyserial, which is read when the first one is plugged in or looked for."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING, Any

from hardkeel.base.late import late

if TYPE_CHECKING:
    import serial
    from serial import Serial
    from serial.tools import list_ports
else:
    serial, list_ports = late("serial"), late("serial.tools.list_ports")
    Serial = Any  # for annotations alone

__all__ = ["Serial", "open_port", "ports_found"]


@contextmanager
def open_port(url: str, timeout_s: float) -> Iterator[Serial]:
    """Open what a URL names, while it is wanted; reading and writing give up after the time-out.

    Raises
    ------
    OSError, ValueError
        When there is nothing there, or the URL is none.
    """
    port = serial.serial_for_url(url, timeout=timeout_s, write_timeout=timeout_s)
    wire = getattr(port, "_socket", None)
    try:
        with port:
            yield port
    finally:
        if wire is not None:
            wire.close()  # pyserial leaves it open where the other end went first


def ports_found() -> list[tuple[str, str | None]]:
    """The serial ports of this machine, each with what the system calls the thing behind it."""
    return [(one.device, one.description) for one in list_ports.comports()]
