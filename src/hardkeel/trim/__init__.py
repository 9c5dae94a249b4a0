"""What lives here: what an error does in the air, by the simplest model that a model aircraft bears.

Wing and stabilizer as lifting lines, a fin with its root as a mirror; the fuselage by a rule for what it takes of
the static margin.  Lengths mm, areas mm², lift
slopes per radian, angles degrees at every public function.  Imports base; what of a build it needs it is handed.
"""
