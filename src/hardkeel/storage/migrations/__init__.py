"""What older files need to be read as today's: numbered steps, each with a test, in the order in which they came.

A file says the revision that it was written by; one that says none is of before there were revisions.  Lives here:
the steps, with the words of their time frozen in them.  Not here: the format's own version (`storage.format`).
"""

from importlib import import_module
from typing import Final

from hardkeel.project.model import Build

# module and function, read when an older file is met
MIGRATIONS: Final = (
    ("parts_by_ends", "with_parts_by_ends"),
    ("made_labels", "without_made_words"),
    ("step_keys", "with_step_keys"),
)
REVISION: Final = len(MIGRATIONS)


def brought_up(build: Build, revision: int) -> Build:
    """A build that was written by this revision, as today's would write it."""
    for module, name in MIGRATIONS[max(revision, 0) :]:
        migrated: Build = getattr(import_module(f"{__name__}.{module}"), name)(build)
        build = migrated
    return build
