"""The window: the only room that knows Qt.

Storeys, top first: app · shell · stages · document, jobs · kit · settings, screen · theme.  Stages
never import each other.  The interface shows and asks; every formula lives below, every sentence in
messages.
"""
