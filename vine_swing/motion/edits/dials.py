"""Edits of dials: which there are, what they are called, and their range. Their values are edited as those of any channel: its owner is
`dial:` and the dial's id, its name `value`."""

from typing import Any, Literal

from pydantic import ValidationError

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import Id, Name, Number
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.renaming import with_formulas
from vine_swing.motion.edits.sounds import sound_in
from vine_swing.motion.formula import renamed
from vine_swing.motion.scene.dial import DIAL, Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import faults
from vine_swing.motion.scene.sounds import Follow

MAX_DIALS = 500


class AddDial(Edit):
    """Put a dial into the scene, after its others. If its name is taken it gets the first number that makes it its own."""

    edit: Literal["add-dial"]
    dial: Dial

    def apply(self, scene: Scene) -> Scene:
        if len(scene.dials) >= MAX_DIALS:
            raise EditError(f"a scene holds at most {MAX_DIALS} dials; delete some first")
        if any(dial.id == self.dial.id for dial in scene.dials):
            raise EditError(f"there already is a dial with the id '{self.dial.id}'; give the new one its own")
        name, n = self.dial.name.strip(), 2
        while name in scene.dials_by_name:
            name, n = f"{self.dial.name.strip()[:74]} {n}", n + 1
        return scene.copy_with(dials=(*scene.dials, self.dial.copy_with(name=name)))

    def label(self, scene: Scene) -> str:
        return f"add the dial {self.dial.name}"


class _DialEdit(Edit):
    id: Id

    def _dial(self, scene: Scene) -> Dial:
        result = scene.dials_by_id.get(f"{DIAL}{self.id}")
        if result is None:
            raise NoSuchThing(f"there is no dial '{self.id}' in this scene; it may have been deleted")
        return result


class SetDial(_DialEdit):
    """Give a dial another name, unit or range, or make it follow a sound. Omitted fields stay unchanged; null removes a limit or the sound.
    Formulas that name it are updated."""

    edit: Literal["set-dial"]
    name: Name | None = None
    unit: Literal["", "%", "px", "°"] | None = None
    low: Number | None = None
    high: Number | None = None
    follows: Follow | None = None

    def apply(self, scene: Scene) -> Scene:
        before = self._dial(scene)
        changes: dict[str, Any] = {name: getattr(self, name) for name in ("low", "high", "follows") if name in self.model_fields_set}
        if self.follows is not None:
            sound_in(scene, self.follows.sound)
        changes |= {name: value for name in ("name", "unit") if (value := getattr(self, name)) is not None}
        if "name" in changes:
            changes["name"] = changes["name"].strip()
            used = scene.dials_by_name.get(changes["name"])
            if used is not None and used is not before:
                raise EditError(f"there already is a dial '{used.name}'; choose another name")
        try:
            after = before.checked(**changes)
        except ValidationError as error:
            raise EditError("; ".join(faults(error))) from error
        changed = scene.copy_with(dials=tuple(after if dial is before else dial for dial in scene.dials))
        if after.name == before.name:
            return changed
        return with_formulas(changed, lambda text: renamed(text, scene.names, dials={before.name: after.name}))

    def label(self, scene: Scene) -> str:
        name = self._dial(scene).name
        if self.name is not None:
            return f"rename {name} to {self.name}"
        if "follows" in self.model_fields_set:
            return f"{name} follows {sound_in(scene, self.follows.sound).name}" if self.follows is not None else f"{name} goes by its keys"
        return f"range of {name}"


class DeleteDial(_DialEdit):
    """Delete a dial. Channels that read it keep the value of their previous card."""

    edit: Literal["delete-dial"]

    def apply(self, scene: Scene) -> Scene:
        travelled = self._dial(scene)
        return scene.copy_with(dials=tuple(dial for dial in scene.dials if dial is not travelled))

    def label(self, scene: Scene) -> str:
        return f"delete the dial {self._dial(scene).name}"
