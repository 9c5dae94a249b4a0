"""Bottles, batches and coupons as the file holds them; our own addition to it."""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import NotNegative, Positive, Text, Value

GlueKind = Literal[
    "thin cyanoacrylate",
    "medium cyanoacrylate",
    "thick cyanoacrylate",
    "aliphatic",
    "pva",
    "5-minute epoxy",
    "15-minute epoxy",
    "30-minute epoxy",
    "slow epoxy",
    "contact",
    "polyurethane",
]
Preparation = Literal["as sawn", "sanded", "wiped", "glossy"]
PREPARATIONS: Final[tuple[Preparation, ...]] = ("as sawn", "sanded", "wiped", "glossy")
Broke = Literal["wood", "joint", "soft"]
COLDEST: Final = -10.0
HOTTEST: Final = 60.0
Celsius = Annotated[float, Field(ge=COLDEST, le=HOTTEST, allow_inf_nan=False)]


class Bottle(Value):
    """What the builder's own bottle says, by its sheet; what it does not say is its kind's.

    Attributes
    ----------
    open_minutes, handle_minutes, cure_minutes : float, optional
    by_weight, by_volume : float, optional
        Hardener for 100 of resin.
    """

    kind: GlueKind
    label: str = ""
    open_minutes: Positive | None = None
    handle_minutes: Positive | None = None
    cure_minutes: Positive | None = None
    by_weight: Positive | None = None
    by_volume: Positive | None = None


class Coupon(Value):
    """A test strip that was broken.

    Attributes
    ----------
    broke : str
        ``wood``: as it should; ``joint``: along the glue; ``soft``: the glue was not hard.
    age_hours : float
        After gluing.
    prepared : {"as sawn", "sanded", "wiped", "glossy"}, optional
        What was done to its faces before.
    """

    at: str
    broke: Broke
    age_hours: NotNegative = 24.0
    note: str = ""
    prepared: Preparation | None = None


class Batch(Value):
    """What was mixed at once, or one opened bottle, and what was glued with it.

    Attributes
    ----------
    ratio : float, optional
        Hardener for 100 of resin, by weight.
    joints : tuple of str
        Ids of the steps that were glued with it.
    """

    id: Text
    kind: GlueKind
    mixed: str
    ratio: Positive | None = None
    temperature: Celsius | None = None
    joints: tuple[str, ...] = ()
    coupons: tuple[Coupon, ...] = ()


class Shelf(Value):
    """The builder's glue: own bottles, and batches of late; the last is the one in use."""

    bottles: tuple[Bottle, ...] = ()
    batches: tuple[Batch, ...] = ()
