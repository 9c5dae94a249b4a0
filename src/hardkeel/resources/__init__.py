"""Fonts, icons, style sheet, a sound and demo data: files only, no code."""
