"""Pieces that take plain values and know no document: vials, drawings, fields."""
