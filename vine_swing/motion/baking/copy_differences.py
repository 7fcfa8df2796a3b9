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
        found = []
        for k in range(self.inputs.count):
            shapes = {one: with_words(self.scene.by_id[one], words) for one, words in self.inputs.words[k].items()}
            if text is not None and shown_by is not None:
                said = shapes.get(text.id, text.drawn_shape)
                assert isinstance(said, TextShape)
                fields = said.__dict__ | {"said": said.texts}
                shapes[text.id] = TextPart.model_construct(**fields, by=shown_by, which=k)
            with self.effort.part(1 / self.inputs.count):
                found.append(self._of(k, {one: shape for one, shape in shapes.items() if shape is not None}))
        return tuple(found)

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
        ids = {thing.id for thing in self.parts}
        for object_id, name in sorted(inputs.varying):
            if object_id in ids and name in element.objects[object_id].channels:
                change = inputs.changes[k].get((object_id, name))
                shared = element.objects[object_id].channels[name]
                if not inputs.lists_only:
                    own.setdefault(object_id, {})[name] = shrunk(read_values(mine, object_id, name))
                elif change is not None:
                    own.setdefault(object_id, {})[name] = shrunk(change(rows_of(shared, rows)[None])[0])
        moved = {one for one, names in own.items() if any(_places_it(self.scene.by_id[one], name) for name in names)}
        affected = [thing for thing in self.parts if self._is_below_any(thing, moved)]
        objects: dict[str, BakedObject] = {}
        if affected:
            gathered = {one: _gathered(element.objects[one], rows) for one in self._carriers(affected)}
            channels = {
                thing.id: {name: rows_of(array, rows) for name, array in element.objects[thing.id].channels.items()} | own.get(thing.id, {})
                for thing in affected
            }
            objects = placed_in_element(self.scene, affected, frames, channels, gathered)
            # Shared values are read where all copies read them.
            objects = {one: replace(made, channels=element.objects[one].channels | own.get(one, {})) for one, made in objects.items()}
        for one in ((own.keys() | shapes.keys()) & element.objects.keys()) - objects.keys():
            objects[one] = replace(element.objects[one], channels=element.objects[one].channels | own.get(one, {}))
        for one, shape in shapes.items():
            if one in objects:
                objects[one] = replace(objects[one], source=objects[one].source.copy_with(shape=shape))
        redrawn = {thing.id for thing in self.parts if self._is_redrawn(thing, own.get(thing.id, {}), thing.id in shapes)}
        for one in redrawn - objects.keys():
            objects[one] = element.objects[one]
        plain = {one: replace(objects[one], bent=None, bent_from=None, shown_size=None) for one in redrawn}
        objects |= drawn_in_element(self.scene, plain, frames, mine, element.objects | objects)
        objects |= self._looks(objects, frames, rows, mine)
        insets = self._insets(own, rows)
        return Element(objects, self._parades(own, frames, rows, mine), insets)

    def _looks(self, objects: Mapping[str, BakedObject], frames: Array, rows: NDArray[np.intp], mine: Reader) -> dict[str, BakedObject]:
        """The objects whose looks differ in a copy: by their settings, or because they move otherwise in it."""
        looks = {one: looked.look for one, looked in self.element.objects.items() if looked.look}
        asked = {one for one in looks if any((one, name) in self.inputs.varying for name in (LOOK, *self.scene.by_id[one].moving_settings))}
        own = {one: objects[one] for one in looks.keys() & objects.keys() if objects[one].place is not self.element.objects[one].place}
        for one in asked - own.keys():
            now = objects.get(one, self.element.objects[one])
            own[one] = replace(now, place=rows_of(now.place, rows))
        return with_looks(own, frames, partial(read_setting, self.scene, mine), self.element.objects)

    def _is_redrawn(self, thing: SceneObject, own: Mapping[str, Array], reworded: bool) -> bool:
        """Whether an object is drawn otherwise in a copy, in which some of its channels are its own: bent by keys or rules, or another page."""
        if thing.pictured is not None:
            return any(name in own for name in ("width", "height", "page"))
        if not is_bent(self.scene, thing) or thing.drawn_shape is None:
            return False
        asked = any((one.id, OUTLINE) in self.inputs.varying for one in self.scene.upwards(thing.id))
        return asked or reworded or any(name in own for name in drawing_of(thing.drawn_shape).names)

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
        found = {}
        for thing in self.parts:
            if thing.copying is None:
                continue
            below = {thing.id, *all_below(self.scene, self.plan, thing)}
            if any(one in below for words in self.inputs.words for one in words) or any(one in below for one, _ in self.inputs.varying):
                values = {name: own.get(thing.id, {}).get(name, rows_of(self.element.objects[thing.id].channels[name], rows)) for name in NAMES}
                found[thing.id] = self.copies_of(thing, values, frames, mine)
        return found

    def _is_below_any(self, thing: SceneObject, ids: set[str]) -> bool:
        """Whether an object is one of some, or is attached to one."""
        return any(one.id in ids for one in self.scene.upwards(thing.id))

    def _carriers(self, affected: list[SceneObject]) -> list[str]:
        """What carries some objects and is not among them nor a parade."""
        ids = {thing.id for thing in affected}
        parents = dict.fromkeys(thing.parent for thing in affected if thing.parent is not None and thing.parent not in ids)
        return [one for one in parents if self.scene.by_id[one].copying is None]


def _places_it(thing: SceneObject, name: str) -> bool:
    """Whether a channel says where an object is or how much of it can be seen, or bends its joints."""
    return name in GEOMETRY or name == "opacity" or (thing.skeleton is not None and "." in name)


def _gathered(one: BakedObject, rows: NDArray[np.intp]) -> BakedObject:
    """What carries something, at the rows of a copy."""
    bones = {name: rows_of(bone, rows) for name, bone in one.bones.items()}
    return replace(one, world=rows_of(one.world, rows), opacity=rows_of(one.opacity, rows), bones=bones)
