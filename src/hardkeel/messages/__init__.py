"""What the application says: names, verdicts, advice and cautions, in the builder's units.

Lives here: every sentence that the window, the command line and the record share, and what stands
on the pages (one file a stage).  Does not live here: numbers' origin (the core gives them) or where a sentence stands on a page.
Imports project and what lies below it.
"""
