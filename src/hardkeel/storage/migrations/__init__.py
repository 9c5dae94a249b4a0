"""What older files need to be read as today's: numbered steps, each with a test, in the order in which they came.

A file says the revision that it was written by; one that says none is of before there were revisions.  Lives here:
the steps, with the words of their time frozen in them.  Not here: the format's own version (`storage.format`).
"""

from collections.abc import Callable
from typing import Final

from hardkeel.project.model import Build
from hardkeel.storage.migrations.made_labels import without_made_words
from hardkeel.storage.migrations.parts_by_ends import with_parts_by_ends
from hardkeel.storage.migrations.step_keys import with_step_keys

MIGRATIONS: Final[tuple[Callable[[Build], Build], ...]] = (
    with_parts_by_ends,
    without_made_words,
    with_step_keys,
)
REVISION: Final = len(MIGRATIONS)


def brought_up(build: Build, revision: int) -> Build:
    """A build that was written by this revision, as today's would write it."""
    for migrate in MIGRATIONS[max(revision, 0) :]:
        build = migrate(build)
    return build
