"""What a reading costs the builder: how much must be set up, and what it hangs on.

Where two readings are worth nearly the same, the one that is sooner taken is asked for, tied to the
fuselage, one body after another, the wing first: that is how builders work round a model.
"""

from collections.abc import Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.survey.model import FUSELAGE, Survey
from hardkeel.survey.readings import Offset, Reading, marks_of

_STRING: Final = 2.0  # it stays up while one reads all of them
_BETWEEN_TWO: Final = 3.0  # both ends can be off: it says of neither which
NEARLY: Final = 1.2  # times the sigma that the best would leave: worth nearly as much
# the same where marks and fuselage may be off too: then a far pin on a part that is not on yet looks a little better
NEARLY_SHARED: Final = 1.25


def efforts_of(survey: Survey, readings: Sequence[Reading]) -> Array:
    """Minutes to set each reading up and take it, shape (c,); more where it is not tied to the fuselage."""
    owners = {mark.id: mark.body for mark in survey.marks}
    found = np.empty(len(readings))
    for i, reading in enumerate(readings):
        loose = {owners[mark] for mark in marks_of(reading)} - {FUSELAGE}
        string = isinstance(reading, Offset) and reading.along is not None
        effort = _STRING if string else reading.effort
        found[i] = effort + (_BETWEEN_TWO if len(loose) > 1 else 0.0)
    return found


def handiest(after: Array, efforts: Array, nearly: float = NEARLY) -> NDArray[np.intp]:
    """The order in which to ask, shape (c,): those worth nearly the best by effort, then by worth.

    Parameters
    ----------
    after : Array
        Shape (c,): the sigma that each would leave.
    nearly : float
        Times the best's sigma that counts as worth nearly as much.
    """
    near = after <= nearly * after.min()
    return np.asarray(np.lexsort((after, np.where(near, efforts, np.inf), ~near)), dtype=np.intp)
