"""How a stretch of fuselage can be built: one module is one method, with what holds for it, its usual members and its steps.

Lives here: what each method's sides are made of and do, what such a stretch is usually framed of, how sides are made and how
the fuselage is put up.  Not here: what every fuselage goes through (`airframe.orders.frame`), words (`messages`, by the
step's key).  Adding a method: its module with a `METHOD`, its name in `fuselage.model.Method`, its words.
"""

from hardkeel.fuselage.methods.method import (
    BuildingMethod,
    InOrder,
    Trait,
    any_with,
    method_named,
    methods_with,
    sections_with,
    side_at,
)

__all__ = [
    "BuildingMethod",
    "InOrder",
    "Trait",
    "any_with",
    "method_named",
    "methods_with",
    "sections_with",
    "side_at",
]
