"""Sample builds made by code, through the same functions that a builder's hands would use.

Everything in them is invented: the design, the club and the builder exist nowhere.
Imports storage and below, and the stand-ins' hidden airframe.
"""
