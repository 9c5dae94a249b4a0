"""What two stages need: cards, fields, tables, vials, views; fed with plain values, knowing no document."""
