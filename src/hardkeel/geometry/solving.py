"""Solvers by scipy, which is read when one is first wanted; every room that solves takes it from here."""

from typing import TYPE_CHECKING

from hardkeel.base.late import late

if TYPE_CHECKING:
    from scipy import interpolate, ndimage, optimize, sparse
    from scipy.sparse import csgraph
else:
    interpolate, ndimage = late("scipy.interpolate"), late("scipy.ndimage")
    optimize, sparse = late("scipy.optimize"), late("scipy.sparse")
    csgraph = late("scipy.sparse.csgraph")

__all__ = ["csgraph", "interpolate", "ndimage", "optimize", "sparse"]
