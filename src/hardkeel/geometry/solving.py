"""Solvers by scipy, which is read when one is first wanted; every room that solves takes it from here."""

from typing import TYPE_CHECKING

from hardkeel.base.late import late

if TYPE_CHECKING:
    from scipy import optimize, signal, sparse
else:
    optimize, sparse, signal = late("scipy.optimize"), late("scipy.sparse"), late("scipy.signal")

__all__ = ["optimize", "signal", "sparse"]
