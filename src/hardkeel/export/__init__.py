"""What goes out on paper and in open formats: the record, templates at full size, lists, ``build.json``.

Lives here: how PDF, DXF, SVG and CSV are laid out, the drawings to build over, whose words are half of them, what a cutter is given, and all that is printed, page by page.  Does not
live here: what it says (messages), pictures for the screen (picture).
Imports storage and below; reportlab and ezdxf are loaded when first needed.
"""
