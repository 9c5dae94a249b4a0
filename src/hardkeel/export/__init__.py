"""What goes out on paper and in open formats: the record, templates at full size, lists, ``build.json``.

Lives here: how PDF, DXF, SVG and CSV are laid out.  Does not live here: what it says (messages) or draws (picture).
Imports storage and below; reportlab and ezdxf are loaded when first needed.
"""
