"""The command line: commands that need no display, one file each.

Lives here: the table of commands, their options and exit codes, and what each prints; what a desktop is told of the
program (entry, file type, man page, completion).  Does not live
here: anything the commands compute.  Imports storage, export, messages and below.
"""
