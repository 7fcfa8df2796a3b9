"""Copying objects from one scene into another, with what they lean on."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Frame, Id, Number
from vine_swing.motion.edits.base import Edit, check_room, object_in
from vine_swing.motion.edits.dials import SetDial
from vine_swing.motion.edits.figures import free_id
from vine_swing.motion.edits.fonts import AddFont
from vine_swing.motion.edits.insets import dials_read, named_by
from vine_swing.motion.edits.objects import kept_object, name_beside, shifted
from vine_swing.motion.edits.pictures import with_kept
from vine_swing.motion.edits.several import Prefix, check_free, with_free_names, with_ids
from vine_swing.motion.edits.sounds import AddSound
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.motion.scene.timeline import InnerScene


@dataclass(frozen=True)
class LeftBehind:
    """A missing dependency of a copied object.

    object: the name of the copied object. id, name: of the dependency. how: `hangs on` or `goes by`.
    """

    object: str
    id: str
    name: str
    how: Literal["hangs on", "goes by"]


@dataclass(frozen=True)
class Parcel:
    """Some objects as a scene of their own, with their descendants; the dials they read and the pictures, fonts and inner scenes they show come
    along."""

    scene: Scene
    behind: tuple[LeftBehind, ...]


def parcel_of(scene: Scene, ids: Sequence[str], frame: float) -> Parcel:
    """Pack some objects of a scene. Objects whose parent stays behind are detached and keep their look at `frame`.

    Raises:
        NoSuchThing: if the object does not exist.
        EditError: if one's parent is flat at that frame, so that it cannot be freed.
    """
    chosen = set(with_parts(tuple(object_in(scene, one).id for one in ids), scene.children))
    things = [one for one in scene.objects if one.id in chosen]
    behind: list[LeftBehind] = []
    freed: list[SceneObject] = []
    for thing in things:
        for other in dict.fromkeys(named_by(scene, thing)):
            if other in scene.by_id and other not in chosen:
                behind.append(LeftBehind(thing.name, other, scene.by_id[other].name, "goes by"))
        if thing.parent is not None and thing.parent not in chosen:
            behind.append(LeftBehind(thing.name, thing.parent, scene.by_id[thing.parent].name, "hangs on"))
            alone = scene.with_object(thing.copy_with(parent=None, bone=None))
            thing = kept_object(scene, alone, thing.id, frame)
        freed.append(thing)
    insets = scene.reached(dict.fromkeys(one.inset_of.scene for one in things if one.inset_of is not None))
    shown = [one for part in (things, *(inner.objects for inner in insets)) for one in part]
    pictures = {page for one in shown if one.pictured is not None for page in one.pictured.pictures}
    fonts = {one.drawn_shape.font for one in shown if isinstance(one.drawn_shape, TextShape)}
    dials = dials_read(scene, things)
    packed = Scene(
        **{name: getattr(scene, name) for name in ("name", "fps", "length", "size", "background")},
        objects=tuple(freed),
        dials=tuple(dials),
        insets=insets,
        pictures=tuple(one for one in scene.pictures if one.id in pictures),
        fonts=tuple(one for one in scene.fonts if one.id in fonts),
        sounds=tuple(
            one.copy_with(dial=None) for one in scene.sounds if one.id in {dial.follows.sound for dial in dials if dial.follows is not None}
        ),
    )
    return Parcel(packed, tuple(behind))


class PlaceParcel(Edit):
    """Put copied objects into a scene, in front of all others, with their dependencies.

    A dial with an existing name and kind of value is replaced by the scene's own; an inner scene that equals an existing one is replaced by it.
    References among the objects are kept.

    parcel: a scene that holds them, as `parcel_of` packs it. prefix: what their ids begin with here. hang: new parents of copied objects, by
    the ids they had; they look the same at `frame`. x, y: offset of objects without a parent, px.
    """

    edit: Literal["place-parcel"]
    parcel: Scene
    prefix: Prefix
    hang: dict[Id, Id] = Field(default_factory=dict)
    frame: Frame = 0.0
    x: Number = 0.0
    y: Number = 0.0

    def apply(self, scene: Scene) -> Scene:
        if not self.parcel.objects:
            raise EditError("nothing was copied; copy some objects first")
        if self.parcel.camera is not None and scene.camera is not None:
            raise EditError("this scene has a camera already, and a scene has only one; copy the others without it")
        check_room(scene, len(self.parcel.objects))
        ids = {one.id: f"{self.prefix}-{one.id}"[:64] for one in self.parcel.objects}
        check_free(scene, self.prefix, ids.values())
        unpacked, dials = self._with_dials(scene, with_free_names(self.parcel, scene.names))
        scene = with_kept(scene, unpacked.pictures)
        for font in unpacked.fonts:
            scene = AddFont(edit="add-font", font=font).apply(scene)
        scene, insets = _with_insets(scene, unpacked.insets)
        known = {dial.id for dial in scene.dials}
        added = [one for dial in unpacked.dials if (one := dial.copy_with(id=dials.get(dial.id, dial.id))).id not in known]
        scene, added = _with_sounds(scene, unpacked, added)
        scene = scene.copy_with(dials=(*scene.dials, *added))
        for thing in unpacked.objects:
            placed = shifted(thing, {"x": float(self.x), "y": float(self.y)}) if thing.parent is None else thing
            placed = with_ids(_showing(placed, insets), ids, dials)
            scene = scene.with_added(placed, len(scene.objects))
        for old, parent in self.hang.items():
            scene = self._hung(scene, ids, old, parent)
        return scene

    @staticmethod
    def _with_dials(scene: Scene, unpacked: Scene) -> tuple[Scene, dict[str, str]]:
        """The parcel with dials of names that are free here, or are the scene's own; and the ids its dials have here, by those they had."""
        dials: dict[str, str] = {}
        taken = {dial.id for dial in scene.dials}
        for dial in unpacked.dials:
            own = scene.dials_by_name.get(dial.name)
            if own is not None and own.is_colour == dial.is_colour:
                dials[dial.id] = own.id
                continue
            dials[dial.id] = free_id(taken, dial.id)
            taken.add(dials[dial.id])
            if own is not None:
                name = name_beside({one.name for one in (*scene.dials, *unpacked.dials)}, dial.name)
                unpacked = SetDial(edit="set-dial", id=dial.id, name=name).apply(unpacked)
        return unpacked, dials

    def _hung(self, scene: Scene, ids: Mapping[str, str], old: str, parent: str) -> Scene:
        if old not in ids:
            raise EditError(f"'{old}' is none of the copied objects; name one by the id it had")
        object_in(scene, parent)
        before = scene
        hung = scene.with_object(scene.by_id[ids[old]].copy_with(parent=parent))
        return scene.with_object(kept_object(before, hung, ids[old], self.frame))

    def label(self, scene: Scene) -> str:
        count = sum(one.parent is None for one in self.parcel.objects)
        return f"paste {self.parcel.objects[-1].name if count == 1 else f'{count} objects'}"


def _with_sounds(scene: Scene, unpacked: Scene, dials: Sequence[Dial]) -> tuple[Scene, list[Dial]]:
    """The scene with the sounds that some dials follow, and these dials following them; a sound that is here already is not heard twice."""
    ids: dict[str, str] = {}
    found: list[Dial] = []
    for dial in dials:
        follows = dial.follows
        sound = unpacked.sounds_by_id.get(follows.sound) if follows is not None else None
        if follows is None or sound is None:
            found.append(dial)
            continue
        own = scene.sounds_by_id.get(sound.id)
        if sound.id not in ids:
            ids[sound.id] = sound.id if own is not None and own.file == sound.file else free_id(scene.sounds_by_id, sound.id)
            if ids[sound.id] not in scene.sounds_by_id:
                scene = AddSound(edit="add-sound", sound=sound.copy_with(id=ids[sound.id])).apply(scene)
        found.append(dial.copy_with(follows=follows.copy_with(sound=ids[sound.id])))
    return scene, found


def _with_insets(scene: Scene, insets: Sequence[InnerScene]) -> tuple[Scene, dict[str, str]]:
    """The scene with more inner scenes, and the ids they have here by those they had; one that is here already is not kept twice."""
    ids: dict[str, str] = {}
    fresh: list[InnerScene] = []
    taken = set(scene.insets_by_id)
    for inner in insets:
        if scene.insets_by_id.get(inner.id) == inner:
            ids[inner.id] = inner.id
            continue
        ids[inner.id] = free_id(taken, inner.id)
        taken.add(ids[inner.id])
        fresh.append(inner)
    names = {one.name for one in scene.insets}
    for inner in fresh:
        name = name_beside(names, inner.name)
        names.add(name)
        objects = tuple(_showing(one, ids) for one in inner.objects)
        scene = scene.copy_with(insets=(*scene.insets, inner.copy_with(id=ids[inner.id], name=name, objects=objects)))
    return scene, ids


def _showing(thing: SceneObject, insets: Mapping[str, str]) -> SceneObject:
    """An object that names inner scenes by the ids they have here."""
    use = thing.inset_of
    return thing if use is None or insets[use.scene] == use.scene else thing.copy_with(inset=use.copy_with(scene=insets[use.scene]))
