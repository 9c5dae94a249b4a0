"""What is not the builder's own model: the hidden airframe that simulated gauges measure.

Lives here: crooked copies of a survey.  Does not live here: the gauges' protocol.  Imports project and below.
"""
