"""What is said on the pages of *Practice*."""

from dataclasses import replace
from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, format_angle, format_length, shortest
from hardkeel.messages.air import edge_sentence
from hardkeel.messages.counting import in_words, number_of
from hardkeel.messages.names import check_name, reading_name, sentence_case, tool_name
from hardkeel.messages.pieces import PIECES
from hardkeel.messages.practice import ALONG, COURSES, STORIES
from hardkeel.messages.steps import because_of, named, step_title
from hardkeel.messages.verdicts import is_told_in_mm, state_words, way_off, ways_alone
from hardkeel.survey.reaching import error_at_reach_mm

if TYPE_CHECKING:
    from collections.abc import Sequence
    from datetime import datetime

    from hardkeel.practice.exercise import Exercise
    from hardkeel.practice.kit import Kit, Late
    from hardkeel.practice.progress import Done, Due, Skill
    from hardkeel.practice.replay import Step
    from hardkeel.practice.scoring import Outcome, Scored
    from hardkeel.practice.symptoms import Cause
    from hardkeel.project.practice import PracticeSection, Word
    from hardkeel.survey.checking import Check
    from hardkeel.survey.model import Survey
    from hardkeel.survey.readings import Reading

PRACTICE: Final = "Practice"
EXERCISE, HOW_IT_WAS, WHAT_TO_DO = "Exercise", "How it was", "Courses"
NOT_YOURS: Final = "practice · not your build"
TRY_ONE: Final = "try one"
# exercise
SAY_OF_EACH: Final = "Your word, before any verdict"
READ_WHAT: Final = "Read"
READ_SO_FAR: Final = "Read so far"
NOTHING_READ: Final = "Nothing read yet: choose a tool and a place on the right, Enter reads it."
SPACE_DOUBTS: Final = "Space doubts a reading"
HEADS: Final = ("", "Reading", "If true", "Shows", "Differs", "")
DOUBTED: Final = "doubted"
TRUE, OUT = "True", "Out"
BY: Final = "by"
HOW_FAR: Final = "By how much, at the place where one sees it; may be left empty"
MY_WORD: Final = "That is my word: show how it was"
MY_WORD_KEY: Final = "Ctrl+Return"
READ_IT: Final = "Read it"
CANDIDATES: Final = "Places to read with this tool"
TURNED: Final = "turned"
ALL_PARTS: Final = "all parts"
PART: Final = "Part"
SPENT: Final = "The minutes that are left are too few for that reading: say what you know."
NONE_TAKEN: Final = "No exercise on the bench"
NONE_WHY: Final = "Somebody else's model, crooked in a way that nobody tells you. Find out what is out, in the minutes you have."
TO_THE_COURSES: Final = "Choose one"
LONGER_THAN_IT: Final = "That is longer than the part itself."
SHOW_EDIT: Final = "show how it was"
# how it was
TAKE_ALONG: Final = "To take along"
WENT: Final = "How it went"
STEP_BY_STEP: Final = "The best use of the minutes, step by step"
FILLED: Final = "filled: what a reading was worth"
YOU, BEST = "you", "best"
ROWS: Final = ("as it was", "you said", "readings said")
ANOTHER, SAME_AGAIN = "Another one", "The same again"
CORRECT_IT: Final = "Correct it so, and read again"
CORRECT_TIP: Final = (
    "Each part that you called out is turned back by your figure; what is left is yours to find"
)
NOT_TOLD: Final = "Nothing to show before you have said your word."
LOOKING: Final = "Going through it step by step…"
LEGEND: Final = ("as it was", "you said", "your readings said")
FORTH, BACK = "Next reading", "Reading before"
FOUND, MISSED, UNSAID = "Found", "Missed", "Not said"
CALLED: Final = "Called out though true"
GUESSED, DOUBTS, MINUTES = "Guessed", "Doubts", "Minutes"
NOT_KNOWN: Final = "open"
WAS_TRUE: Final = "true"
SAID_NOTHING: Final = "you said nothing"
# order of work
KIT: Final = "Order of work"
KIT_COURSE: Final = "What must be done before it is closed: a kit put in order"
KIT_TITLE: Final = "What comes next?"
KIT_WHY: Final = "Steps of a kit as they fall out of the box. Choose them one after the other; what was closed too early turns up when it is wanted."
LAYING_OUT: Final = "Laying a kit out…"
KIT_OFFERED, KIT_CHOSEN = "Still to do", "Done, in your order"
TURNED_UP: Final = "It turns up now"
ANOTHER_KIT: Final = "Another kit"
TAKE_BACK: Final = "Take the last one back"
IN_ORDER: Final = "Nothing turned up too late."
AS_IT_GOES: Final = "As it can be worked"
# by feel
BY_FEEL: Final = "By feel"
TURN_SOMETHING: Final = "Turn something"
TURN_HOW: Final = "Nobody's build is touched: what you turn here stands nowhere else."
STRAIGHT_AGAIN: Final = "Straight again"
TOOLS_SHOW: Final = "What the tools would show"
NO_TOOL_SHOWS: Final = "No tool shows anything beyond its own noise."
FEEL_HEADS: Final = ("Reading", "If true", "Shows", "Differs")
CHECKS_HEAD: Final = "True?"
OTHER_WAY: Final = "And the other way round"
MY_MODEL: Final = "My model…"
FEEL_LEGEND: Final = ("as you turned it", "as drawn")
ON_BENCH: Final = "the bench itself"
TURN_NAMES: Final = {
    "roll": "tips it",
    "pitch": "noses it up",
    "yaw": "swings it",
    "dx": "sets it aft",
    "dy": "sets it to starboard",
    "dz": "lifts it",
    "twist_port": "twists its port tip",
    "twist_starboard": "twists its starboard tip",
}
SYMPTOMS: Final = {
    "pulls-port": "pulls to port, hands off",
    "pulls-starboard": "pulls to starboard, hands off",
    "rolls-port": "drops its port wing, hands off",
    "rolls-starboard": "drops its starboard wing, hands off",
    "nose-up": "wants down elevator",
    "nose-down": "wants up elevator",
    "corkscrews": "corkscrews out of loops",
    "rudder-pitches": "pitches when the rudder is given",
    "throttle": "swings or rises with the throttle",
}
HARDLY_FELT: Final = "What is allowed of it would not be felt."
NO_CAUSE: Final = "Nothing of this model that is measured here does that. Warped surfaces, the balance and the engine's bearers are not in it."
# courses
COURSES_WHY: Final = "Pieces and models that are nobody's own. Read what you want, say what is out, then see how it was."
COURSES_TITLE: Final = "Learn to measure before your own model is at stake"
MAKING: Final = "Bending a model…"
BEGIN: Final = "Begin"
LEAVE_IT: Final = "Leave it"
FREE: Final = "Free exercises"
FREE_WHY: Final = "Any story, on any model"
GRADES: Final = {1: "plain", 2: "with tools that lie a little", 3: "with readings misread"}
IN_MINE: Final = "Hide an error in this model"
IN_MINE_TIP: Final = (
    "Your own airframe, bent by chance in the copy; the build itself stays as it is"
)
SKILLS_HEAD: Final = "How it goes lately"
NO_SKILL: Final = "not yet"
DONE_SO_FAR: Final = "Done so far"
NONE_DONE: Final = "Nothing yet."
DONE_HEADS: Final = ("", "Model", "Course", "Right", "Minutes", "Best use")
NONE_MADE: Final = "No exercise was made:"
NOT_GONE_THROUGH: Final = "It could not be gone through:"
NOT_KEPT: Final = "What was practised could not be kept"
SKILLS: Final[dict["Skill", str]] = {
    "finding": "Finding what is out",
    "doubting": "Doubting the right thing",
    "deciding": "Saying only what is known",
    "order": "Order of work",
}
OUTCOMES: Final[dict["Outcome", str]] = {
    "found": "found",
    "half": "found by half",
    "missed": "missed",
    "right": "true, said so",
    "called": "true, called out",
    "unsaid": "not said",
}
GUESS: Final = "a guess"


def back_to(name: str) -> str:
    """``Back to Kettlewick 1200``."""
    return f"Back to {name}"


def count_word(count: int) -> str:
    """``Two``, ``None``."""
    return sentence_case(in_words(count)) if count else "None"


def minutes_words(spent: float, minutes: float) -> str:
    """``8.5 of 26 minutes``."""
    return f"{shortest(spent)} of {shortest(minutes)} minutes"


def to_say(section: "PracticeSection") -> str:
    """What is to be done, large."""
    left = len(section.asked) - len(section.said)
    if not left:
        return f"{count_word(len(section.asked))} said. Show how it was?"
    return f"What of these {count_word(len(section.asked)).lower()} is out?"


def read_button(reading_minutes: float | None) -> str:
    """``Read it (1.5 min)``."""
    return READ_IT if reading_minutes is None else f"{READ_IT} ({shortest(reading_minutes)} min)"


def read_edit(name: str) -> str:
    """For undo."""
    return f"read {name}"


def doubt_edit(reading: str, *, doubted: bool) -> str:
    """For undo."""
    return f"{'trust' if doubted else 'doubt'} {reading}"


def say_edit(name: str, word: "Word | None") -> str:
    """For undo."""
    if word is None:
        return f"say nothing of {name}"
    return f"say that {name} is {'out' if word.out else 'true'}"


def answer_words(section: "PracticeSection", right: int | None) -> str:
    """The answer in a line, for the top of the window."""
    asked = len(section.asked)
    if right is not None:
        return f"{count_word(right)} of {count_word(asked).lower()} right"
    said = len(section.said)
    return f"{count_word(said)} of {count_word(asked).lower()} said" if said else "What is out?"


def how_far(section: "PracticeSection", spent: float, right: int | None) -> str:
    """For the rail."""
    if right is not None:
        return f"{right} of {len(section.asked)} right"
    return f"{shortest(spent)} of {shortest(section.minutes)} min"


def word_words(survey: "Survey", check: "Check", word: "Word", unit: LengthUnit) -> str:
    """``you said out, starboard tip 3.0 mm high``."""
    if not word.out:
        return "you said true"
    if not word.off:
        return "you said out"
    return f"you said {way_off(survey, check.off_by(word.off), unit)}"


def allowed_words(survey: "Survey", check: "Check", unit: LengthUnit) -> str:
    """What is wanted and allowed, as one sees it: ``±0.8 mm``, ``2.00° ±1.1 mm``."""
    reach = error_at_reach_mm(survey, check.off_by(check.tolerance))
    told_in_mm = reach is not None and is_told_in_mm(survey, check)
    allowed = (
        format_length(abs(reach or 0.0), unit) if told_in_mm else format_angle(check.tolerance)
    )
    wanted = f"{format_angle(check.target)} " if check.target and check.unit != "mm" else ""
    return f"{wanted}±{allowed}"


def place_name(survey: "Survey", reading: "Reading") -> str:
    """Where a tool is held, short enough for a list: ``Incidence, wing port 0.1, turned``."""
    if getattr(reading, "turned", False):
        return f"{sentence_case(reading_name(survey, reading.but(turned=False)))}, {TURNED}"
    return sentence_case(reading_name(survey, reading))


def outcome_words(outcome: "Outcome", *, guessed: bool) -> str:
    """``found``, ``missed``; a guess says so."""
    said = OUTCOMES[outcome]
    return f"{said}, {GUESS}" if guessed and outcome in ("found", "right", "half") else said


def part_words(one: "Scored", check: "Check", unit: LengthUnit) -> str:
    """A part in a few words when it is over: how it is, and how it was told."""
    if one.line.is_out:
        off = replace(check.off_by(one.line.error), verdict="out")
        return f"{state_words((off,), unit)}, {OUTCOMES[one.outcome]}"
    said = OUTCOMES[one.outcome]
    return f"{WAS_TRUE}, {said}" if one.outcome == "unsaid" else said


def said_words(checks: "Sequence[Check]", section: "PracticeSection") -> str:
    """A part in a few words while it goes on: what was said of it."""
    said = [one for one in checks if one.id in section.said]
    if not said:
        return "nothing said yet" if checks else "not asked"
    out = [one for one in said if section.said[one.id].out]
    return "you said out" if out else "you said true"


# -- what went how ---------------------------------------------------------------------------------


def along(exercise: "Exercise", lines: "Sequence[Scored]", best: "Sequence[Step]") -> str:
    """The one thing to take along: what would have shown what was missed, else the story's own lesson."""
    survey = exercise.build.surveyed
    checks = {one.id: one for one in exercise.checks}
    for one in lines:
        if one.outcome in ("missed", "unsaid") and one.line.is_out:
            told = next((step for step in best if one.line.check in step.settled), None)
            if told is not None:
                name = check_name(survey, checks[one.line.check]).lower()
                return f"The {tool_name(survey, told.reading)} tells it: {reading_name(survey, told.reading)}, then {name} is known."
    guessed = [one for one in lines if one.guessed]
    if guessed:
        name = check_name(survey, checks[guessed[0].line.check])
        return f"{name} was not decided by what you read. Read on, or say nothing."
    return ALONG[exercise.truth.story]


def story_words(exercise: "Exercise") -> str:
    """What was wrong."""
    return STORIES[exercise.truth.story]


def known_words(known: float | None, spent: float) -> str:
    """From when on all was known."""
    if known is None:
        return f"In {shortest(spent)} minutes not all of it was known."
    if spent > known:
        return f"After {shortest(known)} minutes all was known; the {shortest(spent - known)} after them decided nothing more."
    return f"All was known after {shortest(known)} minutes, and you stopped there."


def minutes_title(spent: float, best: float) -> str:
    """``38 minutes, and 17 would have done``."""
    if spent <= best:
        return f"{shortest(spent)} minutes; the best list takes {shortest(best)}"
    return f"{shortest(spent)} minutes, and {shortest(best)} would have done"


def names_of(exercise: "Exercise", ids: "Sequence[str]") -> str:
    """Checks by their names, or a dash."""
    checks = {one.id: one for one in exercise.checks}
    return ", ".join(check_name(exercise.build.surveyed, checks[one]) for one in ids) or "—"


def nothing_told(minutes: float, spent: float) -> str:
    """``20 of 38 told next to nothing``."""
    return (
        f"{shortest(minutes)} of {shortest(spent)} told next to nothing"
        if minutes
        else f"{shortest(spent)}, each told something"
    )


def doubts_words(slipped: "Sequence[str]", doubted: "Sequence[str]") -> str:
    """Which readings were misread, and which of them were doubted."""
    if not slipped:
        return "none misread" + (f"; you doubted {', '.join(doubted)}" if doubted else "")
    seen = [one for one in slipped if one in doubted]
    wrongly = [one for one in doubted if one not in slipped]
    told = f"{', '.join(slipped)} misread, {'doubted' if len(seen) == len(slipped) else ', '.join(seen) + ' doubted' if seen else 'not doubted'}"
    return told + (f"; {', '.join(wrongly)} doubted for nothing" if wrongly else "")


def left_words(survey: "Survey", check: "Check", left: float, unit: LengthUnit) -> str:
    """How it would stand, corrected by the learner's figure."""
    if abs(left) <= check.tolerance:
        return f"{check_name(survey, check)}: corrected by your figure it would be true"
    return f"{check_name(survey, check)}: corrected by your figure it would still be {way_off(survey, check.off_by(left), unit)}"


def step_words(exercise: "Exercise", number: int, steps: "Sequence[Step]") -> str:
    """``3 of 9, 4 min: level, wing tip LE… Now Stabilizer level is known: out.``."""
    step, survey = steps[number], exercise.build.surveyed
    words = f"{number + 1} of {len(steps)}, {shortest(step.minutes)} min: {reading_name(survey, step.reading)}."
    for check in step.settled:
        verdict = step.checks[check].verdict
        words += f" Now {check_name(survey, step.checks[check])} is known: {verdict}."
    if step.loosened:
        words += f" It throws {names_of(exercise, step.loosened)} open again."
    return words


def block_tip(survey: "Survey", reading: "Reading", minutes: float, worth: float) -> str:
    """A reading in the strip of minutes."""
    told = "told most" if worth >= 1 else f"worth {worth:.0%} of the one that told most"
    return f"{reading.id}: {reading_name(survey, reading)}, {shortest(minutes)} min, {told}"


def cause_words(survey: "Survey", cause: "Cause", unit: LengthUnit) -> str:
    """``Fin straight: from leading edge 0.9 mm to port on``."""
    name, way = check_name(survey, cause.check), way_off(survey, cause.check, unit)
    if cause.either:
        plus, minus = ways_alone(survey, cause.check)
        return f"{name}: {plus}, or {minus}"
    return f"{name}: from {way} on"


def first_words(survey: "Survey", cause: "Cause", unit: LengthUnit) -> str:
    """What that much of it does, and what to read first."""
    does = ""
    if cause.effect is not None:
        does = f"{HARDLY_FELT if cause.is_slight else edge_sentence(cause.effect, unit)} "
    listed = cause.listed
    if not listed.readings:
        return f"{does}No tool at hand tells of it."
    first = listed.readings[0]
    words = f"{does}First the {tool_name(survey, first)}: {place_name(survey, first)}."
    if not listed.decides:
        return f"{words} No list of readings here decides it."
    return f"{words} All that decides it: {shortest(listed.minutes)} min."


# -- order of work -----------------------------------------------------------------------------------


def late_title(late: "Late") -> str:
    """``Try every former in dry: it had to come before. Done already: fix the wing seats.``."""
    titles = [step_title(one) for one in late.closed_by]
    closed = named(tuple(f"{one[:1].lower()}{one[1:]}" for one in titles))
    return f"{step_title(late.step)}: it had to come before. Done already: {closed}."


def late_why(late: "Late") -> str:
    """Why, as far as the steps say it, and the cure."""
    told = [because_of(one) for one in (*late.closed_by, late.step)]
    why = next((f"{one[:1].upper()}{one[1:]}. " for one in told if one), "")
    for_good = [one for one in late.closed_by if one.no_return]
    if for_good:
        how = "That can't be undone: cut it open and do it again"
    else:
        how = "Undo it, and do it again"
    return f"{why}{how[:1].upper()}{how[1:]}, some {late.minutes:.0f} minutes."


def kit_answer(kit: "Kit", late: "Sequence[Late]", left: int) -> str:
    """How it stands."""
    if left:
        return KIT_TITLE
    if not late:
        return IN_ORDER
    minutes = sum(one.minutes for one in late)
    return f"{count_word(len(late))} of {len(kit.steps)} turned up too late: some {minutes:.0f} minutes lost."


# -- courses ---------------------------------------------------------------------------------------


def course_words(course: str) -> str:
    """Its title."""
    return COURSES[course]


def up_to(minutes: float) -> str:
    """``up to 20 bench minutes``: those of the exercise, not of the clock."""
    return f"up to {shortest(minutes)} bench minutes"


def due_words(due: "Due", now: "datetime") -> str:
    """How often it was done, and when it is worth doing again."""
    if due.on is None:
        return "not done yet"
    times = number_of(due.times, "time")
    if due.passed:
        times += ", passed"
    elif due.is_last:
        times += ", the last one is next"
    if due.on <= now:
        return f"{times}; worth doing again" if due.well else f"{times}; again, it went wrong"
    days = max(1, round((due.on - now).total_seconds() / 86400))
    return f"{times}; again in {number_of(days, 'day')}"


def skill_words(share: float | None) -> str:
    """``4 of 5``-like, as a share."""
    return NO_SKILL if share is None else f"{share:.0%}"


def done_cells(one: "Done") -> tuple[str, ...]:
    """A row of what was done."""
    return (
        f"{one.when:%d %b}",
        PIECES[one.model].name if one.model in PIECES else one.model,
        f"{one.course}, last" if one.last else one.course or f"grade {one.grade}",
        f"{one.right} of {one.asked}",
        shortest(one.minutes),
        shortest(one.best),
    )


def exercise_words(section: "PracticeSection") -> str:
    """Which one it is, so that a club can hand out its number."""
    of = section.course or f"grade {section.grade}"
    return f"number {section.seed}, {of}{', the last' if section.last else ''}"
