"""Parts and what they are made of: the ledger, the three lists, woods, swaps and laminates.

Lives here: part values and states, comparing lists, handed pairs, material figures, bending
stiffness.  Does not live here: which parts an airframe has (project), words, files.
Imports geometry and base.
"""
