"""The fuselage as drawn: formers at stations, the loft through them, what is cut from it, how square it stands.

Lives here: the fuselage's values, the loft, section shapes and planks, the thrust line, what formers are called, the smooth-line check, former shapes and templates, how sides and
longerons bend and are pulled in, its members and what passes what, its flat pieces, the sticks of open sides,
the cut list; the formers as bodies of the survey's engine.
Does not live here: wings, the survey's adjustment, nesting and buying, words, files.  Imports joinery, survey, geometry and base.
"""
