"""Fonts, icons, style sheet and demo data: files only, no code."""
