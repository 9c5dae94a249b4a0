"""One build as one frozen value, and the pure edits that turn it into the next.

Lives here: the aggregate, edits, new builds from a dozen figures, and the picture of the airframe as
plain strokes.  Does not live here: disk, words, windows.  Imports the rooms below.
"""
