"""Steps of work: what after what, what is open, what must not be done yet and why.

Lives here: the step as the file holds it, its order.  Does not live here: which steps a fuselage asks for and
their words (voice), the plan over evenings (to come).  Imports base.
"""
