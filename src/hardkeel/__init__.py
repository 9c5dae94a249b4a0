"""Hard Keel: true up a model aircraft from tape, level and incidence readings."""

__version__ = "0.1.0"
