"""The window: assembles header, rail, notice and stages, and carries out what the menu asks.

Lives here: everything of the window that is no stage.  Imports the stages and below.
"""
