"""What lives here: tail surfaces, their outlines, sections, ribs, sticks and stiffness, foam, hinges, slots, flatness.

Axes of a surface lying flat: x aft from its root leading edge, y out from the middle, z up from its
chord plane, mm; a fin lies on its side, y up.
Imports joinery, survey, geometry and base; what of the rest of a build it needs it is handed.
"""
