"""Differences from copy to copy of a parade: the channels that lists, overrules and formulas change, and all that is drawn by them."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import BakedInset, BakedParade, Element
from vine_swing.motion.baking.copy_inputs import CopyInputs
from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.baking.elements import drawn_in_element, placed_in_element, with_words
from vine_swing.motion.baking.insets import BakeInner, baked_insets
from vine_swing.motion.baking.looks import with_looks
from vine_swing.motion.baking.outlines import is_bent
from vine_swing.motion.baking.parade_tree import all_below, text_among
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.baking.reading import CopyView, Reader
from vine_swing.motion.baking.rows import read_setting, read_values
from vine_swing.motion.basics.rows import rows_of, shrunk
from vine_swing.motion.basics.specs import GEOMETRY, INNER, LOOK, OUTLINE
from vine_swing.motion.formula import Copy
from vine_swing.motion.outline.drawing import TextPart, drawing_of
from vine_swing.motion.parade.channels import NAMES
from vine_swing.motion.parade.frames import Layout
from vine_swing.motion.parade.model import TextPartName
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape

Array = NDArray[np.float64]
#: The copies of a parade: the parade, its channels at some frames (m,), these frames, and what reads the scene there.
CopiesOf = Callable[[SceneObject, Mapping[str, Array], Array, Reader], BakedParade]


@dataclass(frozen=True)
class CopyDifferences:
    """Works out what differs of the copies of one parade.

    scene, plan, effort: as of the bake.
    bake_inner, copies_of: bake the scenes inside insets, and the parades that are in this one.
    parts: the children of the parade, without what is in a parade among it.
    element: what all copies share.
    layout: at which frames copies read.
    length: the frames of the parade.
    inputs: what each copy is given.
    reader: reads the scene as all copies see it.
    """

    scene: Scene
    plan: Plan
    effort: Effort
    bake_inner: BakeInner
    copies_of: CopiesOf
    parts: list[SceneObject]
    element: Element
    layout: Layout
    length: int
    inputs: CopyInputs
    reader: Reader

    def of_each(self, shown_by: TextPartName | None) -> tuple[Element, ...]:
        """Differences of each copy; `shown_by` says which part of their text copies show, one each."""
        text = text_among(self.parts) if shown_by is not None else None
        result = []
        for k in range(self.inputs.count):
            shapes = {word: with_words(self.scene.by_id[word], words) for word, words in self.inputs.words[k].items()}
            if text is not None and shown_by is not None:
                message = shapes.get(text.id, text.drawn_shape)
                assert isinstance(message, TextShape)
                fields = message.__dict__ | {"said": message.texts}
                shapes[text.id] = TextPart.model_construct(**fields, by=shown_by, which=k)
            with self.effort.part(1 / self.inputs.count):
                result.append(self._of(k, {item: shape for item, shape in shapes.items() if shape is not None}))
        return tuple(result)

    def _of(self, k: int, shapes: Mapping[str, TextShape]) -> Element:
        """Differences of one copy, whose texts have the shapes given."""
        element, inputs = self.element, self.inputs
        rows = self.layout.rows(k, self.length)
        frames = self.layout.frames[rows]
        own: dict[str, dict[str, Array]] = {}
        words = {**self.reader.words, **inputs.words[k]}
        view = CopyView(
            self.reader, Copy(float(k), float(inputs.count), inputs.items[k]), inputs.varying | self.reader.varying, inputs.changes[k], words
        )
        mine = Reader(self.scene, frames, effort=self.effort, view=view)
        ids = {obj.id for obj in self.parts}
        for object_id, name in sorted(inputs.varying):
            if object_id in ids and name in element.objects[object_id].channels:
                change = inputs.changes[k].get((object_id, name))
                shared = element.objects[object_id].channels[name]
                if not inputs.lists_only:
                    own.setdefault(object_id, {})[name] = shrunk(read_values(mine, object_id, name))
                elif change is not None:
                    own.setdefault(object_id, {})[name] = shrunk(change(rows_of(shared, rows)[None])[0])
        moved = {item for item, names in own.items() if any(_places_it(self.scene.by_id[item], name) for name in names)}
        affected = [obj for obj in self.parts if self._is_below_any(obj, moved)]
        objects: dict[str, BakedObject] = {}
        if affected:
            gathered = {carrier: _gathered(element.objects[carrier], rows) for carrier in self._carriers(affected)}
            channels = {
                obj.id: {name: rows_of(array, rows) for name, array in element.objects[obj.id].channels.items()} | own.get(obj.id, {})
                for obj in affected
            }
            objects = placed_in_element(self.scene, affected, frames, channels, gathered)
            # Shared values are read where all copies read them.
            objects = {obj: replace(created, channels=element.objects[obj].channels | own.get(obj, {})) for obj, created in objects.items()}
        for entry in ((own.keys() | shapes.keys()) & element.objects.keys()) - objects.keys():
            objects[entry] = replace(element.objects[entry], channels=element.objects[entry].channels | own.get(entry, {}))
        for entry, shape in shapes.items():
            if entry in objects:
                objects[entry] = replace(objects[entry], source=objects[entry].source.copy_with(shape=shape))
        redrawn = {obj.id for obj in self.parts if self._is_redrawn(obj, own.get(obj.id, {}), obj.id in shapes)}
        for entry in redrawn - objects.keys():
            objects[entry] = element.objects[entry]
        plain = {item: replace(objects[item], bent=None, bent_from=None, shown_size=None) for item in redrawn}
        objects |= drawn_in_element(self.scene, plain, frames, mine, element.objects | objects)
        objects |= self._looks(objects, frames, rows, mine)
        insets = self._insets(own, rows)
        return Element(objects, self._parades(own, frames, rows, mine), insets)

    def _looks(self, objects: Mapping[str, BakedObject], frames: Array, rows: NDArray[np.intp], mine: Reader) -> dict[str, BakedObject]:
        """The objects whose looks differ in a copy: by their settings, or because they move otherwise in it."""
        looks = {obj: looked.look for obj, looked in self.element.objects.items() if looked.look}
        requested = {look for look in looks if any((look, name) in self.inputs.varying for name in (LOOK, *self.scene.by_id[look].moving_settings))}
        own = {item: objects[item] for item in looks.keys() & objects.keys() if objects[item].place is not self.element.objects[item].place}
        for entry in requested - own.keys():
            now = objects.get(entry, self.element.objects[entry])
            own[entry] = replace(now, place=rows_of(now.place, rows))
        return with_looks(own, frames, partial(read_setting, self.scene, mine), self.element.objects)

    def _is_redrawn(self, obj: SceneObject, own: Mapping[str, Array], reworded: bool) -> bool:
        """Whether an object is drawn otherwise in a copy, in which some of its channels are its own: bent by keys or rules, or another page."""
        if obj.pictured is not None:
            return any(name in own for name in ("width", "height", "page"))
        if not is_bent(self.scene, obj) or obj.drawn_shape is None:
            return False
        requested = any((upward.id, OUTLINE) in self.inputs.varying for upward in self.scene.upwards(obj.id))
        return requested or reworded or any(name in own for name in drawing_of(obj.drawn_shape).names)

    def _insets(self, own: Mapping[str, Mapping[str, Array]], rows: NDArray[np.intp]) -> dict[str, BakedInset]:
        """Of the insets that are in a parade, those that show other frames in a copy."""
        shown = {}
        for object_id, names in own.items():
            if INNER in names and self.element.objects[object_id].source.inset_of is not None:
                shared = self.element.objects[object_id]
                inner = np.broadcast_to(names[INNER], rows.shape) if len(names[INNER]) == 1 else names[INNER]
                shown[object_id] = replace(shared, channels=shared.channels | {INNER: inner})
        return baked_insets(shown, self.scene, self.bake_inner, {})

    def _parades(self, own: Mapping[str, Mapping[str, Array]], frames: Array, rows: NDArray[np.intp], mine: Reader) -> dict[str, BakedParade]:
        """Of the parades that are in this one, those in which a copy differs."""
        result = {}
        for obj in self.parts:
            if obj.copying is None:
                continue
            below = {obj.id, *all_below(self.scene, self.plan, obj)}
            if any(word in below for words in self.inputs.words for word in words) or any(item in below for item, _ in self.inputs.varying):
                values = {name: own.get(obj.id, {}).get(name, rows_of(self.element.objects[obj.id].channels[name], rows)) for name in NAMES}
                result[obj.id] = self.copies_of(obj, values, frames, mine)
        return result

    def _is_below_any(self, obj: SceneObject, ids: set[str]) -> bool:
        """Whether an object is one of some, or is attached to one."""
        return any(upward.id in ids for upward in self.scene.upwards(obj.id))

    def _carriers(self, affected: list[SceneObject]) -> list[str]:
        """What carries some objects and is not among them nor a parade."""
        ids = {obj.id for obj in affected}
        parents = dict.fromkeys(obj.parent for obj in affected if obj.parent is not None and obj.parent not in ids)
        return [parent for parent in parents if self.scene.by_id[parent].copying is None]


def _places_it(obj: SceneObject, name: str) -> bool:
    """Whether a channel says where an object is or how much of it can be seen, or bends its joints."""
    return name in GEOMETRY or name == "opacity" or (obj.skeleton is not None and "." in name)


def _gathered(baked: BakedObject, rows: NDArray[np.intp]) -> BakedObject:
    """What carries something, at the rows of a copy."""
    bones = {name: rows_of(bone, rows) for name, bone in baked.bones.items()}
    return replace(baked, world=rows_of(baked.world, rows), opacity=rows_of(baked.opacity, rows), bones=bones)
