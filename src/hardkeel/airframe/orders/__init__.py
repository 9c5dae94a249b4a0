"""Orders of work: which steps an airframe asks for, what after what; ids and figures, no words.

Lives here: what is planned of a fuselage, a tail, a rigging, and all of it at once.  Not here: what a step says
(`messages.steps`, by its key), when it is done (`schedule`).  Imports what follows from the airframe's figures.
"""
