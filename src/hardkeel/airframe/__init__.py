"""What follows from the airframe's figures: shapes, bodies and marks of the survey, parts and their weights.

Lives here: kinds of fuselage and starters, new builds from a dozen figures, how a tail can be arranged, where surfaces
rest and are held and what props them, where printed targets are stuck, how a pack goes through its hatch, tolerances
by class, the order of work (`orders`), and how survey, masses and ledger follow a change.  Does not live here: edits that a builder asks for, words.
Imports project and below.
"""
