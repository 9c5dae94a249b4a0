"""What is being written when the whole record is."""

from typing import Final

THE_RECORD: Final = "the record"
THE_DIARY: Final = "the diary"
THE_LISTS: Final = "lists and the measuring sheet"
THE_TEMPLATES: Final = "the templates"
THE_TAIL: Final = "the tail's templates"
THE_PLAN: Final = "the building plan"
ALL_OF_IT: Final = "all of it to the folder"
