"""A demo with its order of work laid, so that every page and command shows the same steps."""

from collections.abc import Callable
from functools import wraps

from hardkeel.airframe.orders.whole import lay_anew
from hardkeel.edits.steps import lay_all
from hardkeel.project.model import Build


def with_order(make: Callable[[], Build]) -> Callable[[], Build]:
    """The same with all its steps, done as far as its ledger says."""

    @wraps(make)
    def laid() -> Build:
        build = make()
        return lay_all(build, lay_anew(build))

    return laid
