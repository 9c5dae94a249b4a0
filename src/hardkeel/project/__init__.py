"""The frozen build: everything that a file holds of one model aircraft, and what makes it sound.

Lives here: the aggregate of the trades' values and the check of what no single trade can know.  Does not
live here: anything that follows from it, edits, disk.  Imports the trades and below.
"""
