"""Placing and drawing the children of a parade, in the parade's own space."""

from collections.abc import Iterable, Mapping

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.bent import with_outlines
from vine_swing.motion.baking.pictures import with_pictures
from vine_swing.motion.baking.placing import BakedObject, placed
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics import matrix
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import GroupObject, SceneObject
from vine_swing.motion.scene.shapes import SaidText, TextShape

Array = NDArray[np.float64]
_ONE = np.ones(1)
_NOWHERE = np.zeros((1, 2))
#: In place of a parade for its children: its places are those in the parade's own space.
_HERE = BakedObject(
    source=GroupObject(id="here", name="here", kind="group"),
    channels={},
    local=matrix.IDENTITY,
    world=matrix.IDENTITY,
    view=matrix.IDENTITY,
    fade=_ONE,
    opacity=_ONE,
    place=_NOWHERE,
    middle=_NOWHERE,
)


def placed_in_element(
    scene: Scene, objects: Iterable[SceneObject], frames: Array, channels: dict[str, dict[str, Array]], old: Mapping[str, BakedObject]
) -> dict[str, BakedObject]:
    """Some objects of an element in their places in the parade's space; see `placed`."""
    some = list(objects)
    here = {parent: _HERE for obj in some if (parent := obj.parent) is not None and scene.by_id[parent].copying is not None}
    created = placed(some, scene, frames, channels, {**old, **here})
    return {obj.id: created[obj.id] for obj in some}


def drawn_in_element(
    scene: Scene, objects: dict[str, BakedObject], frames: Array, reader: Reader, around: Mapping[str, BakedObject] | None = None
) -> dict[str, BakedObject]:
    """Return objects of an element with their keyed or bent outlines, and with picture sizes."""
    everything = {**(around or {}), **objects}
    return with_pictures(with_outlines(objects, scene, frames, reader.outlines, {}, everything), scene, {})


def with_words(obj: SceneObject, words: str) -> TextShape | None:
    """The shape of a text that says other words, whatever its keys say; None of what is no text."""
    shape = obj.drawn_shape
    return SaidText.of(shape.copy_with(text=words), [words]) if isinstance(shape, TextShape) else None
