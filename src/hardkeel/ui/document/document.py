"""The document: one frozen build, one undo stack, and what the survey says of it."""

from collections.abc import Callable
from datetime import datetime
from typing import Final

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QUndoCommand, QUndoStack

from hardkeel.base.faults import faults_told
from hardkeel.build.model import Build
from hardkeel.edits import truing as edits
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import PHASES, Phase

Clock = Callable[[], datetime]
_ALONE: Final = -1  # Qt's word for a command that never merges
_NUDGE: Final = 1


class Document(QObject):
    """Holds the build; every change is an edit pushed on the undo stack.

    Signals
    -------
    build_changed : (nothing)
        The build is another one now: by an edit, undo, redo, or because a file was opened.
    build_opened : (nothing)
        Another build lies on the bench; told before `build_changed`.
    """

    build_changed = pyqtSignal()
    build_opened = pyqtSignal()

    def __init__(self, build: Build, clock: Clock, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.stack = QUndoStack(self)
        self.clock = clock
        self.session = (
            0  # which build this is of those that lay on the bench, for answers that come late
        )
        self._build = build
        self._judged: dict[Phase | None, Judgement] = {}

    @property
    def build(self) -> Build:
        """The build as it is now."""
        return self._build

    @property
    def judgement(self) -> Judgement:
        """What the readings of the current phase say."""
        return self.judged(self._build.phase)

    def judged(self, phase: Phase | None) -> Judgement:
        """What the readings of a phase say; computed once for each build."""
        if phase not in self._judged:
            self._judged[phase] = judge_survey(self._build.surveyed, phase)
        return self._judged[phase]

    def earlier_phase(self) -> Phase | None:
        """The last phase before the current one that has readings."""
        now = self._build.phase
        if now is None:
            return None
        taken = {reading.phase for reading in self._build.surveyed.readings}
        before = [phase for phase in PHASES[: PHASES.index(now)] if phase in taken]
        return before[-1] if before else None

    def open_build(self, build: Build, *, clean: bool = True) -> None:
        """Put another build on the bench; undo starts afresh.

        Raises
        ------
        BadInput
            When its survey can't be adjusted; the build on the bench is then left alone.
        """
        judged = {build.phase: judge_survey(build.surveyed, build.phase)}
        self.stack.clear()
        if not clean:
            self.stack.resetClean()
        self._build, self._judged = build, judged
        self.session += 1
        self.build_opened.emit()
        self.build_changed.emit()

    def apply(self, name: str, edit: edits.Edit, *, nudge: str = "") -> None:
        """Do an edit as one named step.

        Parameters
        ----------
        nudge : str
            What is nudged, if it is a nudge; it goes on where a nudge of the same thing right before it
            left off, and the two are one step to undo.

        Raises
        ------
        BadInput
            When the edit can't be done; nothing has changed then.
        """
        before = self._build
        with (
            faults_told()
        ):  # what follows from a figure can be out of range though the figure is not
            after = edit(before)
        if after == before:
            return
        if after.survey == before.survey and after.phase == before.phase:
            self.stack.push(_EditCommand(self, name, after, self._judged, nudge=nudge))
            return
        judgement = judge_survey(after.surveyed, after.phase)
        if after.phase == before.phase:
            after = self._with_verdicts_logged(after, judgement)
        # what the app adds to the log changes no reading: the judgement stays good
        self.stack.push(_EditCommand(self, name, after, {after.phase: judgement}, nudge=nudge))

    def set_build(self, build: Build, judged: dict[Phase | None, Judgement]) -> None:
        """Show another state with what is already known of it; for the undo commands only."""
        self._build, self._judged = build, judged
        self.build_changed.emit()

    @property
    def known(self) -> dict[Phase | None, Judgement]:
        """The judgements made of this build so far."""
        return self._judged

    def _with_verdicts_logged(self, after: Build, judgement: Judgement) -> Build:
        was = {check.id: check.verdict for check in self.judgement.checks}
        return edits.log_verdicts(after, was, judgement.checks, self.clock())


class _EditCommand(QUndoCommand):
    """From one build to the next and back."""

    def __init__(
        self,
        document: Document,
        name: str,
        after: Build,
        judged: dict[Phase | None, Judgement],
        *,
        nudge: str,
    ) -> None:
        super().__init__(name)
        self._document = document
        self.nudge = nudge
        self._before = (document.build, document.known)
        self._after = (after, judged)

    def redo(self) -> None:
        self._document.set_build(*self._after)

    def undo(self) -> None:
        self._document.set_build(*self._before)

    @property
    def after(self) -> tuple[Build, dict[Phase | None, Judgement]]:
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
        self.setObsolete(self._after[0] == self._before[0])
        return True
