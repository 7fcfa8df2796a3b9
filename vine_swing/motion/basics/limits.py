"""Limits on the cost of a scene; limits on single values are beside the values (values.py, model.py)."""

#: Numbers that one bake may compute: about fifteen seconds' worth on one core.
MOST_SAMPLES = 4e8
#: Numbers that the motion of one scene may keep: about half a gigabyte.
MOST_KEPT = 60_000_000
#: The longest stretch of time, in frames, whose motion an edit turns into other keys: that of the longest scene.
MOST_TRACED = 20_000
#: Where a baked value or an entry of a matrix is cut off: far beyond any picture, and far from where sums and products of doubles end.
FARTHEST = 1e15
#: Points that the outlines of one object may have together, over all frames.
MOST_POINTS = 8_000_000
#: Copies that parades within parades may come to: more could not be painted in time.
MOST_COPIES = 20_000
