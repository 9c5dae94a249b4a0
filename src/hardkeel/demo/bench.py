"""The models that exercises are made of: all demos, in an order that never changes, for a seed means one of them."""

from functools import cache

from hardkeel.demo import fleet
from hardkeel.demo.kettlewick import demo_build
from hardkeel.practice.making import Models


@cache
def practice_models() -> Models:
    """Each is made when it is first drawn."""
    return Models([demo_build, *(one.make for one in (*fleet.DEMOS, *fleet.OTHER_SHAPES))])
