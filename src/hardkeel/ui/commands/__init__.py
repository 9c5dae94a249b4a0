"""The document with its undo stack, and its life on disk."""
