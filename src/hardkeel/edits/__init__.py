"""Pure edits, Build to Build: one file for what is worked on.

Lives here: everything that a builder can do to a build, refused with a sentence where it can't be done.
Does not live here: undo, windows, disk.  Imports airframe and below.
"""
