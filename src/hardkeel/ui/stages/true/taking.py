"""Which reading is being taken: the proposed one, one from the list, or one put together by hand."""

from dataclasses import replace
from typing import cast

from hardkeel.base.units import LengthUnit
from hardkeel.build.model import Build
from hardkeel.edits import truing as edits
from hardkeel.survey.drafts import Draft, ReadingKind, find_body, find_mark
from hardkeel.survey.model import Reading
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.true import showing
from hardkeel.ui.stages.true.cards import NextShown
from hardkeel.voice.advice import NextStep, next_step
from hardkeel.voice.names import reading_name, sentence_case

NamedEdit = tuple[str, edits.Edit]


class Taking:
    """What the hands are at; it knows no widgets and changes nothing itself.

    Attributes
    ----------
    draft : Draft or None
        A reading in the making.
    """

    def __init__(self, document: Document) -> None:
        self._document = document
        self._step: NextStep | None = None
        self._started: Reading | None = None
        self._again: str | None = None
        self.draft: Draft | None = None

    @property
    def target(self) -> Reading | None:
        """The reading whose value is to be typed now."""
        if self.draft is not None:
            return self.draft.reading()
        if self._started is not None:
            return self._started
        return self._step.reading if self._step is not None else None

    @property
    def again(self) -> str:
        """Id of the reading that is taken anew; empty where the target is a new one."""
        if self.draft is None and self._started is None and self._step is not None:
            doubted = self._step.reading
            return doubted.id if self._step.kind == "again" and doubted is not None else ""
        return self._again or ""

    def look_again(self, unit: LengthUnit) -> None:
        """Find the next step for the build as it is now."""
        document = self._document
        self._step = next_step(document.build.surveyed, document.judgement, unit)

    def give_up(self) -> None:
        """Put the tool down and go back to what is proposed."""
        self.draft = self._started = self._again = None

    def use_tool(self, kind: str) -> None:
        """Take a tool in hand for a reading of one's own."""
        self.give_up()
        self.draft = Draft(cast("ReadingKind", kind))

    def start(self, reading: Reading) -> None:
        """Go on with a reading from the list of those worth taking."""
        self.give_up()
        self._started = reading

    def start_again(self, reading: Reading) -> None:
        """Take a reading anew."""
        self.give_up()
        self._started, self._again = reading, reading.id

    def add_mark(self, mark: str) -> bool:
        """Give the draft its next mark; whether one was wanted.

        Raises
        ------
        BadInput
            When the mark can't be used.
        """
        if self.draft is None or self.draft.wants != "mark":
            return False
        self.draft = self.draft.with_mark(self._document.build.surveyed, mark)
        return True

    def hang_on(self, body: str, y: float) -> bool:
        """Hang the draft's gauge on a body at y mm; whether it wanted that.

        Raises
        ------
        BadInput
            When it can't hang there.
        """
        if self.draft is None or self.draft.wants != "body":
            return False
        self.draft = self.draft.with_body(self._document.build.surveyed, body, y)
        return True

    def name_place(self, text: str) -> None:
        """Give the draft its next place by its name.

        Raises
        ------
        BadInput
            When the words fit nothing, or several places.
        """
        survey = self._document.build.surveyed
        if self.draft is not None and self.draft.wants == "body":
            self.hang_on(*find_body(survey, text))
        elif self.draft is not None:
            self.add_mark(find_mark(survey, text))

    def take(self, value: float, *, simulated: bool = False) -> NamedEdit | None:
        """The edit that takes the target with this value (mm or degrees), made up by a stand-in or read."""
        target = self.target
        if target is None:
            return None
        now, phase, name = self._document.clock(), self._document.build.phase, self.again
        if name:
            return f"take {name} again", lambda b: edits.take_again(
                b, name, value, now, simulated=simulated
            )
        reading = target.but(value=value, phase=phase) if phase else target.but(value=value)
        reading = edits.marked(reading, simulated=simulated)
        number = edits.free_reading_id(self._document.build.surveyed)

        def edit(build: Build) -> Build:
            return edits.take_reading(build, reading, now)

        return f"take reading {number}", edit

    def shown(self, unit: LengthUnit) -> NextShown | None:
        """What the next card shows."""
        survey = self._document.build.surveyed
        if self.draft is not None:
            return showing.draft_view(survey, self.draft, unit)
        if self._started is not None:
            title = sentence_case(reading_name(survey, self._started))
            step = NextStep("reading", title, "Enter takes it, Escape goes back.", self._started)
            eyebrow = "Take again" if self._again else "Worth taking"
            return replace(showing.next_view(step, unit), eyebrow=eyebrow)
        return showing.next_view(self._step, unit) if self._step is not None else None
