"""Masses and balance: where the model balances, where the pack must sit, what the nose wants.

Lives here: wings as far as balance needs them, masses, the pack and its hatches.
Does not live here: what parts weigh by their size (parts).  Imports geometry and base.
"""
