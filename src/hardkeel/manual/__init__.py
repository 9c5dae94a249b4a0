"""The manual lives here: its chapters as they are written in ``docs/manual``, what stands where, and the search.

Imports nothing but the package's own files.
"""
