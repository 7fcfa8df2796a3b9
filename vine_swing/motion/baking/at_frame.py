"""A scene baked at a single frame, for edits.

During a drag or repeated key presses, edits read the current frame of successive versions of a scene: the
last bakes are kept, and the next one copies what has not changed.
"""

from collections import OrderedDict
from collections.abc import Hashable
from threading import Lock

import numpy as np

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.scene.model import Scene

#: How many are kept: one for each scene that somebody works on, and some frames.
_MOST = 8
_kept: OrderedDict[Hashable, Baked] = OrderedDict()
_lock = Lock()


def baked_at(scene: Scene, frame: float) -> Baked:
    """A scene baked at one frame: arrays of a single row. Raises as `bake`."""
    # Only versions of one scene share objects, which identify them.
    key = float(frame), tuple(scene.by_id)
    with _lock:
        previous = _kept.get(key)
    if previous is not None and previous.scene is scene:
        return previous
    result = bake(scene, np.array([float(frame)]), previous=previous)
    with _lock:
        _kept[key] = result
        _kept.move_to_end(key)
        while len(_kept) > _MOST:
            _kept.popitem(last=False)
    return result
