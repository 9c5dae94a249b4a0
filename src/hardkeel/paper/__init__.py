"""The paper: is a print right, how does a scan lie, and what was picked off it.

Lives here: the print audit, calibration of scans and photos, picked lines.
Does not live here: images themselves (ui shows them), formers (project makes them of picks), words.
Imports geometry and base.
"""
