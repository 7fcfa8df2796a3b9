"""The scene: its model, which is the scene file format, who reads whom in it, and reading and checking it."""

from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.scene_file import dump, load, parse

__all__ = ["Dial", "Scene", "SceneObject", "dump", "load", "parse"]
