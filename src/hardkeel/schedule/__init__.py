"""Steps of work: what after what, what must not be done yet, the plan over evenings, timers, the builder's pace.

Lives here: steps, evenings and timers as the file holds them, their order, the plan and its proof, tonight.  Does not
live here: which steps a fuselage asks for and their words (messages), glue itself (glue).  Imports base.
"""
