"""What goes out on paper and in open formats: the record, formers at full size, lists, ``build.json``.

Lives here: how PDF, DXF and CSV are laid out.  Does not live here: what it says (voice) or draws (project).
Imports voice, project and below; reportlab and ezdxf are loaded when first needed.
"""
