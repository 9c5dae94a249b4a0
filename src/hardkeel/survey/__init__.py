"""The survey engine: readings on bodies in, what is known of their place out.

Lives here: marks, bodies, readings and their weights; the adjustment; who is suspected, what is
checked, what to correct, what to read next.  It serves every measured thing, not rigging alone.
Does not live here: words, files, drawings.  Imports geometry and base.
"""
