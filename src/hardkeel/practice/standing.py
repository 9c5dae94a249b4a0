"""What a build's simulated tools are held on: an exercise's own airframe, a demo's, else one that is crooked by chance."""

from hardkeel.practice.exercise import opened
from hardkeel.practice.hidden import Hidden, hidden_by_chance, hidden_from
from hardkeel.project.model import Build


def is_played(build: Build) -> bool:
    """Whether simulated tools are its own: of a demo or an exercise what they show is what there is to be read."""
    return build.practice is not None or build.hidden is not None


def hidden_of(build: Build) -> Hidden:
    """The airframe as it really stands.

    Raises
    ------
    BadInput
        When an exercise's truth does not belong to it any more: a body or a mark of it was taken away.
    """
    if build.practice is not None:
        return opened(build).hidden
    if build.hidden is not None:
        return hidden_from(build.surveyed, build.hidden)
    return hidden_by_chance(build.surveyed, build.name)
