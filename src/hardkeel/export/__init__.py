"""The record on paper and in open formats: PDF, CSV, ``build.json``.

Lives here: how a record is laid out.  Does not live here: what it says (voice) or draws (project).
Imports voice, project and below; reportlab is loaded when first needed.
"""
