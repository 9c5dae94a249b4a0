"""The wire to a gauge, by pyserial, which is read when the first one is plugged in or looked for."""

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


def open_port(url: str, timeout_s: float) -> Serial:
    """Open what a URL names; reading and writing give up after the time-out.

    Raises
    ------
    OSError, ValueError
        When there is nothing there, or the URL is none.
    """
    return serial.serial_for_url(url, timeout=timeout_s, write_timeout=timeout_s)


def ports_found() -> list[tuple[str, str | None]]:
    """The serial ports of this machine, each with what the system calls the thing behind it."""
    return [(one.device, one.description) for one in list_ports.comports()]
