"""Camera view of a scene: far objects move less, near objects move more.

Something at depth d follows the camera by f = 1/(1 + d). With the picture's middle as home, where a camera changes nothing, it is seen by
T(home) · R(-rotation · f) · S(zoom^f) · T(-(home + (camera - home) · f)).
"""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.scene.model import Scene

Array = NDArray[np.float64]
_CHANNELS = ("x", "y", "rotation", "zoom")
_NEAREST, _LEAST_ZOOM = -0.9, 0.01


def through_camera(objects: Mapping[str, BakedObject], scene: Scene, old: Mapping[str, BakedObject]) -> dict[str, BakedObject]:
    """Return all objects of a scene transformed by the camera.

    Args:
        objects: in the scene, by id.
        scene: the scene.
        old: the objects of an earlier bake; unchanged arrays are taken from them.
    """
    if scene.camera is None:
        return {item: _in_scene(obj) if obj.lens is not None else obj for item, obj in objects.items()}
    lenses, result = _Lenses(objects, scene, old), dict[str, BakedObject]()
    for object_id, entry in objects.items():
        lens, was = lenses.of(object_id), old.get(object_id)
        if lens is entry.lens:
            result[object_id] = entry
        elif lens is None:
            result[object_id] = _in_scene(entry)
        elif was is not None and was.lens is lens and was.world is entry.world and was.bones is entry.bones:
            result[object_id] = replace(entry, view=was.view, lens=lens, seen_bones=was.seen_bones)
        else:
            bones = {name: matrix.multiply(lens, bone) for name, bone in entry.bones.items()}
            result[object_id] = replace(entry, view=matrix.multiply(lens, entry.world), lens=lens, seen_bones=bones)
    return result


def _in_scene(baked: BakedObject) -> BakedObject:
    """An object that no camera moves."""
    return replace(baked, view=baked.world, lens=None, seen_bones={})


class _Lenses:
    """How each object is seen, by how far away that is which it is attached to; the same array for all that are as far away."""

    def __init__(self, objects: Mapping[str, BakedObject], scene: Scene, old: Mapping[str, BakedObject]) -> None:
        assert scene.camera is not None
        self._objects, self._scene, self._old = objects, scene, old
        self._camera = objects[scene.camera.id]
        was = old.get(scene.camera.id)
        self._same_camera = was is not None and all(was.channels[name] is self._camera.channels[name] for name in _CHANNELS)
        self._by_depth: dict[int, Array | None] = {}
        self._roots: dict[str, str] = {}

    def of(self, object_id: str) -> Array | None:
        """The lens for an object; None for what is in the picture where it is in the scene."""
        root = self._root(object_id)
        obj = self._objects[root]
        if obj.source.pinned or obj is self._camera:
            return None
        depth, was = obj.channels["depth"], self._old.get(root)
        if id(depth) not in self._by_depth:
            stored = self._same_camera and was is not None and was.channels.get("depth") is depth and not was.source.pinned
            self._by_depth[id(depth)] = was.lens if stored and was is not None else lens(self._camera.channels, depth, self._scene.size)
        return self._by_depth[id(depth)]

    def _root(self, object_id: str) -> str:
        chain = [object_id]
        while chain[-1] not in self._roots and (parent := self._objects[chain[-1]].source.parent) is not None:
            chain.append(parent)
        root = self._roots.get(chain[-1], chain[-1])
        self._roots |= dict.fromkeys(chain, root)
        return root


def lens(camera: Mapping[str, Array], depth: Array, size: tuple[int, int]) -> Array | None:
    """From the scene to the picture for what is at a depth, (n, 6) or (1, 6); None where that changes nothing.

    Args:
        camera: its channels, (n,) or (1,).
        depth: (n,) or (1,).
        size: of the picture, px.
    """
    x, y, rotation, zoom = (camera[name] for name in _CHANNELS)
    f = 1 / (1 + np.maximum(depth, _NEAREST))
    home = (size[0] / 2, size[1] / 2)
    scale, turn = np.maximum(zoom, _LEAST_ZOOM) ** f, np.radians(-rotation * f)
    a, b = scale * np.cos(turn), scale * np.sin(turn)
    px, py = home[0] + (x - home[0]) * f, home[1] + (y - home[1]) * f
    result = np.stack(np.broadcast_arrays(a, b, -b, a, home[0] - (a * px - b * py), home[1] - (b * px + a * py)), axis=-1)
    result = shrunk(result)
    return None if len(result) == 1 and (result[0] == (1, 0, 0, 1, 0, 0)).all() else result
