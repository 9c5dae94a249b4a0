"""The builder's log: dated entries, sessions and their hours.

Lives here: log values and pure functions on them.  Does not live here: what a reading is, or words
beyond what an entry holds.  Imports base only (and pydantic through its own values).
"""
