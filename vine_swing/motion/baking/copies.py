"""The copies of parades: the children of one, computed at the frames its copies read, and where each copy stands.

All copies share the arrays of what is the same for them; `frames.py` of the parade room lays their frames out so that each reads a run of rows.
What lists or formulas (`n`, `count`, `item`) make different is computed for each copy, and only that.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import BakedParade, Element
from vine_swing.motion.baking.bent_copies import bends_copies, with_bent_copies
from vine_swing.motion.baking.copy_differences import CopyDifferences
from vine_swing.motion.baking.copy_inputs import inputs_of_copies
from vine_swing.motion.baking.effort import Effort, TooMuchWork
from vine_swing.motion.baking.elements import drawn_in_element, placed_in_element, with_words
from vine_swing.motion.baking.insets import BakeInner, baked_insets, same_scenes
from vine_swing.motion.baking.looks import with_looks
from vine_swing.motion.baking.parade_tree import all_below, guides_of, inner_scenes_of, is_within_parade, parts_of_element, text_among
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.baking.rows import read_setting, read_values
from vine_swing.motion.baking.surroundings import measured, surroundings_of
from vine_swing.motion.basics.limits import MOST_COPIES
from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.basics.specs import limited
from vine_swing.motion.parade.arranging import Places, Surroundings, arranged
from vine_swing.motion.parade.channels import NAMES, PARADE_CHANNELS
from vine_swing.motion.parade.frames import Layout, laid_out
from vine_swing.motion.parade.model import MAX_COPIES, Parade
from vine_swing.motion.parade.ranks import ranks
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]
#: Numbers that represent one copy at one frame when effort is counted: its matrix, its opacity, and what is sent of them.
_A_COPY = 20.0
#: About how much of the time of a parade goes into what all its copies share.
_SHARED = 0.3


@dataclass
class CopyBaker:
    """Bakes the parades of one scene.

    scene, plan: what is baked.
    main: the objects of the scene's own bake.
    before: the same of an earlier bake; unchanged arrays are taken from it.
    inner: bakes the scenes inside insets.
    """

    scene: Scene
    plan: Plan
    main: Mapping[str, BakedObject]
    before: Mapping[str, BakedObject]
    effort: Effort
    inner: BakeInner

    def top(self, reader: Reader, grid: Array, cached: Mapping[str, BakedParade]) -> dict[str, BakedParade]:
        """The parades that are in no other, by id; from those `cached` where nothing they are made from has changed."""
        result = {}
        top = [obj for obj in self.scene.objects if obj.copying is not None and not is_within_parade(self.scene, obj)]
        for obj in top:
            values = {name: self.main[obj.id].channels[name] for name in NAMES}
            with self.effort.part(1 / len(top)):
                result[obj.id] = self.copies_of(obj, values, grid, reader, cached.get(obj.id))
        return result

    def copies_of(self, obj: SceneObject, values: Mapping[str, Array], grid: Array, reader: Reader, was: BakedParade | None) -> BakedParade:
        """Bake the copies of one parade at some frames.

        Args:
            obj: the parade.
            values: its channels at these frames.
            grid: the frames, (m,).
            reader: reads the scene there, as one copy of the parade sees it that this one is in.
            was: the same parade in an earlier bake.
        """
        parade = obj.copying
        assert parade is not None
        parts, below = parts_of_element(self.scene, obj), all_below(self.scene, self.plan, obj)
        above = [upward.id for upward in self.scene.upwards(obj.parent)] if bends_copies(self.scene, obj) else []
        made_from = {item: self.main[item] for item in (obj.id, *below, *guides_of(self.scene, obj), *above)}
        same_frames = was is not None and np.array_equal(was.grid, grid)
        shown = inner_scenes_of(self.scene, below)
        same_below = was is not None and same_scenes(was.shown_from, shown) and was.hanging == below
        same_things = was is not None and same_frames and same_below and reader.is_plain and made_from.keys() == was.made_from.keys()
        if was is not None and same_things and all(was.made_from[item] is now for item, now in made_from.items()):
            return was
        same_parts = was is not None and same_below and all(_same_made(was.made_from.get(item), self.main[item]) for item in below)
        around = self._around(obj, parts, values, grid, reader, was if same_parts else None)
        counts = limited(PARADE_CHANNELS["count"], values["count"])
        if around.points is not None:
            counts = np.array([float(min(around.points.shape[-2], MAX_COPIES))])
        most = int(counts.max(initial=0))
        self.effort.spend(most * len(grid) * _A_COPY)
        places = _kept(arranged(parade, values, counts, most, around), was)
        ranked = ranks(parade.order, counts, most, parade.seed)
        lags = values["delay"][None, :] * ranked
        layout = laid_out(grid, lags)
        if not len(layout.frames):
            # Nothing is shown, so nothing is computed.
            element = Element({}, {})
        elif was is not None and same_parts and np.array_equal(layout.frames, was.layout.frames) and reader.is_plain:
            element = was.element
        else:
            with self.effort.part(_SHARED):
                element = self._element(parts, layout.frames, Reader(self.scene, layout.frames, effort=self.effort, view=reader.view), was)
        if most * element.painted > MOST_COPIES:
            copies = most * element.painted
            raise TooMuchWork(
                f"'{obj.name}' would show {copies} copies; at most {MOST_COPIES} are painted; reduce the number of copies, or of copies inside it"
            )
        with self.effort.part(1 - _SHARED):
            own = () if not element.objects else self._own(obj, parts, element, layout, len(grid), most, reader, was if same_parts else None)
        if element.objects and most and bends_copies(self.scene, obj):
            own = with_bent_copies(self.scene, obj, element, own, layout, places, grid, reader)
        return BakedParade(obj, parade, grid, layout, places, _order(parade, places, was), element, own, around, made_from, shown, below)

    def _element(self, parts: list[SceneObject], frames: Array, reader: Reader, was: BakedParade | None) -> Element:
        """What all copies share, at some frames."""
        old = was.element.objects if was is not None and np.array_equal(frames, was.layout.frames) else {}
        channels = {obj.id: self._channels(obj, reader, old.get(obj.id)) for obj in parts}
        objects = placed_in_element(self.scene, parts, frames, channels, old)
        for object_id in objects.keys() & reader.words.keys():
            shape = with_words(self.scene.by_id[object_id], reader.words[object_id])
            if shape is not None:
                objects[object_id] = replace(objects[object_id], source=objects[object_id].source.copy_with(shape=shape))
        objects = with_looks(drawn_in_element(self.scene, objects, frames, reader), frames, partial(read_setting, self.scene, reader), old)
        cached = was.element if was is not None else Element({}, {})
        insets = baked_insets(objects, self.scene, self.inner, cached.insets)
        return Element(objects, self._inner(objects, frames, reader, cached.parades), insets)

    def _inner(self, objects: Mapping[str, BakedObject], frames: Array, reader: Reader, was: Mapping[str, BakedParade]) -> dict[str, BakedParade]:
        return {
            object_id: self.copies_of(obj.source, {name: obj.channels[name] for name in NAMES}, frames, reader, was.get(object_id))
            for object_id, obj in objects.items()
            if obj.source.copying is not None
        }

    def _channels(self, obj: SceneObject, reader: Reader, old: BakedObject | None) -> dict[str, Array]:
        """The channels of an object at the reader's grid. What never changes keeps the array of the scene's own bake; so does, of `old`, what is
        made from the same."""
        now, before = self.main[obj.id].channels, self.before[obj.id].channels if obj.id in self.before else {}
        result = {}
        for name, spec in obj.specs.items():
            if not spec.has_array:
                continue
            if (obj.id, name) in reader.varying:
                # It is another in each copy of the parade that this one is in.
                result[name] = shrunk(read_values(reader, obj.id, name))
            elif not _moves(obj, name):
                result[name] = now[name]
            elif old is not None and before.get(name) is now[name]:
                result[name] = old.channels[name]
            else:
                result[name] = read_values(reader, obj.id, name)
        return result

    def _own(
        self,
        obj: SceneObject,
        parts: list[SceneObject],
        element: Element,
        layout: Layout,
        length: int,
        count: int,
        reader: Reader,
        was: BakedParade | None,
    ) -> tuple[Element, ...]:
        """Differences of each copy; nothing where all are alike."""
        parade = obj.copying
        assert parade is not None
        inputs = inputs_of_copies(self.scene, self.plan, parade, all_below(self.scene, self.plan, obj), parts, count)
        shown_by = parade.text_part
        if not inputs.varying and not any(inputs.words) and shown_by is None:
            return ()
        same_rows = was is not None and np.array_equal(was.layout.frames, layout.frames) and np.array_equal(was.layout.offsets, layout.offsets)
        same_own = same_rows and was is not None and was.parade == parade and len(was.own) == count and not bends_copies(self.scene, obj)
        if was is not None and same_own and reader.is_plain and was.element is element:
            return was.own
        copies_of = partial(self.copies_of, was=None)
        differences = CopyDifferences(self.scene, self.plan, self.effort, self.inner, copies_of, parts, element, layout, length, inputs, reader)
        return differences.of_each(shown_by)

    def _around(
        self, obj: SceneObject, parts: list[SceneObject], values: Mapping[str, Array], grid: Array, reader: Reader, was: BakedParade | None
    ) -> Surroundings:
        """Return the inputs of a parade's arrangement."""
        parade = obj.copying
        assert parade is not None
        width = height = 0.0
        if parade.is_measured:
            if was is not None and was.parade.is_measured and was.parade.measured_at == parade.measured_at:
                width, height = was.around.width, was.around.height
            else:
                frames = np.array([parade.measured_at])
                left, top, right, bottom = measured(
                    self._element(parts, frames, Reader(self.scene, frames, effort=self.effort, view=reader.view), None)
                )
                width, height = right - left, bottom - top
        return surroundings_of(self.scene, obj, text_among(parts), width, height, grid, reader)


def _same_made(was: BakedObject | None, now: BakedObject) -> bool:
    """Whether an object is made as before, wherever its parent may be now."""
    if was is None or was.source is not now.source:
        return False
    return was.channels is now.channels or all(was.channels.get(name) is array for name, array in now.channels.items())


def _moves(obj: SceneObject, name: str) -> bool:
    """Whether a channel changes over time."""
    return obj.is_keyed(name) or obj.is_running(name) or bool(obj.rules_on(name)) or (name in ("x", "y") and obj.is_keyed("path"))


def _kept(places: Places, was: BakedParade | None) -> Places:
    """The places of an earlier bake where they are equal."""
    old = was.places if was is not None else None
    if old is None or not np.array_equal(old.matrices, places.matrices):
        return places
    return old if np.array_equal(old.opacity, places.opacity) and np.array_equal(old.scale, places.scale) else places


def _order(parade: Parade, places: Places, was: BakedParade | None) -> Array | None:
    """The copies from the back to the front, for each frame."""
    n = len(places.scale)
    if parade.front == "last" or n == 0:
        return None
    if parade.front == "first":
        now = np.arange(n, dtype=float)[::-1][None]
    else:
        now = shrunk(np.argsort(-np.abs(places.scale), axis=0, kind="stable").T.astype(float))
    before = was.order if was is not None else None
    return before if before is not None and np.array_equal(before, now) else now
