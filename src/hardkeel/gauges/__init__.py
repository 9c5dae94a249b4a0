"""Instruments: the text line protocol, the link to a gauge, and simulated stand-ins.

Lives here: what talks to a serial port, whether a gauge is held still, and the hidden crooked airframe that the stand-ins measure.
Does not live here: windows; a link reports to a callback and knows no Qt.
Imports survey and below.  The protocol is described in docs/gauges.md.
"""
