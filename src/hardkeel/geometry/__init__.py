"""Rotations, hulls, the natural cubic and other plain geometry in millimetres.

Lives here: what would be true of any rigid thing, and the doors to shapely (polygons) and scipy (solving).  Does not live here: readings, bodies, drawings.
Imports base only.
"""
