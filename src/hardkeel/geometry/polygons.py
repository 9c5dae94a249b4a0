"""Polygons by shapely, which is read when one is first wanted; every room that cuts takes it from here."""

from typing import TYPE_CHECKING

from hardkeel.base.late import late

if TYPE_CHECKING:
    import shapely
    from shapely import Polygon, affinity
    from shapely.geometry.base import BaseGeometry
else:
    shapely, affinity = late("shapely"), late("shapely.affinity")
    Polygon = BaseGeometry = object  # for annotations alone: shapely.Polygon is the thing itself

__all__ = ["BaseGeometry", "Polygon", "affinity", "shapely"]
