"""A build as plain strokes, for screen and paper.

Lives here: the three views of truing, the drawing board's lines, the frame in its wood, on its
board and out of square.  Does not live here: pens, colours,
widgets.  Imports airframe and below.
"""
