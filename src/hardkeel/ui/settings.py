"""What the builder prefers: the only place that touches QSettings.  Each key is declared once."""

from pathlib import Path
from typing import Final, cast

from PyQt6.QtCore import QByteArray, QSettings

from hardkeel.base.units import LengthUnit
from hardkeel.ui.theme import SCALES, ThemeName

_MOST_RECENT: Final = 8
_SCALES_MADE: Final = (0.8, 1.25)  # what no printer is off by


class Settings:
    """Typed, bounded settings over a QSettings store.

    Parameters
    ----------
    store : QSettings
        Where they are kept; tests give an ini file of their own.
    """

    def __init__(self, store: QSettings) -> None:
        self._store = store

    @property
    def unit(self) -> LengthUnit:
        """Millimetres or inches on the screen."""
        return "in" if self._store.value("unit") == "in" else "mm"

    @unit.setter
    def unit(self, unit: LengthUnit) -> None:
        self._store.setValue("unit", unit)

    @property
    def theme(self) -> ThemeName:
        """Light or dark."""
        return "dark" if self._store.value("theme") == "dark" else "light"

    @theme.setter
    def theme(self, theme: ThemeName) -> None:
        self._store.setValue("theme", theme)

    @property
    def tour_seen(self) -> bool:
        """Whether the tour of the demo was begun once."""
        return str(self._store.value("tour_seen", "")) == "yes"

    @tour_seen.setter
    def tour_seen(self, seen: bool) -> None:
        self._store.setValue("tour_seen", "yes" if seen else "no")

    @property
    def text_percent(self) -> int:
        """Text size, one of `SCALES`."""
        raw = self._store.value("text_percent", SCALES[0])
        try:
            percent = int(cast("str", raw))
        except (TypeError, ValueError):
            return SCALES[0]
        return percent if percent in SCALES else SCALES[0]

    @text_percent.setter
    def text_percent(self, percent: int) -> None:
        self._store.setValue("text_percent", percent)

    @property
    def recent(self) -> list[Path]:
        """Files opened lately that can be seen, newest first."""
        return [path for path in self._opened if _is_there(path)]

    @property
    def _opened(self) -> list[Path]:
        raw = self._store.value("recent", [])
        names = [raw] if isinstance(raw, str) else list(raw or [])
        return [Path(str(name)) for name in names][:_MOST_RECENT]

    def add_recent(self, path: Path) -> None:
        """Put a file at the head of the recent ones."""
        names = [str(path), *(str(p) for p in self._opened if p != path)]
        self._store.setValue("recent", names[:_MOST_RECENT])

    def gauge_place(self, kind: str) -> str:
        """Where a kind of gauge was plugged in last; empty for nowhere yet."""
        return str(self._store.value(f"gauge/{kind}", "") or "")

    def set_gauge_place(self, kind: str, url: str) -> None:
        """Remember where a kind of gauge is plugged in."""
        self._store.setValue(f"gauge/{kind}", url)

    @property
    def paper(self) -> str:
        """What lies in the printer; empty until it was picked."""
        return str(self._store.value("paper", "") or "")

    @paper.setter
    def paper(self, paper: str) -> None:
        self._store.setValue("paper", paper)

    @property
    def printer(self) -> str:
        """The printer in use, by its name; empty for any."""
        return str(self._store.value("printer", "") or "")

    @printer.setter
    def printer(self, name: str) -> None:
        self._store.setValue("printer", name)

    def bars(self, printer: str) -> tuple[float, float] | None:
        """What a printer makes of one millimetre, across and up the page; ``None`` where nobody measured its bars."""
        raw = str(self._store.value(_bars_key(printer), "") or "").split()
        try:
            across, up = (float(one) for one in raw)
        except ValueError:
            return None
        low, high = _SCALES_MADE
        return (across, up) if low <= min(across, up) and max(across, up) <= high else None

    def set_bars(self, printer: str, factors: tuple[float, float]) -> None:
        """Remember it."""
        self._store.setValue(_bars_key(printer), f"{factors[0]:.6f} {factors[1]:.6f}")

    @property
    def geometry(self) -> QByteArray | None:
        """Where the window stood."""
        raw = self._store.value("geometry")
        return raw if isinstance(raw, QByteArray) else None

    @geometry.setter
    def geometry(self, geometry: QByteArray) -> None:
        self._store.setValue("geometry", geometry)


def _bars_key(printer: str) -> str:
    """Under which key; a printer's name may hold what separates keys."""
    return f"bars/{printer.replace('/', '_') or 'any'}"


def _is_there(path: Path) -> bool:
    """Whether a file can be seen; a folder that is closed to us hides what is in it."""
    try:
        return path.exists()
    except OSError:
        return False
