"""Questions that need an answer before going on, and errors; few, on purpose."""
