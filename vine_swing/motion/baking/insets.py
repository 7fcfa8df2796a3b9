"""Insets: which frames of the scene inside are shown, and the bake of that scene at just these frames.

Insets that show the same scene beside each other share one bake of it, at all the frames that any of them shows: each reads its rows. Where these
are whole frames of the scene, it is baked at all its frames, so that shifting an inset in time bakes nothing again.
"""

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked, BakedInset
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics.specs import INNER
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.timeline import InnerScene

Array = NDArray[np.float64]
#: Bakes a scene at some frames (n,), with what is known of it from before.
BakeInner = Callable[[Scene, Array, Baked | None], Baked]


def baked_insets(objects: Mapping[str, BakedObject], scene: Scene, bake: BakeInner, was: Mapping[str, BakedInset]) -> dict[str, BakedInset]:
    """Bake the inner scenes of those objects that are insets, by object id.

    Args:
        objects: baked objects that are painted in one space.
        scene: the scene they are of.
        bake: bakes what is inside.
        was: the same of an earlier bake; unchanged arrays are taken from it.
    """
    uses: dict[str, list[BakedObject]] = {}
    for obj in objects.values():
        if obj.source.inset_of is not None:
            uses.setdefault(obj.source.inset_of.scene, []).append(obj)
    return {object_id: item for inset_id, some in uses.items() for object_id, item in _of_one_scene(inset_id, some, scene, bake, was).items()}


def _of_one_scene(inset_id: str, uses: list[BakedObject], scene: Scene, bake: BakeInner, was: Mapping[str, BakedInset]) -> dict[str, BakedInset]:
    """The insets that show one scene."""
    inside = scene.inner_as_scene(inset_id)
    shown = [shown_frames(use.channels[INNER], inside.length, use.source.inset_of.past) for use in uses if use.source.inset_of is not None]
    grid = _grid([frames for frames, _ in shown], inside.length)
    made_from = scene.reached((inset_id,))
    owner = uses[0].source.id
    cached = next((old for use in uses if (old := was.get(use.source.id)) is not None and old.made_from[0].id == inset_id), None)
    if cached is not None and np.array_equal(cached.inner.frames, grid) and same_scenes(cached.made_from, made_from):
        inner = cached.inner
    else:
        inner = bake(inside, grid, cached.inner if cached is not None else None)
    size = np.array([inside.size], float)
    corner = np.array([[1.0, 0.0, 0.0, 1.0, -size[0, 0] / 2, -size[0, 1] / 2]])
    result = {}
    for item, (frames, there) in zip(uses, shown, strict=True):
        old = was.get(item.source.id)
        same = old is not None and _equal(old, frames, there) and np.array_equal(old.inner.frames, grid) and np.array_equal(old.size, size)
        if old is not None and same:
            stored = old.inner is inner and old.source is item.source and old.owner == owner
            result[item.source.id] = old if stored else replace(old, source=item.source, inner=inner, owner=owner, made_from=made_from)
        else:
            rows = np.searchsorted(grid, frames).astype(float)
            result[item.source.id] = BakedInset(item.source, inner, owner, frames, rows, there, size, corner, made_from)
    return result


def shown_frames(inner: Array, length: int, past: Literal["hold", "loop", "ping-pong", "gone"]) -> tuple[Array, Array | None]:
    """Which frames of a scene inside are shown when the channel `inner` asks for some (n,), and where nothing is (1 or 0, (n,)); None for nowhere.

    The last frame lasts until the next would begin, its sub-frames too: a scene of 24 frames is over at 24. To and fro, neither end is shown twice.
    """
    match past:
        case "loop":
            return np.mod(inner, length), None
        case "ping-pong":
            last = float(length - 1)
            return (last - np.abs(np.mod(inner, 2 * last) - last) if last else np.zeros_like(inner)), None
        case "hold":
            return np.clip(inner, 0.0, length - 1), None
        case "gone":
            there = ((inner >= 0) & (inner < length)).astype(float)
            return np.clip(inner, 0.0, np.nextafter(length, 0)), None if there.all() else there


def _grid(shown: list[Array], length: int) -> Array:
    """The frames at which a scene inside is baked, in order."""
    frames = np.unique(np.concatenate(shown))
    whole = len(frames) and (frames == np.floor(frames)).all() and frames[0] >= 0 and frames[-1] < length
    return np.arange(length, dtype=float) if whole else frames


def same_scenes(some: tuple[InnerScene, ...], others: tuple[InnerScene, ...]) -> bool:
    """Whether inner scenes are the very same, one by one."""
    return len(some) == len(others) and all(item is other for item, other in zip(some, others, strict=True))


def _equal(old: BakedInset, frames: Array, there: Array | None) -> bool:
    if not np.array_equal(old.frames, frames) or (old.there is None) != (there is None):
        return False
    return old.there is None or there is None or np.array_equal(old.there, there)
