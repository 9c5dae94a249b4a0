"""Drawings and lists of Lay out: an outline brought in, a former or the parts list written."""

from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Final, cast

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.base.errors import BadInput, CannotSave, GivenUp
from hardkeel.base.units import format_length
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits.named import Edit
from hardkeel.export.parts import former_dxf, parts_csv
from hardkeel.fuselage.cutting import shape_of
from hardkeel.messages import layout as say
from hardkeel.messages import outlines, shell
from hardkeel.storage.atomic import write_atomically
from hardkeel.storage.lettered_stations import lettered
from hardkeel.storage.outlines import Outline, apart, called, read_outlines
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.widgets.outline_chooser import OutlineChooser, OutlineShown, outline_shown

if TYPE_CHECKING:
    from hardkeel.ui.stages.layout.parts_page import PartsPage

_SAME_STATION_MM: Final = 0.05


class DrawingController(QObject):
    """Carries out what the drawing board and the parts bench ask of the disk; lives as long as the page.

    Parameters
    ----------
    tell : callable
        Says a sentence to the builder.
    """

    def __init__(self, document: Document, page: LayoutPage, jobs: Jobs, tell: Tell) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs, self._tell = document, page, jobs, tell
        page.made.connect(self._on_made)

    def _on_made(self, key: str, page: object) -> None:
        if key == "airframe":
            self._page.airframe.former_wanted.connect(self.write_former)
            self._page.airframe.outline_wanted.connect(self.bring_outline)
        elif key == "parts":
            cast("PartsPage", page).csv_wanted.connect(self.write_parts)

    def bring_outline(self) -> None:
        """Ask for a drawing and give an outline of it to the former in hand."""
        name, _ = QFileDialog.getOpenFileName(
            self._page, say.OUTLINE_FROM_A_DRAWING, "", say.DXF_FILES
        )
        if name:
            self.take_outline(Path(name))

    def take_outline(self, path: Path) -> None:
        """Read a drawing beside the window; its one outline goes to the former in hand, of several it is asked."""
        fuselage = self._document.build.fuselage
        stop = self._page.airframe.stop
        former = fuselage.former(stop) if fuselage is not None else None
        if former is None:
            self._tell(say.TAKE_A_FORMER_FIRST)
            return
        progress = Progress()
        self._tell(say.reading_scan(path.name), (shell.LEAVE_IT_OFF, progress.stop))
        self._jobs.start(
            self._document.session,
            "outline",
            lambda: apart(read_outlines(path, progress.step)),
            lambda found: self._offer(former.id, cast("tuple[Outline, ...]", found), path.name),
            lambda why: self._tell("" if isinstance(why, GivenUp) else f"{why}."),
            stop=progress.stop,
            left=lambda: self._tell(say.came_too_late(path.stem)),
        )

    def _offer(self, former: str, found: tuple[Outline, ...], file: str) -> None:
        self._tell("")
        fuselage = self._document.build.fuselage
        ids = [one.id for one in fuselage.formers] if fuselage is not None else []
        named = called(found, ids)
        placed = lettered(found, self._page.unit)
        if len(found) == 1:
            self._give(former, found[0], file, named)
            return
        for name, (one, _) in placed.items():
            if name not in named and id(one) not in map(id, named.values()):
                named[name] = one
        stations = {name: at for name, (_, at) in placed.items()}
        theirs = {id(one): name for name, one in named.items()}
        # in the order of the fuselage, what is called after no former last
        place = {id(one): i for i, one in enumerate(named.values())}
        found = tuple(sorted(found, key=lambda one: place.get(id(one), len(place))))
        shown = [self._shown(theirs.get(id(one), ""), one, stations) for one in found]
        board = self._page.airframe
        asked = OutlineChooser(file, former, shown, board.theme, board)
        asked.one_wanted.connect(lambda i: self._give(former, found[i], file, named))
        asked.all_wanted.connect(lambda: self._give_each(named, stations, file))
        asked.open()

    def _shown(self, name: str, one: Outline, stations: dict[str, float]) -> OutlineShown:
        unit = self._page.unit
        shown = outline_shown(name, one.ring, unit)
        if name not in stations:
            return shown
        at = outlines.lettered_at(shown.size, format_length(stations[name], unit, 1))
        return replace(shown, size=at)

    def _give(self, former: str, outline: Outline, file: str, named: dict[str, Outline]) -> None:
        given = drawing_edits.give_outline.of(former, outline.ring)
        if not self._apply(outlines.outline_edit(former, file), given):
            return
        others = [name for name, one in named.items() if one is outline and name != former]
        if outline.gap:
            self._tell_gap(outline.gap, file)
        elif others:
            self._tell(outlines.called_otherwise(former, file, others[0]))

    def _give_each(self, named: dict[str, Outline], stations: dict[str, float], file: str) -> None:
        """Give each its own; who is only on the sheet is put in at its lettered station."""
        fuselage = self._document.build.fuselage
        ids = [one.id for one in fuselage.formers] if fuselage is not None else []
        new = {name: at for name, at in stations.items() if name in named and name not in ids}
        rings = {name: one.ring for name, one in named.items()}
        given = drawing_edits.give_outlines.of(rings, new)
        if not self._apply(outlines.outlines_edit(file), given):
            return
        gap = max(one.gap for one in named.values())
        elsewhere = self._standing_elsewhere(stations)
        if gap:
            self._tell_gap(gap, file)
        elif elsewhere:
            self._tell(outlines.stands_elsewhere(file, elsewhere))

    def _standing_elsewhere(self, stations: dict[str, float]) -> list[tuple[str, str, str]]:
        """Formers whose lettered station is another than theirs: name, lettered, own."""
        fuselage, unit = self._document.build.fuselage, self._page.unit
        found = []
        for one in fuselage.formers if fuselage is not None else ():
            if abs(stations.get(one.id, one.station) - one.station) > _SAME_STATION_MM:
                lettered_at = format_length(stations[one.id], unit, 1)
                found.append((one.id, lettered_at, format_length(one.station, unit, 1)))
        return found

    def _apply(self, words: str, given: Edit) -> bool:
        try:
            self._document.apply(words, given)
        except BadInput as fault:
            self._tell(f"{fault}.")
            return False
        return True

    def _tell_gap(self, gap: float, file: str) -> None:
        self._tell(say.gap_joined(format_length(gap, self._page.unit, 2), file))

    def write_former(self, name: str) -> None:
        """Ask where, and write a former's cut line."""
        place, _ = QFileDialog.getSaveFileName(
            self._page, say.write_which(name), f"{name}.dxf", say.DXF_FILES
        )
        if place:
            self.write_former_to(name, Path(place))

    def write_former_to(self, name: str, path: Path) -> None:
        """Write a former's cut line as a drawing."""
        fuselage = self._document.build.fuselage
        former = fuselage.former(name) if fuselage is not None else None
        if fuselage is None or former is None:
            return
        self._write(path, former_dxf(shape_of(fuselage, former)))

    def write_parts(self) -> None:
        """Ask where, and write the parts list."""
        place, _ = QFileDialog.getSaveFileName(
            self._page, say.WRITE_THE_PARTS_LIST, "parts.csv", say.CSV_FILES
        )
        if place:
            self._write(Path(place), parts_csv(self._document.build))

    def _write(self, path: Path, text: str) -> None:
        try:
            write_atomically(path, text.encode("utf-8"), versions=0)
        except CannotSave as fault:
            self._tell(say.not_written(fault))
            return
        self._tell(say.written_to(path), well=True)
