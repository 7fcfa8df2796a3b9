"""Children of a parade, and what else of its scene it follows."""

from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.motion.scene.timeline import InnerScene


def parts_of_element(scene: Scene, parade: SceneObject) -> list[SceneObject]:
    """Children of a parade, however deep, without what is in a parade among it; in drawing order."""
    result: set[str] = set()
    waiting = [parade.id]
    while waiting:
        for entry in scene.children.get(waiting.pop(), ()):
            result.add(entry)
            if scene.by_id[entry].copying is None:
                waiting.append(entry)
    return [scene.by_id[item] for item in sorted(result, key=scene.places.__getitem__)]


def all_below(scene: Scene, plan: Plan, parade: SceneObject) -> list[str]:
    """The ids of all descendants of a parade, however deep, in drawing order."""
    return sorted(plan.below({parade.id}) - {parade.id}, key=scene.places.__getitem__)


def inner_scenes_of(scene: Scene, objects: list[str]) -> tuple[InnerScene, ...]:
    """The inner scenes that some objects show, however deep, each once."""
    return scene.reached(use.scene for obj in objects if (use := scene.by_id[obj].inset_of) is not None)


def guides_of(scene: Scene, obj: SceneObject) -> list[str]:
    """Return the guide of a parade, and the parents of both: their positions determine the guide's."""
    parade = obj.copying
    if parade is None or parade.guide is None or parade.guide not in scene.by_id:
        return []
    return [upward.id for start in (parade.guide, obj.id) for upward in scene.upwards(start)]


def is_within_parade(scene: Scene, obj: SceneObject) -> bool:
    """Whether an object is attached to a parade, however deep."""
    return any(upward.copying is not None for upward in scene.upwards(obj.parent))


def text_among(parts: list[SceneObject]) -> SceneObject | None:
    """The first text among some objects."""
    return next((obj for obj in parts if isinstance(obj.drawn_shape, TextShape)), None)
