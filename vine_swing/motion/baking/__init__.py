"""From a scene to arrays: the plan of what is computed when, batches of alike channels, reads of what is already known, and where objects are."""

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject

__all__ = ["Baked", "BakedObject", "bake"]
