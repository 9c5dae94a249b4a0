"""What is not the builder's own model: the hidden airframe that simulated gauges measure, and exercises on such ones.

Lives here: crooked copies of a survey and photographs of them, stories of what may be wrong, exercises by seed with
their truth sealed, courses and learners that lack their ideas, ways to go about them and how they went; a kit's steps
to be put in order; pieces of work on the board (`pieces/`, a module a kind); a true airframe to turn by hand.  Does not live here: the gauges' protocol, the models
that exercises are made of (demo), words (messages).  Imports airframe and below.
"""
