"""Files: the format and its migrations, atomic saving, versions, the journal, the lock, scans, outlines.

Lives here: everything that touches the disk for a build, what is read into one (DXF) included, and the book of what was
practised, which belongs to no build.  Does not live here: reports and exports.  Imports practice and below.
"""
