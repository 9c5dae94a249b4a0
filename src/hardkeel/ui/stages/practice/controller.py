"""Makes exercises beside the window, goes through those that are over, and keeps what was practised."""

from functools import partial
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QObject

from hardkeel.base.errors import CannotSave, GivenUp, HardKeelError
from hardkeel.base.late import late
from hardkeel.messages import practising as say
from hardkeel.messages.pieces import NUMBERS
from hardkeel.practice.courses import COURSES
from hardkeel.project.model import Build
from hardkeel.ui.document.document import Change
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.practice.stage import PracticeStage
from hardkeel.ui.stages.practice.wanted import Wanted

if TYPE_CHECKING:
    from hardkeel.demo import bench
    from hardkeel.practice import again, kit, making, progress, went
    from hardkeel.practice.pieces import task as pieces
    from hardkeel.practice.went import Went
    from hardkeel.storage import practice_book
    from hardkeel.ui.stages.practice.board_page import BoardPage
    from hardkeel.ui.stages.practice.courses_page import CoursesPage
    from hardkeel.ui.stages.practice.exercise_page import ExercisePage
    from hardkeel.ui.stages.practice.kit_page import KitPage
    from hardkeel.ui.stages.practice.told_page import ToldPage
else:
    bench, making = late("hardkeel.demo.bench"), late("hardkeel.practice.making")
    again, progress = late("hardkeel.practice.again"), late("hardkeel.practice.progress")
    kit, pieces = late("hardkeel.practice.kit"), late("hardkeel.practice.pieces.task")
    went, practice_book = late("hardkeel.practice.went"), late("hardkeel.storage.practice_book")

_MAKING: Final = "exercise"
_GOING: Final = "going through"
_LAYING: Final = "kit"
_ON_BOARD: Final = "piece"
_FIRST_PIECE: Final = "print"


class PracticeController(QObject):
    """Lives as long as its page."""

    def __init__(self, context: StageContext, stage: PracticeStage) -> None:
        super().__init__(stage)
        self._context, self._stage = context, stage
        self._book: progress.Book | None = None
        self._last = Wanted()
        self._own: Build | None = None
        self._making: Progress | None = None
        self._count = 0
        self._told: ToldPage | None = None
        self._courses: CoursesPage | None = None
        self._board: BoardPage | None = None
        self._kit: KitPage | None = None
        self._piece = _FIRST_PIECE
        self._fresh = False
        stage.made.connect(self._on_made)
        context.document.build_changed.connect(self._on_build_changed)

    @property
    def book(self) -> "progress.Book":
        """What was practised; read when it is first wanted."""
        if self._book is None:
            self._book = practice_book.read_book(self._context.state)
        return self._book

    def _on_made(self, key: str, page: SubPage) -> None:
        match key:
            case "courses":
                self._take_courses(page)  # type: ignore[arg-type]
            case "exercise":
                exercise: ExercisePage = page  # type: ignore[assignment]
                exercise.told_wanted.connect(self._on_told_wanted)
            case "told":
                self._take_told(page)  # type: ignore[arg-type]
            case "kit":
                self._take_kit(page)  # type: ignore[arg-type]
            case "board":
                self._take_board(page)  # type: ignore[arg-type]

    def _take_courses(self, page: "CoursesPage") -> None:
        self._courses = page
        page.exercise_wanted.connect(self.make)
        page.piece_wanted.connect(self._on_piece_wanted)
        page.kit_wanted.connect(self._on_kit_wanted)
        page.back_wanted.connect(self._context.visit.back)
        page.stop_wanted.connect(self._on_stop)
        page.own = self._context.visit.own
        page.show_book(self.book)

    def _take_told(self, page: "ToldPage") -> None:
        self._told = page
        page.own = self._context.visit.own
        page.going_wanted.connect(self._go_through)
        page.along.another_wanted.connect(lambda: self.make(self._last))
        page.along.same_wanted.connect(self._on_same)
        page.along.corrected_wanted.connect(self._on_corrected)
        page.along.back_wanted.connect(self._context.visit.back)
        if page.went is None:
            page.refresh()

    def _take_kit(self, page: "KitPage") -> None:
        self._kit = page
        page.kit_wanted.connect(lambda: self._lay_kit(page))
        page.ordered.connect(lambda: self._keep_order(page))
        self._lay_kit(page)

    def _on_kit_wanted(self) -> None:
        """The course of order was begun."""
        made = self._kit is not None
        self._stage.turn_to("kit")
        if made and self._kit is not None:
            self._lay_kit(self._kit)

    def _lay_kit(self, page: "KitPage") -> None:
        """Another kit; laid out beside the window."""
        seed = self._seed()
        self._context.jobs.start(
            self._context.document.session,
            _LAYING,
            lambda: kit.kit_of(bench.practice_models(), seed),
            lambda found: page.show_kit(found, seed),  # type: ignore[arg-type]
            lambda fault: page.tell(str(fault)),
            left=lambda: self._lay_kit(page),
        )

    def _take_board(self, page: "BoardPage") -> None:
        self._board = page
        page.task_wanted.connect(self._lay_piece)
        page.number_wanted.connect(self._lay_piece)
        page.over.connect(self._keep_piece)
        self._lay_piece(self._piece)

    def _on_piece_wanted(self, kind: str) -> None:
        """A course of the board was begun."""
        made, self._piece = self._board is not None, kind
        self._stage.turn_to("board")
        if made:
            self._lay_piece(kind)

    def _lay_piece(self, kind: str, number: int | None = None) -> None:
        """Another piece of a kind, or the one of a number; made beside the window."""
        page, seed = self._board, number if number is not None else self._seed()
        if page is None:
            return
        self._piece = kind
        due = {one.course: one for one in progress.due_of(self.book)}
        self._context.jobs.start(
            self._context.document.session,
            _ON_BOARD,
            lambda: pieces.task_of(kind, seed, last=number is None and due[kind].is_last),
            page.show_task,  # type: ignore[arg-type]
            lambda fault: page.tell(str(fault)),
            left=lambda: self._lay_piece(kind, number),
        )

    def _keep_piece(self) -> None:
        page = self._board
        if page is not None and page.task is not None and not self.book.has_told(page.task):
            now = self._context.document.clock()
            self._keep(progress.piece_of(page.task, page.taken, page.lines, now))

    def _keep_order(self, page: "KitPage") -> None:
        if page.kit is not None:
            now = self._context.document.clock()
            self._keep(progress.ordered_of(page.kit, page.seed, page.late, now))

    def _on_build_changed(self, change: Change) -> None:
        if change.parts:
            return
        for page in (self._courses, self._told):
            if page is not None:
                page.own = self._context.visit.own
                page.show_anew()

    # -- making ----------------------------------------------------------------------------------

    def make(self, wanted: Wanted) -> None:
        """Make one beside the window and put it on the bench."""
        document = self._context.document
        if wanted.own and document.build.practice is None:
            self._own = document.build
        own = self._own if wanted.own else None
        self._last = wanted
        due = {one.course: one for one in progress.due_of(self.book)}
        last = wanted.course in due and due[wanted.course].is_last
        progress_now = Progress()
        self._making = progress_now
        if self._courses is not None:
            self._courses.tell("")
            self._courses.show_making(making=True)
        self._context.jobs.start(
            document.session,
            _MAKING,
            partial(_made, wanted, (self._seed(), last), own, progress_now),
            self._on_exercise,
            self._on_none,
            stop=progress_now.stop,
            left=self._on_left,
        )

    def _on_left(self) -> None:
        """Another build came while one was made."""
        if self._courses is not None:
            self._courses.show_making(making=False)

    def _on_stop(self) -> None:
        """It takes too long: the try that is under way is the last."""
        if self._making is not None:
            self._making.stop()

    def _seed(self) -> int:
        """Another one each time, though two are made within a second."""
        self._count += 1
        now = self._context.document.clock().timestamp()
        return (int(now) + 7919 * self._count) % NUMBERS

    def _on_exercise(self, build: object) -> None:
        if self._courses is not None:
            self._courses.show_making(making=False)
        if isinstance(build, Build):
            self._context.visit.put(build)

    def _on_none(self, fault: HardKeelError) -> None:
        if self._courses is not None:
            self._courses.show_making(making=False)
        if self._courses is not None and not isinstance(fault, GivenUp):
            self._stage.turn_to("courses")
            self._courses.tell(f"{say.NONE_MADE} {fault}.")

    # -- when it is over -------------------------------------------------------------------------

    def _on_told_wanted(self) -> None:
        self._fresh = True
        self._stage.turn_to("told")

    def _go_through(self) -> None:
        build = self._context.document.build
        jobs, session = self._context.jobs, self._context.document.session
        if not jobs.is_running(session, _GOING):
            jobs.start(session, _GOING, partial(went.went_of, build), self._on_went, self._on_lost)

    def _on_went(self, found: object) -> None:
        if self._told is None:
            return
        over: Went = found  # type: ignore[assignment]
        if self._fresh and not self.book.has_seen(over.exercise):
            now = self._context.document.clock()
            self._keep(progress.done_of(over.exercise, over.lines, over.best, now))
        self._fresh = False
        self._told.show_went(over)

    def _on_lost(self, fault: HardKeelError) -> None:
        if self._told is not None:
            self._told.waiting.setText(f"{say.NOT_GONE_THROUGH} {fault}.")

    def _keep(self, done: "progress.Done") -> None:
        """Keep how it went."""
        self._book = self.book.but(done=(*self.book.done, done))
        try:
            practice_book.write_book(self._context.state, self._book)
        except CannotSave as fault:
            self._context.tell(f"{say.NOT_KEPT}: {fault}.")
        if self._courses is not None:
            self._courses.show_book(self._book)

    def _on_same(self) -> None:
        build = self._context.document.build
        if build.practice is not None:
            self._context.visit.put(again.the_same_again(build, build.practice))

    def _on_corrected(self) -> None:
        if self._told is not None and self._told.went is not None:
            self._context.visit.put(again.corrected(self._told.went.exercise))


def _made(wanted: Wanted, which: tuple[int, bool], own: Build | None, told: Progress) -> Build:
    """The exercise; `which` its seed and whether it is the last of its course; on the builder's airframe if given."""
    seed, last = which
    models = making.Models([lambda: own]) if own is not None else bench.practice_models()
    course = COURSES.get(wanted.course)
    return making.exercise_from(
        models, seed, wanted.grade, course=course, last=last, step=told.step
    ).build
