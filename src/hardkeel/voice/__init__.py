"""What the application says: names, verdicts, advice and cautions, in the builder's units.

Lives here: every sentence that the window, the command line and the record share.  Does not live
here: numbers' origin (the core gives them) or where a sentence stands on a page.
Imports project and below.
"""
