"""What lives here: tail surfaces and their outlines (a sheet's, too), sections, ribs, sticks, stiffness, foam, hinges, slots.

How flat one lies as well.  Axes of a surface lying flat: x aft from its root leading edge, y out from the middle, z up from its
chord plane, mm; a fin lies on its side, y up.
Imports joinery, survey, geometry and base; what of the rest of a build it needs it is handed.
"""
