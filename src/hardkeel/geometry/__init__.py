"""Rotations, hulls, the natural cubic and other plain geometry in millimetres.

Lives here: what would be true of any rigid thing.  Does not live here: readings, bodies, drawings.
Imports base only.
"""
