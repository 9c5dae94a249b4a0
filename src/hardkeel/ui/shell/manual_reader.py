"""Opens the manual where it tells of the page in use."""

from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QAbstractButton, QWidget

from hardkeel.base.late import late
from hardkeel.ui.settings import Settings
from hardkeel.ui.theme import make_theme

if TYPE_CHECKING:
    from hardkeel.ui.shell import manual
else:
    manual = late("hardkeel.ui.shell.manual")

Benches = Mapping[str, QAbstractButton]
_BLANK: Final = "begin"


class ManualReader(QObject):
    """Makes the manual's window when it is first wanted, and anew where text size or theme have changed since.

    Parameters
    ----------
    where : callable
        The stage that is seen, empty where there is none, and the buttons of its benches.
    """

    def __init__(
        self, settings: Settings, where: Callable[[], tuple[str, Benches]], parent: QWidget
    ) -> None:
        super().__init__(parent)
        self._settings, self._where, self._window = settings, where, parent
        self._dress: tuple[str, int] | None = None
        self.dialog: manual.ManualDialog | None = None

    def open(self) -> None:
        """Open it at the page in use, or turn it there."""
        dress = (self._settings.theme, self._settings.text_percent)
        if self.dialog is None or dress != self._dress:
            if self.dialog is not None:
                self.dialog.close()
                self.dialog.deleteLater()
            self.dialog = manual.ManualDialog(make_theme(*dress), self._window)
            self._dress = dress
        stage, benches = self._where()
        pressed = (one.text().replace("&", "") for one in benches.values() if one.isChecked())
        bench = next(pressed, "") if stage else ""
        self.dialog.show()  # where its headings stand is known only then
        self.dialog.turn_to(stage or _BLANK, bench)
        self.dialog.raise_()
        self.dialog.activateWindow()
