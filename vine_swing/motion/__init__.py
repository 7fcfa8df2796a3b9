"""The motion core: pure functions from a scene to arrays. No web, no database, no clock, no random without a seed.

>>> from vine_swing.motion import bake, parse
>>> scene = parse('''{"format": "vine-swing-scene", "version": 1, "objects": [{"id": "m", "name": "Mango",
...   "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": {"keys": [
...     {"frame": 0, "value": 0}, {"frame": 24, "value": 240}]}}}]}''')
>>> float(bake(scene)["Mango", "x"][12])
120.0
"""

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics.errors import EditError, MotionError, NoSuchThing, SceneFileError
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import dump, load, parse

__all__ = [
    "Baked",
    "BakedObject",
    "EditError",
    "MotionError",
    "NoSuchThing",
    "Scene",
    "SceneFileError",
    "bake",
    "dump",
    "load",
    "parse",
]
