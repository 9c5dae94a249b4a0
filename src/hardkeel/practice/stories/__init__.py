"""What may be wrong with an airframe on the bench, each in the module of its kind; a table lists them.

A story says which models it can be told of, how it bends a true airframe, and which checks it puts out.  Its words,
and what is learned by it, are `messages.practice`'s.
"""

from typing import Final

from hardkeel.practice.stories import after, places, poses, tools
from hardkeel.practice.stories.story import Story

STORIES: Final[dict[str, Story]] = {
    one.id: one for one in (*poses.STORIES, *tools.STORIES, *places.STORIES, *after.STORIES)
}
