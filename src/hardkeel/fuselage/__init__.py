"""The fuselage as drawn: formers at stations, the loft through them, and what is cut from it.

Lives here: the fuselage's values, the loft, the smooth-line check, former shapes and templates, how sides and
longerons bend, the sticks of open sides, what to cut and what to buy.
Does not live here: wings, surveys, words, files.  Imports geometry and base.
"""
