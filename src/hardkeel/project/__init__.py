"""One build as one frozen value, and the pure edits that turn it into the next.

Lives here: the aggregate, edits, new builds from a dozen figures, the survey and the parts that
follow from the airframe, and its picture as plain strokes.  Does not live here: disk, words, windows.  Imports the rooms below.
"""
