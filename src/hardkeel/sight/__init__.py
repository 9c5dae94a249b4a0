"""Pictures of a model and of its parts, so that an eye's sight becomes figures.

Lives here: the places to take a photo from and what one from there would be worth, what to click next, finding pin
heads and corners in it, coded labels, what was touched between two of them, how sharp one is, photos as a camera wrote
them, the stand-in camera that draws one, a webcam; which label sits on which mark where nobody said; the mat that a cut part is checked on, and where its wood ends.
Does not live here: what a sighting does in the adjustment (survey), words, files.  Imports survey, joinery (a part as
it is drawn), geometry and base; pictures are plain arrays; `pictures` knows the image library, `opencv` the one that
finds labels.
"""
