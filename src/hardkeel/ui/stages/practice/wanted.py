"""What exercise is to be made; apart from the page, for start-up is felt."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Wanted:
    """What is to be made.

    Attributes
    ----------
    course : str
        Empty for none.
    own : bool
        On the airframe that lies on the bench.
    """

    course: str = ""
    grade: int = 1
    own: bool = False
