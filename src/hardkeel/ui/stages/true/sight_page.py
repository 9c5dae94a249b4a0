"""Sight: a photo of the model, its marks clicked, the true airframe over it."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QMenu,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.targeting import proposed, size_for, without_section
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, marked
from hardkeel.edits import sight as edits
from hardkeel.edits.named import Edit
from hardkeel.fuselage.hull import hull_of
from hardkeel.messages import sight as say
from hardkeel.messages import targets as targets_say
from hardkeel.messages.advice import headline
from hardkeel.messages.names import mark_name
from hardkeel.picture.photo import Pixel
from hardkeel.picture.truing import picture_of
from hardkeel.practice.standing import is_played
from hardkeel.sight.asking import to_click
from hardkeel.sight.moved import moved_between
from hardkeel.sight.pictures import Pixels
from hardkeel.sight.snapping import Snap, snap
from hardkeel.sight.viewpoints import Place
from hardkeel.sight.webcam import webcams
from hardkeel.survey.adjusting import PHOTOS_PLACE
from hardkeel.survey.readings import Sight, in_phase
from hardkeel.survey.sighting import photo_view
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.true import sight_shown as shown
from hardkeel.ui.stages.true.photo_view import PhotoView
from hardkeel.ui.stages.true.sight_cards import ClickCard
from hardkeel.ui.stages.true.target_by_mark import TargetByMark
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.dropped import PictureDrop
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.flow import FlowLayout
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.targets_card import TargetsCard

_SHOWS: Final = frozenset({"survey", "phase", "judgement", "fuselage", "hidden"})
_PAUSE_MS: Final = 150


@dataclass(frozen=True)
class _Further:
    """What is reckoned once the answer is on the screen."""

    next_lines: list[str]
    moved: tuple[str, str]
    body: str


class SightPage(SubPage):
    """The document's photos, one at a time.

    Signals
    -------
    photo_wanted, smaller_wanted : (nothing)
        Open one; keep this one smaller.
    sample_wanted : str
        The stand-in camera's picture, from a `Place`.
    webcam_wanted : str
        A picture by the webcam of this device.
    image_wanted : str
        The image of a photo; its id.
    photos_dropped : list of Path
        Pictures that were dropped on the page.
    """

    photo_wanted = pyqtSignal()
    smaller_wanted = pyqtSignal()
    sample_wanted = pyqtSignal(str)
    webcam_wanted = pyqtSignal(str)
    image_wanted = pyqtSignal(str)
    photos_dropped = pyqtSignal(list)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.photo = ""
        self.mark = ""
        self._chosen = ""
        self._clicked = ""  # the mark of the last click
        self._pixels: Pixels | None = None
        self._shrunk = 1.0
        self._further = QTimer(self)
        self._further.setSingleShot(True)
        self._further.setInterval(_PAUSE_MS)
        self._further.timeout.connect(self._look_further)
        self.view = PhotoView(theme)
        self.view.snap_by(self._snap)
        self.click = ClickCard(theme)
        self.says = LinesCard(say.WHAT_IT_SAYS)
        self.wrong = LinesCard(say.CLICK_AGAIN)
        self.wrong.set_edge("out")
        self.targets = TargetsCard()
        self.by_mark = TargetByMark(unit)
        self.targets.column.addWidget(self.by_mark)
        self.touched = LinesCard(targets_say.TOUCHED)
        self.touched.set_edge("out")
        self.touched.show_lines("", [])
        self._touched = ""  # the part that was, as far as is reckoned
        self.take, self.how = LinesCard(say.TAKE_NEXT), LinesCard(say.HOW_TO)
        cards = (
            self.told,
            self.click,
            self.touched,
            self.wrong,
            self.says,
            self.targets,
            self.take,
            FoldedSheet((self.how,)),
        )
        column = CardColumn(cards, theme)
        self.themed = (self.view, self.click.map, column)
        self.lie_beside(self._surface(), column)
        PictureDrop(self).dropped.connect(self.photos_dropped)
        self._connect()
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _surface(self) -> QWidget:
        self.photos = QComboBox()
        self.photos.setAccessibleName(say.PHOTOS)
        self.open, self.smaller = QPushButton(say.OPEN_PHOTO), QPushButton(say.SMALLER)
        self.drop, self.sample = QPushButton(say.DROP_PHOTO), QPushButton(say.SAMPLE)
        self.webcam = QPushButton(say.WEBCAM)
        self.from_where = QComboBox()
        self.from_where.setAccessibleName(say.FROM_WHERE)
        for place, name in say.PLACE_NAMES.items():
            self.from_where.addItem(name, place)
        for button in (self.open, self.webcam, self.smaller, self.drop, self.sample):
            button.setObjectName("tool")
        head = FlowLayout(gap=6)
        for widget in (
            self.photos,
            self.open,
            self.webcam,
            self.sample,
            self.from_where,
            self.smaller,
            self.drop,
        ):
            head.addWidget(widget)
        self.exaggeration = Exaggeration()
        foot = QHBoxLayout()
        foot.setContentsMargins(14, 2, 14, 6)
        self._legend = label("soft", say.LEGEND)
        foot.addWidget(self._legend, 1)
        foot.addWidget(self.exaggeration)
        self._stack = QStackedWidget()
        self._stack.addWidget(self._empty())
        self._stack.addWidget(self.view)
        surface = QWidget()
        surface.setObjectName("paper")
        box = QVBoxLayout(surface)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        above = QVBoxLayout()
        above.setContentsMargins(14, 8, 14, 4)
        above.addLayout(head)
        box.addLayout(above)
        box.addWidget(self._stack, 1)
        box.addLayout(foot)
        return surface

    def _empty(self) -> QWidget:
        """Before there is a photo."""
        self.nothing, self.nothing_why = label("big", say.NO_PHOTO), label("soft", say.NO_PHOTO_WHY)
        page = QWidget()
        box = QVBoxLayout(page)
        box.setContentsMargins(40, 20, 40, 40)
        box.addStretch(1)
        box.addWidget(self.nothing)
        box.addWidget(self.nothing_why)
        box.addStretch(2)
        return page

    def _connect(self) -> None:
        self.document.build_opened.connect(self._on_opened)
        self.document.refused.connect(self._on_refused)
        self.open.clicked.connect(self.photo_wanted)
        self.webcam.clicked.connect(self._on_webcam)
        self.smaller.clicked.connect(self.smaller_wanted)
        self.sample.clicked.connect(
            lambda: self.sample_wanted.emit(str(self.from_where.currentData()))
        )
        self.drop.clicked.connect(self._on_drop)
        self.photos.activated.connect(self._on_photo)
        self.exaggeration.factor_changed.connect(lambda _factor: self._show_over())
        self.view.clicked.connect(self._on_clicked)
        self.view.picked.connect(self._on_picked)
        self.view.moved.connect(self._on_moved)
        for source in (self.view, self.click):
            source.struck.connect(self._on_struck)
            source.skipped.connect(self._on_skipped)
        self.view.crowded.connect(lambda: self.tell(say.TWO_LIE_THERE))
        self.click.looked_again.connect(self._on_look_again)
        self.targets.lay_wanted.connect(
            lambda: self.apply(targets_say.LAY_EDIT, edits.lay_targets.of())
        )
        self.targets.drop_wanted.connect(
            lambda: self.apply(targets_say.DROP_EDIT, edits.drop_targets.of())
        )

        self.by_mark.wanted.connect(
            lambda mark, way, over: self.apply(
                targets_say.BY_EDIT, edits.lay_target_by.of(mark, way, over)
            )
        )

    # -- showing ---------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the photo that is in hand, what is clicked in it, and what that says."""
        build = self.document.build
        photos = self._here()
        if self.photo not in photos:
            self._take(photos[-1] if photos else "")
        self.photos.clear()
        self.photos.addItems([f"{say.PHOTOS} {one}" for one in photos])
        if self.photo:
            self.photos.setCurrentIndex(photos.index(self.photo))
        for widget in (self.photos, self.smaller, self.drop, self._legend, self.exaggeration):
            widget.setVisible(bool(photos))
        for widget in (self.sample, self.from_where):
            widget.setVisible(is_played(build))
        self.sample.setText(say.SAMPLE if build.practice is None else say.SAMPLE_OF_EXERCISE)
        self.open.setEnabled(bool(build.surveyed.marks))
        self._show_webcams()
        targets = bool(build.surveyed.targets)
        asked = targets_say.NO_PHOTO if targets else say.NO_PHOTO
        self.nothing.setText(asked if build.surveyed.marks else say.NO_MARKS)
        how = targets_say.from_where(size_for(build)) if targets else say.NO_PHOTO_WHY
        self.nothing_why.setText(how)
        self._stack.setCurrentIndex(1 if photos else 0)
        self._show_click()
        self._show_over()
        self._show_said()
        self._show_targets()
        self._further.start()

    def _show_webcams(self) -> None:
        """A button for the webcam; where there are several, its menu asks which."""
        cameras = webcams()
        self.webcam.setVisible(bool(cameras))
        self.webcam.setEnabled(bool(self.document.build.surveyed.marks))
        self.webcam.setToolTip(" · ".join(cameras.values()))

    def _here(self) -> list[str]:
        """Photos of the phase that is worked in, and those in which nothing is clicked yet."""
        build = self.document.build
        return [
            one.id
            for one in build.surveyed.photos
            if edits.phase_of(build.surveyed, one.id, build.phase) == build.phase
        ]

    def _show_click(self) -> None:
        build, judgement = self.document.build, self.document.judgement
        self.click.setVisible(bool(self.photo))
        if not self.photo:
            self.mark = ""
            return
        sightings = in_phase(build.surveyed.sightings, build.phase)
        mine = [one for one in sightings if one.photo == self.photo and not one.ignored]
        if self._chosen not in {one.id for one in mine}:
            self._chosen = ""
        unseen = self._unseen()
        done = {one.mark for one in mine}  # the last of them may not be judged yet
        left = to_click(judgement, self.photo, done.union(unseen), hull_of(build.fuselage))
        self.mark = left[0] if left else ""
        chosen = self._sight()
        if chosen is None and shown.by_targets(build, self.photo):
            self.mark = ""
            self.click.setVisible(False)
            return
        ringed = chosen.mark if chosen is not None else self.mark
        if chosen is not None:
            fit = next((one for one in judgement.sight_fits if one.id == chosen.id), None)
            off = fit.residual if fit is not None else None
            title, why = say.sighted_words(build.surveyed, chosen, off), say.KEYS
        elif left:
            title = say.mark_title(build.surveyed, self.mark)
            used = self.photo in judgement.solution.cameras
            why = say.left_words(len(left), used, len(mine))
        else:
            title, why = say.ALL_CLICKED, say.ALL_CLICKED_WHY
        self.click.show_click(
            title, why, skips=bool(left) and chosen is None, strikes=chosen is not None
        )
        self.click.show_unseen(len(unseen))
        picture = picture_of(build, judgement, 1.0)
        self.click.map.show_mark(picture, shown.view_of(build, ringed), ringed, title)

    def _show_over(self) -> None:
        build, judgement = self.document.build, self.document.judgement
        factor = float(self.exaggeration.factor)
        mark = "" if self._chosen else self.mark
        self.view.show_on(shown.on_photo(build, judgement, self.photo, mark, self._chosen, factor))

    def _show_said(self) -> None:
        build, judgement = self.document.build, self.document.judgement
        lines = say.answer_lines(build.surveyed, shown.checks_said(judgement), self.unit)
        view = photo_view(judgement, self.photo)
        if view is not None:
            told = targets_say.FOUND if shown.by_targets(build, self.photo) else say.CLICKS
            lines.append(say.view_words(view, self.unit, told))
        measured = judgement.measured
        said = headline(build.surveyed, judgement)
        self.says.show_lines(
            say.RECKONING if self.document.uncommitted else said, lines if measured else []
        )
        self._show_wrong()
        targets = bool(build.surveyed.targets)
        by_target = (targets_say.from_where(size_for(build)), *targets_say.HOW)
        how = by_target if targets else (*say.HOW, marked(say.EXPECT))
        by_hand = bool(self.photo) and not shown.by_targets(build, self.photo)
        self.how.show_lines("", [*how, *([say.HANDS] if by_hand else [])])

    def _show_wrong(self) -> None:
        title, lines = shown.click_lines(
            self.document.build, self.document.judgement, {self.photo}, self._touched
        )
        self.wrong.eyebrow.setText(title)
        self.wrong.show_lines("", lines)

    def _show_targets(self) -> None:
        build = self.document.build
        self.targets.setVisible(bool(build.surveyed.marks))
        lines = targets_say.laid_lines(build.surveyed, without_section(build))
        more = len(proposed(build).targets)
        self.targets.show_laid(lines, more, there=bool(build.surveyed.targets))
        self.by_mark.show_marks(shown.marks_to_lay_by(build.surveyed))

    def _look_further(self) -> None:
        """Which picture is worth taking, once the answer to the last click is on the screen."""
        build = self.document.build
        if not self.isVisible() or not build.surveyed.marks:
            return
        walls, judgement, unit = hull_of(build.fuselage), self.document.judgement, self.unit

        def work() -> object:
            moved = moved_between(judgement)
            return _Further(
                shown.next_lines(build, judgement, walls, unit),
                targets_say.moved_words(build.surveyed, moved, unit)
                if moved is not None
                else ("", ""),
                moved.body if moved is not None else "",
            )

        if self.document.beside is None:
            self._show_further(work())
        else:
            self.document.beside("what to photograph", work, self._show_further, lambda _why: None)

    def _show_further(self, found: object) -> None:
        if isinstance(found, _Further):
            self.take.show_lines("", found.next_lines)
            what, why = found.moved
            self._touched = found.body
            self._show_wrong()
            self.touched.show_lines(what, [why] if why else [])

    def show_image(self, photo: str, image: QImage, pixels: Pixels | None) -> None:
        """The image of the photo in hand is here."""
        held = self.document.build.surveyed.photo(photo)
        if photo != self.photo or held is None:
            return
        self._pixels = pixels
        self._shrunk = pixels.shape[1] / held.size[0] if pixels is not None else 1.0
        self.view.show_photo(image, held.size)
        self._show_over()

    def focus_work(self) -> None:
        """The photo."""
        (self.view if self.photo else self.open).setFocus()

    # -- doing -----------------------------------------------------------------------------------

    def _on_opened(self) -> None:
        self.photo = self._chosen = ""
        self.targets.show_seen((), ())

    def _take(self, photo: str) -> None:
        self.photo, self._chosen = photo, ""
        self._pixels = None
        self.view.show_photo(QImage(), (1, 1))
        if photo:
            self.image_wanted.emit(photo)

    def _on_photo(self, number: int) -> None:
        self.take_photo(self._here()[number])

    def take_photo(self, photo: str) -> None:
        """Take another photo in hand."""
        self._take(photo)
        self.refresh()

    def _sight(self) -> Sight | None:
        return self.document.build.surveyed.sighting(self._chosen) if self._chosen else None

    def _snap(self, at: Pixel, reach: float) -> Snap | None:
        if self._pixels is None or not self.click.snapping.isChecked():
            return None
        shrunk = self._shrunk
        found = snap(self._pixels, (at[0] * shrunk, at[1] * shrunk), reach * shrunk)
        if found is None:
            return None
        at = (found.at[0] / shrunk, found.at[1] / shrunk)
        return Snap(at, found.kind, found.sigma / shrunk)

    def _on_clicked(self, u: float, v: float, sigma: float) -> None:
        """The mark in hand lies there; where a click is picked, that mark does."""
        chosen = self._sight()
        mark = chosen.mark if chosen is not None else self.mark
        if not mark:
            return
        now = self.document.clock()
        photo, own = self.photo, sigma or None
        self._chosen = ""
        self._take_click(mark, edits.take_sighting.of(photo, mark, (u, v), now, sigma=own))
        if own is None and self.click.snapping.isChecked() and not self.told.text():
            self.tell(say.LEFT_WHERE_CLICKED)
        self.view.setFocus()

    def _take_click(self, mark: str, edit: Edit, *, nudge: str = "") -> None:
        """Take a click; one that no camera can have seen with the others is told as what it is."""
        name = mark_name(self.document.build.surveyed, mark)
        self._clicked = name
        try:
            self.document.apply(say.sight_edit(name), edit, nudge=nudge, judged_later=True)
        except BadInput as fault:
            self._on_refused(fault)
        else:
            self.tell("")

    def _on_refused(self, fault: BadInput) -> None:
        """A click could not stay."""
        does_not_go = fault.place == PHOTOS_PLACE
        self.tell(say.does_not_go(self._clicked) if does_not_go else str(fault))

    def _on_picked(self, sight: str) -> None:
        self._chosen = sight
        self._show_click()
        self._show_over()
        self.view.setFocus()

    def _on_moved(self, right: float, down: float) -> None:
        chosen = self._sight()
        if chosen is None:
            return
        survey, now, photo = self.document.build.surveyed, self.document.clock(), self.photo
        held = survey.photo(photo)
        if held is None:
            return
        u = min(max(0.0, chosen.value[0] + right), float(held.size[0]))
        v = min(max(0.0, chosen.value[1] + down), float(held.size[1]))
        self._take_click(
            chosen.mark,
            edits.take_sighting.of(photo, chosen.mark, (u, v), now),
            nudge=f"sight {chosen.id}",
        )

    def _on_struck(self) -> None:
        chosen = self._sight()
        if chosen is None:
            return
        name = mark_name(self.document.build.surveyed, chosen.mark)
        self._chosen = ""
        self.apply(say.unsight_edit(name), edits.drop_sighting.of(chosen.id))

    def _unseen(self) -> tuple[str, ...]:
        """Marks that can't be seen in the photo in hand, as the builder said."""
        photo = self.document.build.surveyed.photo(self.photo)
        return photo.unseen if photo is not None else ()

    def _on_skipped(self) -> None:
        photo, mark = self.photo, self.mark
        if mark and not self._chosen:
            name = mark_name(self.document.build.surveyed, mark)
            self.apply(
                say.unseen_edit(name),
                edits.set_unseen.of(photo, (*self._unseen(), mark)),
            )

    def _on_look_again(self) -> None:
        photo = self.photo
        self.apply(say.SEEN_EDIT, edits.set_unseen.of(photo, ()))

    def _on_webcam(self) -> None:
        """Take a picture with the webcam; of several the builder says which."""
        cameras = webcams()
        if len(cameras) < 2:  # noqa: PLR2004  nothing to choose
            self.webcam_wanted.emit(next(iter(cameras), ""))
            return
        menu = QMenu(self)
        for device, name in cameras.items():
            action = menu.addAction(name)
            assert action is not None  # noqa: S101  Qt makes one
            action.triggered.connect(lambda _checked, one=device: self.webcam_wanted.emit(one))
        menu.popup(self.webcam.mapToGlobal(self.webcam.rect().bottomLeft()))

    def _on_drop(self) -> None:
        photo = self.photo
        self.apply(say.DROP_EDIT, edits.drop_photo.of(photo))

    @property
    def place(self) -> Place:
        """Where the stand-in camera is to stand."""
        found: Place = self.from_where.currentData()
        return found
