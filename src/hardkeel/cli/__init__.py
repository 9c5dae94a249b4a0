"""The command line: commands that need no display.

Lives here: arguments, tables and exit codes.  Does not live here: anything the commands compute.
Imports storage, export, voice and below.
"""
