"""The window: the only room that knows Qt.

Storeys, top first: app · main_window · pages · dialogs · commands, models, jobs · widgets · settings,
theme.  The interface shows and asks; every formula lives below, every sentence in voice.
"""
