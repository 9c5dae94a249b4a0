"""Pictures of a model: where to take them from, what they would be worth, finding marks in them, and drawing one.

What a sighting does in the adjustment is the survey's; no image library is needed here, pictures are plain arrays.
"""
