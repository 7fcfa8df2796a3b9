"""Vine Swing: motion that follows animation principles and rules.

>>> from vine_swing import bake, parse
>>> scene = parse('''{"format": "vine-swing-scene", "version": 1, "objects": [{"id": "m", "name": "Mango",
...   "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": {"keys": [
...     {"frame": 0, "value": 0}, {"frame": 24, "value": 240}]}}}]}''')
>>> float(bake(scene)["Mango", "x"][12])
120.0
"""

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from vine_swing.scripting import MotionError, Scene, bake, dump, edit, export, load, parse

__version__ = "0.1.0"
__all__ = ["MotionError", "Scene", "bake", "dump", "edit", "export", "load", "parse"]


def __getattr__(name: str) -> Any:
    """Names for scripts are looked up when they are first used: the command line, which lives in this package too, begins without them."""
    if name not in __all__:
        raise AttributeError(f"module 'vine_swing' has no attribute '{name}'")
    from vine_swing import scripting

    return getattr(scripting, name)
