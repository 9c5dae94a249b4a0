"""Solvers by scipy, which is read when one is first wanted; every room that solves takes it from here."""

from typing import TYPE_CHECKING

from hardkeel.base.late import late

if TYPE_CHECKING:
    from scipy import optimize, sparse
else:
    optimize, sparse = late("scipy.optimize"), late("scipy.sparse")

__all__ = ["optimize", "sparse"]
