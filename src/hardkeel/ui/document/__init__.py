"""The document: one build, one undo stack, its life on disk, and when pages show it anew."""
