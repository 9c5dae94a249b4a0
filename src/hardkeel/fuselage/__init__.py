"""The fuselage as drawn: formers at stations, the loft through them, and what is cut from it.

Lives here: the fuselage's values, the loft, the smooth-line check, former shapes and templates.
Does not live here: wings, surveys, words, files.  Imports geometry and base.
"""
