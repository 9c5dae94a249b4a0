"""The fuselage as drawn: formers at stations, the loft through them, what is cut from it, how square it stands.

Lives here: the fuselage's values, the loft, the smooth-line check, former shapes and templates, how sides and
longerons bend and are pulled in, its members and what passes what, flat pieces and their nesting, the sticks of
open sides, what to cut and what to buy; the formers as bodies of the survey's engine.
Does not live here: wings, the engine itself, words, files.  Imports survey, geometry and base.
"""
