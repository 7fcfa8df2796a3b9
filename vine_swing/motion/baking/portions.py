"""Rough estimate of how a bake's time is divided, for progress."""

from dataclasses import dataclass

from vine_swing.motion.basics.specs import OUTLINE
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

#: What the steps of a bake take, counted in objects with keyed channels alone: a rule, placing an object, an outline that is bent, the copies of a
#: parade, a scene inside.
_RULE, _PLACED, _BENT, _PARADE, _INSET = 3, 0.3, 10, 50, 50


@dataclass(frozen=True)
class Portions:
    """The share of a bake's time that each of its steps takes; 1 together."""

    channels: float
    placing: float
    outlines: float
    copies: float
    insets: float

    @classmethod
    def of(cls, scene: Scene) -> "Portions":
        """The portions of a scene, by what kinds of object are in it."""
        outlines = _BENT * sum(1 + len(scene.children.get(obj.id, ())) for obj in scene.objects if _bends(obj))
        copies = _PARADE * sum(obj.copying is not None for obj in scene.objects)
        insets = _INSET * len({obj.inset_of.scene for obj in scene.objects if obj.inset_of is not None})
        channels = 1 + sum(1 + _RULE * len(obj.rules) for obj in scene.objects)
        placing = _PLACED * len(scene.objects)
        whole = channels + placing + outlines + copies + insets
        return cls(channels / whole, placing / whole, outlines / whole, copies / whole, insets / whole)


def _bends(obj: SceneObject) -> bool:
    """Whether keys or rules of an object bend its outline or those of its children."""
    return bool(obj.rules_on(OUTLINE)) or obj.is_keyed(OUTLINE)
