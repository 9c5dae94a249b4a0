"""Benches that several stages have: the page of a stage, sticks to cut, sheets, the order of work."""
