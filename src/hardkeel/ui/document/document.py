"""The document: one frozen build, one undo stack, and what the survey says of it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime
from types import MappingProxyType
from typing import Final

from PyQt6.QtCore import QObject, QTimer, pyqtSignal
from PyQt6.QtGui import QUndoCommand, QUndoStack

from hardkeel.airframe import targeting
from hardkeel.airframe.orders.following import followed
from hardkeel.base.errors import BadInput, HardKeelError, Unusual
from hardkeel.base.faults import faults_told
from hardkeel.edits import truing as edits
from hardkeel.edits.named import Edit
from hardkeel.messages.unusual import asked_about
from hardkeel.project.model import Build
from hardkeel.project.unusual import Oddity, oddities
from hardkeel.storage.attaching import BuildImages, Images
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.readings import PHASES, Phase
from hardkeel.ui.document.session import Session

Clock = Callable[[], datetime]
# what kind of work is done beside the window, the work, what is done with its answer, and what with its fault
Beside = Callable[
    [str, Callable[[], object], Callable[[object], object], Callable[[HardKeelError], object]],
    object,
]
Judged = dict[Phase | None, Judgement]
MOST_UNDONE: Final = 400  # steps back: each keeps some 80 kB of what was before it
_ALONE: Final = -1  # Qt's word for a command that never merges
_NUDGE: Final = 1
_AT_REST_MS: Final = 200  # a key held down repeats some thirty times a second


@dataclass(frozen=True, slots=True)
class Change:
    """What is another now.

    Attributes
    ----------
    parts : frozenset of str
        Names of the build's sections, as in the file, and ``judgement`` where the readings say something
        else; empty where another build came, and so everything is another.
    """

    parts: frozenset[str] = frozenset()

    def touches(self, parts: frozenset[str]) -> bool:
        """Whether one of these parts is another now."""
        return not self.parts or bool(self.parts & parts)


def change_between(before: Build, after: Build) -> Change:
    """Which sections of two builds differ."""
    names = [*Build.model_fields, *(before.model_extra or {}), *(after.model_extra or {})]
    parts = {name for name in names if getattr(before, name, None) != getattr(after, name, None)}
    if parts & {"survey", "phase"}:
        parts.add("judgement")
    return Change(frozenset(parts))


class Document(QObject):
    """Holds the build; every change is an edit pushed on the undo stack.

    Signals
    -------
    build_changed : Change
        The build is another one now: by an edit, undo, redo, or because a file was opened.
    build_opened : (nothing)
        Another build lies on the bench; told before `build_changed`.
    refused : BadInput
        Why what was done could not stay: it was judged only once it was at rest.

    Attributes
    ----------
    beside : callable, optional
        Runs work beside the window; without it everything is judged at once.
    """

    build_changed = pyqtSignal(object)
    build_opened = pyqtSignal()
    refused = pyqtSignal(object)

    def __init__(
        self, build: Build, clock: Clock, parent: QObject | None = None, store: Images | None = None
    ) -> None:
        super().__init__(parent)
        self.stack = QUndoStack(self)
        self.stack.setUndoLimit(MOST_UNDONE)
        self.clock = clock
        self._store = store or Images()
        self.session = Session(BuildImages(self._store), self)
        self._build = build
        self._judged: Judged = {}
        self._nudging: _EditCommand | None = None
        self._asked: tuple[Oddity, ...] = ()
        self._uncommitted = False
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(_AT_REST_MS)
        self._rest.timeout.connect(self._on_rest)
        self.beside: Beside | None = None

    @property
    def build(self) -> Build:
        """The build as it is now."""
        return self._build

    @property
    def judgement(self) -> Judgement:
        """What the readings of the current phase say; while something is nudged, what they said before."""
        return self.judged(self._build.phase)

    def judged(self, phase: Phase | None) -> Judgement:
        """What the readings of a phase say; computed once for each build."""
        if phase not in self._judged:
            found = judge_survey(self._build.surveyed, phase)
            if self._uncommitted:  # what is kept is of the build before
                return found
            self._judged[phase] = found
        return self._judged[phase]

    def earlier_phase(self) -> Phase | None:
        """The last phase before the current one that has readings."""
        now = self._build.phase
        if now is None:
            return None
        taken = {reading.phase for reading in self._build.surveyed.readings}
        before = [phase for phase in PHASES[: PHASES.index(now)] if phase in taken]
        return before[-1] if before else None

    def open_build(
        self,
        build: Build,
        *,
        clean: bool = True,
        came: Mapping[str, bytes] = MappingProxyType({}),
    ) -> None:
        """Put another build on the bench: its session begins, the one before ends, and undo starts afresh.

        Parameters
        ----------
        came : mapping of str to bytes
            Images that came with its file, by the names in it.

        Raises
        ------
        BadInput
            When its survey can't be adjusted; the build on the bench is then left alone.
        """
        judged: Judged = {build.phase: judge_survey(build.surveyed, build.phase)}
        self._committed()
        self._nudging = None
        self.stack.clear()
        if not clean:
            self.stack.resetClean()
        self._build, self._judged, self._asked = build, judged, ()
        before, self.session = self.session, Session(BuildImages(self._store, came), self)
        before.end()
        self.build_opened.emit()
        self.build_changed.emit(Change())

    def apply(self, name: str, edit: Edit, *, nudge: str = "", judged_later: bool = False) -> None:
        """Do an edit as one named step.

        Parameters
        ----------
        nudge : str
            What is nudged, if it is a nudge; it goes on where a nudge of the same thing right before it
            left off, the two are one step to undo, and they are judged once they are at rest.
        judged_later : bool
            Judging takes seconds: it is done beside the window, and further edits need not wait for it.

        Raises
        ------
        BadInput
            When the edit can't be done; nothing has changed then.
        Unusual
            When it makes a figure that hardly any model has; the same edit again is done.
        """
        later = judged_later and self.beside is not None
        if not later and (
            not nudge
            or self._nudging is None
            or self._nudging.nudge != nudge
            or self.stack.isClean()
        ):
            self.commit()  # what is no more of the same nudge starts from what is judged
        before = self._build
        with (
            faults_told()
        ):  # what follows from a figure can be out of range though the figure is not
            after = targeting.followed(before, followed(before, edit(before)))
        if after == before:
            return
        if not nudge:
            self._ask_about(oddities(before, after))
        same = after.survey == before.survey and after.phase == before.phase
        if same or nudge or later:
            judged = self._judged if same and not self.uncommitted else None
            self.stack.push(_EditCommand(self, name, after, judged, nudge=nudge))
            if later and not nudge and judged is None:
                self._judge_beside()
            return
        # the edit has checked the survey that it made
        judgement = judge_survey(after.surveyed, after.phase, near=self.judgement, sound=True)
        if after.phase == before.phase:
            after = self._with_verdicts_logged(after, self.judgement, judgement)
        # what the app adds to the log changes no reading: the judgement stays good
        self.stack.push(_EditCommand(self, name, after, {after.phase: judgement}, nudge=""))

    def _ask_about(self, found: tuple[Oddity, ...]) -> None:
        """Ask once about figures that are nearly always a slip."""
        told, self._asked = self._asked == found, found
        if found and not told:
            raise Unusual("", asked_about(found[0]))

    @property
    def uncommitted(self) -> bool:
        """Whether something is being nudged and not yet judged."""
        return self._uncommitted

    def commit(self) -> None:
        """Judge what was nudged; where it can't be judged it goes back to where it was, and that is told."""
        if not self._uncommitted:
            return
        build, before = self._build, self.judgement
        try:
            judgement = judge_survey(build.surveyed, build.phase, near=before, sound=True)
        except BadInput as fault:
            self._put_back(fault)
            return
        self._commit_with(judgement)

    def _on_rest(self) -> None:
        """Judge what is at rest: beside the window where that takes long."""
        if self.beside is not None and self._build.surveyed.sightings:
            self._judge_beside()
        else:
            self.commit()

    def _judge_beside(self) -> None:
        """Judge the build as it is now while the window goes on; an answer about another build is let go."""
        if self.beside is None:
            return
        self._rest.stop()
        build, before = self._build, self.judgement

        def done(judgement: object) -> None:
            if self._build is build and self._uncommitted and isinstance(judgement, Judgement):
                self._commit_with(judgement)

        def failed(fault: HardKeelError) -> None:
            if self._build is build and self._uncommitted:
                self._put_back(fault)

        self.beside(
            "judging",
            lambda: judge_survey(build.surveyed, build.phase, near=before, sound=True),
            done,
            failed,
        )

    def _put_back(self, fault: HardKeelError) -> None:
        """What can't be judged goes back to where it was, and that is told."""
        self._committed()
        command, self._nudging = self._nudging, None
        if command is not None:
            command.refused = True  # what could not stay is not to be done again either
        self.stack.undo()
        self.refused.emit(fault)

    def _commit_with(self, judgement: Judgement) -> None:
        """What was done is judged now."""
        before = self.judgement
        self._committed()
        command, self._nudging = self._nudging, None
        build = self._build
        judged: Judged = {build.phase: judgement}
        logged = self._with_verdicts_logged(build, before, judgement)
        if command is not None:
            command.settle(logged, judged)
        else:  # gone back to where it began: nothing to log
            logged = build
        self._build, self._judged = logged, judged
        change = change_between(build, logged)
        self.build_changed.emit(Change(change.parts | {"judgement"}))

    def set_build(self, build: Build, judged: Judged | None) -> None:
        """Show another state with what is already known of it; for the undo commands only.

        Parameters
        ----------
        judged : dict or None
            ``None`` where it is to be judged once it is at rest.
        """
        before, self._build = self._build, build
        if judged is not None:
            self._judged = judged
            self._committed()
        else:
            self._uncommitted = True
            self._rest.start()
        self.build_changed.emit(change_between(before, build))

    def _committed(self) -> None:
        self._uncommitted = False
        self._rest.stop()

    def nudging(self, command: "_EditCommand | None") -> None:
        """Which command is being nudged; for the undo commands only."""
        self._nudging = command

    @property
    def known(self) -> Judged:
        """The judgements made of this build so far."""
        return self._judged

    def _with_verdicts_logged(self, after: Build, before: Judgement, now: Judgement) -> Build:
        was = {check.id: check.verdict for check in before.checks}
        return edits.log_verdicts(after, was, now.checks, self.clock())


class _EditCommand(QUndoCommand):
    """From one build to the next and back."""

    def __init__(
        self,
        document: Document,
        name: str,
        after: Build,
        judged: Judged | None,
        *,
        nudge: str,
    ) -> None:
        super().__init__(name)
        self._document = document
        self.nudge = nudge
        self.refused = False
        self._before = (document.build, document.known)
        self._after = (after, judged)

    def redo(self) -> None:
        self._document.nudging(self if self._after[1] is None else None)
        self._document.set_build(*self._after)

    def undo(self) -> None:
        self._document.nudging(None)
        self._document.set_build(*self._before)
        if self.refused:
            self.setObsolete(True)  # Qt asks once it is undone, and drops it

    def settle(self, after: Build, judged: Judged) -> None:
        """Lead to this build, now that it is judged."""
        self._after = (after, judged)

    @property
    def after(self) -> tuple[Build, Judged | None]:
        """Where it leads."""
        return self._after

    def id(self) -> int:
        """Qt asks only commands of one kind whether they merge."""
        return _NUDGE if self.nudge else _ALONE

    def mergeWith(self, other: QUndoCommand | None) -> bool:
        """Take over where a nudge of the same thing got to; one that came back to its start is none."""
        if not isinstance(other, _EditCommand) or other.nudge != self.nudge:
            return False
        self._after = other.after
        there_and_back = self._after[0] == self._before[0]
        self.setObsolete(there_and_back)
        self._document.nudging(None if there_and_back or self._after[1] is not None else self)
        return True
