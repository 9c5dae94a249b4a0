"""Errors and units: the ground floor.

Lives here: the error tree, lengths and angles as builders write them, the value that every part of
a build is made of, and how a heavy library is read late.
Does not live here: anything that knows what an airframe is.
Imports nothing of the project.
"""
