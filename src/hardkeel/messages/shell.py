"""What stands around the stages: menu, notices, questions, the first page."""

from datetime import datetime
from typing import Final

# files
NO_PICTURE: Final = (
    "can't be made a picture: it is damaged, or takes more memory than two gigabytes"
)
LEAVE_IT_OFF: Final = "Leave it off"
SCAN_FILES: Final = "Scans and photos (*.png *.jpg *.jpeg *.pdf)"

# first page
GO_ON_WITH: Final = "Go on"
OR_BEGIN: Final = "Or begin"
PRACTISE: Final = "Practise on a crooked one"
PRACTISE_WHY: Final = "Not your model. Find what is out, and see how it was."
DESCRIBE_WHY: Final = "A dozen figures; it draws itself as you type."
PLAN_WHY: Final = "A scan or a photo; its paper need not be true."
DEMO_WHY: Final = "Invented airframes, each built another way."
DOOR_SPAN: Final = "span?"
DOOR_LENGTH: Final = "a length that you know"
DOOR_HOW_FAR: Final = "how far?"
CANNOT_BE_READ: Final = "Can't be read"
DESCRIBE_MY_MODEL: Final = "Describe my model"
OPEN_A_BUILD: Final = "Open a build…"
LOOK_AT_THE_DEMO: Final = "Look at the demo"
LAY_IT_OUT_FROM_A_PLAN: Final = "Lay it out from a plan"
LATELY_ON_THE_BENCH: Final = "Lately on the bench"
WHAT_IS_ON_THE_BENCH: Final = "What is on the bench?"

# header
BUILD: Final = "Build"
MENU_TIP: Final = "Open, save, print, demos, text size (Alt+B or F10); everything by name: Ctrl+/"
UNIT_TIP: Final = "Millimetres or inches (Ctrl+U)"
LIGHT_OR_DARK: Final = "Light or dark"

# keel line
KEEL_LINE: Final = "Keel line: side view of the model with the state of each part"

# menu
LEFT_UNSAVED: Final = "Left unsaved"
THE_DEMO_BUILD: Final = "The demo build"
MORE_DEMOS: Final = "More demo builds"
SAVE: Final = "Save"
SAVE_AS: Final = "Save as…"
OLDER_VERSIONS: Final = "Older versions"
WRITE_THE_RECORD: Final = "Write the record…"
MILLIMETRES_OR_INCHES: Final = "Millimetres or inches"
TEXT_SIZE: Final = "Text size"
ABOUT_HARD_KEEL: Final = "About Hard Keel"
QUIT: Final = "Quit"
DESCRIBE_A_NEW_MODEL: Final = "Describe a new model…"
CLEAR_THE_BENCH: Final = "Clear the bench"
OPEN: Final = "Open…"
UNDO: Final = "Undo"
REDO: Final = "Redo"

# new build
WING: Final = "Wing"
TAIL: Final = "Tail"
DESCRIBE_YOUR_MODEL: Final = "Describe your model"
PUT_IT_ON_THE_BENCH: Final = "Put it on the bench"
NOT_NOW: Final = "Not now"
NAME: Final = "Name"
HOW_TRUE: Final = "How true must it be?"
WHICH_TOOLS: Final = "Which tools do you own?"
TICK_A_TOOL: Final = "Tick a tool, or nothing can be measured."

# notice
ALL_RIGHT: Final = "All right"

# questions
NOT_SAVED: Final = "Not saved"
SOMETHING_WENT_WRONG: Final = "Something went wrong"
COPY_THE_REPORT: Final = "Copy the report"
GO_ON: Final = "Go on"
REPLACE: Final = "There is one already"
REPLACE_IT: Final = "Replace it"
STILL_WRITING: Final = "Still writing"
STILL_WRITING_WHY: Final = (
    "Files are still being written. Stop that and close? Nothing half written stays."
)
STOP_AND_CLOSE: Final = "Stop and close"
RECORD_LEFT_OFF: Final = (
    "The record was left off when another build was opened: nothing of it was written."
)
PRINT_THIS: Final = "Print what is shown"
NOTHING_WAS_WRITTEN: Final = "Left off: nothing was written."
GO_BACK: Final = "Go back"
LEAVE_THEM_UNSAVED: Final = "Leave them unsaved"
TYPE_FACES: Final = "Type: Barlow and Barlow Semi Condensed, SIL Open Font License 1.1."
WORK_IS_IN_THE_JOURNAL: Final = "Something went wrong. Your work is in the journal and will be offered again. The report is what you see; nothing is sent."

# window
NO_MODEL_YET: Final = "No model yet"
UNFORESEEN: Final = "Something went wrong that nobody foresaw. What is on the bench is untouched."
OPEN_WHICH_BUILD: Final = "Open a build"
BUILD_FILES: Final = "Builds (*.keel *.json)"
SAVE_THE_BUILD: Final = "Save the build"
SAVED_FILES: Final = "Builds (*.keel);;Bare JSON (*.json)"
RECORD_WHERE: Final = "Where shall the record go?"
SHOW_THE_REPORT: Final = "Show the report"
THIS_BUILD: Final = "This build"
BRING_THEM_BACK: Final = "Bring them back"
DROP_THEM: Final = "Drop them"
WRITE_OVER_IT: Final = "Write over it"
CHOOSE_ANOTHER_FOLDER: Final = "Choose another folder"
OPEN_A_COPY: Final = "Open a copy"
SAVE_WITHOUT_IT: Final = "Save without it"
SAVE_UNDER_ANOTHER_NAME: Final = "Save under another name"
MY_MODEL: Final = "My model"

# stages
LAY_OUT: Final = "Lay out"
FRAME: Final = "Frame"
TRUE: Final = "True"
BENCH: Final = "Bench"
LOG: Final = "Log"


def brought_back_loose(fault: object) -> str:
    """``Brought back as a build without a file: ….``."""
    return f"Brought back as a build without a file: {fault}."


def next_act(title: str) -> str:
    """``Next: nose pin to stabilizer tip TE starboard``."""
    return f"Next: {title[:1].lower()}{title[1:]}"


def saved_when(saved: datetime, now: datetime) -> str:
    """``today, 21:10``, ``yesterday, 21:10``, ``Sunday``, ``19 September``, ``March 2025``."""
    days = (now.date() - saved.date()).days
    if days <= 0:
        return f"today, {saved:%H:%M}"
    if days == 1:
        return f"yesterday, {saved:%H:%M}"
    if days < 7:  # noqa: PLR2004  a week
        return f"{saved:%A}"
    return f"{saved.day} {saved:%B}" if saved.year == now.year else f"{saved:%B %Y}"


def no_window(lacking: object) -> str:
    """``Qt can't open a window: …; `make demo` or an administrator installs it``."""
    return f"Qt can't open a window: {lacking}; `make demo` or an administrator installs it"


def version(number: object) -> str:
    """``Version …. Free software under the GNU GPL 3 or later.``."""
    return f"Version {number}. Free software under the GNU GPL 3 or later."


def state_folder_closed(why: object) -> str:
    """``The state folder can't be written (…): no autosave until it can. Save often.``."""
    return f"The state folder can't be written ({why}): no autosave until it can. Save often."


def no_record(fault: object) -> str:
    """``No record: ….``."""
    return f"No record: {fault}."


def put_back(why: object) -> str:
    """``Put back: ….``."""
    return f"Put back: {why}."


def version_not_taken(fault: object) -> str:
    """``That version was not taken up. ….``."""
    return f"That version was not taken up. {fault}."


def not_saved(fault: object) -> str:
    """``Not saved: ….``."""
    return f"Not saved: {fault}."


def writing_what(what: str) -> str:
    """``Writing the templates…``."""
    return f"Writing {what}…"


def the_record_is_in(folder: object) -> str:
    """``The record is in ….``."""
    return f"The record is in {folder}."


def not_brought_back(fault: object) -> str:
    """``It was not brought back. ….``."""
    return f"It was not brought back. {fault}."


def replaces(name: str) -> str:
    """Asked where the name that was typed becomes that of a file that is there."""
    return f"{name} is there already. Replace it?"


def left_by_newer(count: int) -> str:
    """Journals that only a newer version can read."""
    what = "A build was" if count == 1 else f"{count} builds were"
    return f"{what} left unsaved by a newer Hard Keel: open that one to bring {'it' if count == 1 else 'them'} back."


def too_long_to_draw(seconds: int) -> str:
    """Of a page that is not done in the time that any plan needs."""
    return f"takes more than {seconds} seconds to draw: it was left off"


ITS_FILE_IS_GONE: Final = "its file is gone"
ITS_FILE_WAS_CHANGED: Final = "its file was changed"
STANDS_UNSAVED: Final = "not saved"
NO_FILE_YET: Final = "no file yet"
A_BUILD: Final = "A build"
SIDE_VIEW_HERE: Final = "your model's side view will lie here"


def saved_at(written: datetime) -> str:
    """``saved 18:44``."""
    return f"saved {written:%H:%M}"


def changed_behind(name: str) -> str:
    """A build that is brought back, and its file is another one by now."""
    return f"{name} was changed since; saving will ask for another name."


def not_opened(name: str, why: object) -> str:
    """A file that could not be opened, and why."""
    return f"{name} was not opened. {why}."


def has_changes(name: str) -> str:
    """What is asked before a build is left."""
    return f"{name} has changes that are not saved."


def had_changes(name: str, at: datetime, others: int) -> str:
    """What a journal holds, and how many more there are."""
    more = f" So had {others} more." if others else ""
    return (
        f"{name} had changes from {at:%d %b %H:%M} that were not saved when Hard Keel ended.{more}"
    )


# -- steps as undo names them -----------------------------------------------------------------------


def version_edit(when: str) -> str:
    """``go back to …``."""
    return f"go back to {when}"
