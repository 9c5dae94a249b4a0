"""Files: the format and its migrations, atomic saving, versions, the journal and the lock.

Lives here: everything that touches the disk for a build.  Does not live here: reports and exports.
Imports project and below.
"""
