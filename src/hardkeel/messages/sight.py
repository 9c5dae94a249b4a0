"""Photos in words: what to click, what a click is worth, which picture to take and from where."""

from collections.abc import Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import check_name, mark_name, reading_name, sentence_case
from hardkeel.messages.verdicts import format_doubt, format_value
from hardkeel.sight.asking import NextPicture
from hardkeel.sight.snapping import PIN_SIGMA
from hardkeel.sight.viewpoints import Place
from hardkeel.survey.checking import Check
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import Survey
from hardkeel.survey.outliers import Outlier
from hardkeel.survey.readings import Sight
from hardkeel.survey.sighting import PhotoView

SIGHT: Final = "Sight"
OPEN_PHOTO: Final = "Open a photo…"
WEBCAM: Final = "Take one by webcam"
SAMPLE_OF_EXERCISE: Final = "photograph the model"
TAKING: Final = "The webcam takes a picture…"
BY_WEBCAM: Final = "webcam"
SAMPLE: Final = "photograph the demo"
OPEN_WHICH: Final = "Which photo?"
PHOTO_FILES: Final = "Photos (*.jpg *.jpeg *.png)"
READING: Final = "reading {name}…"
DRAWING: Final = "The stand-in camera takes its picture…"
CLICK_AGAIN: Final = "Look at a click again"
LABEL_AGAIN: Final = "Look at a label again"
LOOK_AGAIN: Final = "to the photo"
NO_PHOTO: Final = "Put a camera on a chair behind the model and open its picture"
NO_PHOTO_WHY: Final = (
    "Click the marks that you see. From the fifth on, three of them on the fuselage, every part's place follows, "
    "with its doubt, together with tape and gauge."
)
NO_MARKS: Final = "Describe your model first: its marks are what is clicked."
TOO_FEW: Final = (
    "Too few marks fix its camera: five, three of them on the fuselage and not in a line."
)
CANT_SEE: Final = "can't be seen (N)"
TAKE_BACK: Final = "take the click away (Del)"
NOT_HERE: Final = "The picture itself is not here: its clicks still count."
DROP_PHOTO: Final = "take the photo away"
SMALLER: Final = "keep it smaller"
SNAPPING: Final = "snap to a head, dot, ring or corner"
LEFT_WHERE_CLICKED: Final = "Left where you clicked: nothing round or sharp lies there."
TWO_LIE_THERE: Final = (
    "Two marks lie there: come nearer with the wheel, or hold Shift to take it where you click."
)
SEEN_EDIT: Final = "look for what could not be seen"
NEXT_MARK: Final = "Click now"
ALL_CLICKED: Final = "All that can be seen is clicked"
ALL_CLICKED_WHY: Final = "Pick a click to move it with the arrow keys, or take another picture."
WHAT_IT_SAYS: Final = "What the readings say now"
TAKE_NEXT: Final = "The next picture"
HOW_TO: Final = "How to take it"
PHOTOS: Final = "photo"
KEYS: Final = "Arrows nudge it by a pixel, with Ctrl by a tenth; Esc lets it go."
HANDS: Final = (
    "Wheel: nearer. Right button: move the picture. Shift and click: no snapping. By keys: arrows lead the loupe, "
    "with Ctrl finely, Enter takes what is in it, N where it can't be seen."
)
LEGEND: Final = "white: as it should stand     colour: as it stands, error enlarged"
PRINTED_LEGEND: Final = "White: as it should stand. Coloured: as it stands, error shown × {factor:.0f}. Rings: what was clicked."
FROM_WHERE: Final = "taken from"
PLACES: Final[dict[Place, str]] = {
    "behind": "behind the tail, the camera as high over the model as half its distance",
    "front": "in front of the nose, a little above",
    "above": "straight above",
    "quarter": "port and behind, above the tail",
    "quarter-starboard": "starboard and behind, above the tail",
    "above-tail": "above the tail, so that nose and both wing tips are in it",
    "nose-quarter": "port and ahead, above the nose",
}
PLACE_NAMES: Final[dict[Place, str]] = {
    "behind": "behind",
    "front": "front",
    "above": "above",
    "quarter": "port quarter",
    "quarter-starboard": "starboard quarter",
    "above-tail": "above the tail",
    "nose-quarter": "nose quarter",
}
RECKONING: Final = "Reckoning with the last click …"
HOW: Final = (
    "The model fills the picture: zoom from afar is as good as going near.",
    (
        "Leading and trailing edges, and marks near the root and at the fin's foot: tips alone can't tell incidence "
        "from twist, and decalage stays unknown."
    ),
    "A pin with a coloured head is found to half a pixel; a corner to one and a half.",
    "The model stands still, all of it in the light. Nothing of where and by what a picture was taken is kept.",
)
EXPECT: Final = (
    "With 1.5 pixel clicks one picture behind the tail tells stabilizer to wing within about 0.1°, its square within "
    "0.15°, decalage within 0.4°; with one from above the square is twice as good."
)
PHOTO_EDIT: Final = "open a photo"
DROP_EDIT: Final = "take a photo away"
SMALLER_EDIT: Final = "keep a photo smaller"


def reading_words(done: int, total: int) -> str:
    """``Reading pictures: 1 of 4.``: how many are read."""
    return f"Reading pictures: {done} of {total}."


def sight_edit(mark: str) -> str:
    """The step's name for undo."""
    return f"sight {mark}"


def does_not_go(mark: str) -> str:
    """Why a click was not taken."""
    return f"That click does not go with the others, whatever the camera: is it the {mark}, or a click before it another mark?"


def unsight_edit(mark: str) -> str:
    """The step's name for undo."""
    return f"take the click on {mark} away"


def sighted_name(survey: Survey, sight: Sight) -> str:
    """``stabilizer tip TE port in p1``."""
    return f"{mark_name(survey, sight.mark)} in {sight.photo}"


def told_id(survey: Survey, reading_id: str) -> str:
    """What a reading is called in a sentence, figure or click."""
    sight = survey.sighting(reading_id)
    if sight is not None:
        what = "target" if is_by_target(survey, sight) else "click"
        return f"the {what} on {sighted_name(survey, sight)}".replace(
            "target on target ", "target on "
        )
    reading = survey.reading(reading_id)
    return reading_name(survey, reading) if reading is not None else reading_id


def click_sentence(survey: Survey, judgement: Judgement, suspect: Outlier) -> str:
    """What to do about a click that does not fit."""
    name = sentence_case(told_id(survey, suspect.reading))
    fit = next((one for one in judgement.sight_fits if one.id == suspect.reading), None)
    if suspect.alike:
        others = ", ".join(told_id(survey, one) for one in suspect.alike)
        return (
            f"Either {told_id(survey, suspect.reading)} or {others} is wrong: look at them again."
        )
    if fit is None or fit.residual is None:
        return f"{name} does not fit the rest: look at it again."
    sight = survey.sighting(suspect.reading)
    if sight is not None and is_by_target(survey, sight):
        return f"{name} lies {decimal(fit.residual, 1)} pixels off what all else says: does its label lie flat, and was nothing touched?"
    return f"{name} lies {fit.residual:.0f} pixels off what all else says: click it again."


def is_by_target(survey: Survey, sight: Sight) -> bool:
    """Whether a printed target was found there, and nobody clicked."""
    found = sight.sigma is not None and sight.sigma < PIN_SIGMA
    return found and any(one.mark == sight.mark for one in survey.targets)


def again_title(survey: Survey, reading_id: str) -> str:
    """What is to be looked at again: a click, or a label."""
    sight = survey.sighting(reading_id)
    return LABEL_AGAIN if sight is not None and is_by_target(survey, sight) else CLICK_AGAIN


def look_again_words(count: int) -> str:
    """``1 can't be seen: look again``."""
    return f"{count} can't be seen: look again"


def unseen_edit(mark: str) -> str:
    """The step's name for undo."""
    return f"{mark} can't be seen"


def mark_title(survey: Survey, mark: str) -> str:
    """``Stabilizer tip TE port``."""
    return sentence_case(mark_name(survey, mark))


def left_words(left: int, used: bool, clicked: int) -> str:  # noqa: FBT001  one of three plain facts
    """How far the clicking is."""
    if used:
        return f"{clicked} clicked. Each further one sharpens; {left} more may be seen."
    missing = max(1, 5 - clicked)
    return (
        f"{clicked} clicked, {missing} more at least: three of them on the fuselage, not in a line."
    )


def answer_lines(survey: Survey, checks: tuple[Check, ...], unit: LengthUnit) -> list[str]:
    """A check a line with its doubt."""
    return [
        f"{check_name(survey, check)}: {format_value(check, unit)} {format_doubt(check, unit)}"
        for check in checks
    ]


CLICKS: Final = "Clicks"


def view_words(view: PhotoView, unit: LengthUnit, what: str = CLICKS) -> str:
    """Where it was taken from, and how well the clicks sit, or what else was found in it."""
    x, y, z = (float(one) for one in view.camera.place)
    side = "starboard" if y > 0 else "port"
    told = (
        f"{what} sit within {view.rms:.{1 if what == CLICKS else 2}f} pixels. The camera stood about {_coarse(x, unit)} "
        f"{'aft' if x > 0 else 'ahead'} of the datum, {_coarse(y, unit)} to {side}, "
        f"{_coarse(z, unit)} {'above' if z > 0 else 'below'}."
    )
    if view.k1_sigma < _K1_SEEN:
        told += f" Its lens bends by k1 = {decimal(view.camera.k1, 3)} ± {decimal(view.k1_sigma, 3)}.".replace(
            "-", "−"
        )
    return told


def _coarse(mm: float, unit: LengthUnit) -> str:
    """A distance as one would pace it: to a centimetre or half an inch."""
    step, digits = (10.0, 0) if unit == "mm" else (12.7, -1)
    return format_length(round(abs(mm) / step) * step, unit, digits)


_K1_SEEN: Final = 0.03  # in one photo it is seldom seen


def next_words(survey: Survey, judgement: Judgement, one: NextPicture, unit: LengthUnit) -> str:
    """``Above the tail, …: decalage ± 1.2° becomes ± 0.5°.``."""
    check = judgement.check(one.check)
    if check is None:
        return ""
    told = format_length if check.unit == "mm" else None
    now, then = (
        (told(value, unit) if told is not None else format_angle(value))
        for value in (one.now, one.then)
    )
    where = sentence_case(PLACES[one.view.place])
    return f"{where}: {check_name(survey, check).lower()} ± {now} becomes ± {then}."


def no_picture_words(survey: Survey, check: Check) -> str:
    """Where no picture from anywhere tells what is known least."""
    if survey.targets:
        return f"No further picture of these targets sharpens {check_name(survey, check).lower()}: a gauge is to read it."
    return (
        f"No picture sharpens {check_name(survey, check).lower()}: its marks near the root can't be seen, or too few "
        "on the fuselage. A pin there would, or the gauge."
    )


def expect_words(
    survey: Survey, judgement: Judgement, one: NextPicture, names: Sequence[str], unit: LengthUnit
) -> str:
    """What to expect of these checks before the picture is taken, with plain clicks."""
    promised = dict(one.promised)
    told = []
    for name in names:
        check = judgement.check(name)
        if check is None or name not in promised:
            continue
        doubt = promised[name]
        words = format_length(doubt, unit) if check.unit == "mm" else format_angle(doubt)
        told.append(f"{check_name(survey, check).lower()} ± {words}")
    return f"To expect of it with all else: {', '.join(told)}." if told else ""


def pin_words(survey: Survey, marks: tuple[str, ...]) -> str:
    """Which marks are worth a pin."""
    if not marks:
        return ""
    names = ", ".join(mark_name(survey, mark) for mark in marks)
    return f"Worth a pin with a coloured head: {names}."


def clicked_words(photo: str, count: int) -> str:
    """``Photo p1: 17 marks clicked.``."""
    return f"Photo {photo}: {number_of(count, 'mark')} clicked."


def sighted_words(survey: Survey, sight: Sight, off: float | None) -> str:
    """A click that is picked."""
    name = mark_title(survey, sight.mark)
    return f"{name}, {decimal(off, 1)} pixels off" if off is not None else name
