"""What follows from the airframe's figures: shapes, bodies and marks of the survey, parts and their weights.

Lives here: kinds of fuselage and starters, new builds from a dozen figures, tolerances by class, and
how survey, masses and ledger follow a change.  Does not live here: edits that a builder asks for, words.
Imports build and below.
"""
