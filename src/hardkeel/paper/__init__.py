"""The paper: is a print right, how does a scan lie, and what was picked off it.

Lives here: the print audit; what makes a sheet's lines plain to see; calibration of scans and photos, lens and all; where a
click settles; following a line's ink; what two sheets both show; picked lines and outlines; which sheets were printed, and what of them is out of date.
Does not live here: images themselves (ui shows them), formers (project makes them of picks), words.
Imports geometry and base.
"""
