"""A build as plain strokes, for screen and paper.

Lives here: the three views of truing and the drawing board's lines.  Does not live here: pens, colours,
widgets.  Imports airframe and below.
"""
