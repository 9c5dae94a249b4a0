"""What lives here: what every frame of wood is cut, nested and bought by, whatever it becomes.

Flat pieces and sticks, cut by their neighbours; which of them are alike; jig, strips, sheets.  Fuselage and tail both hand it their
pieces; it knows of neither.  Imports geometry and base.
"""
