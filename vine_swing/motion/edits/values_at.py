"""Values put on an object at a frame: as keys where it has some, else for good. Several at once cost little more than one."""

from collections.abc import Iterable, Mapping

import numpy as np

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Value
from vine_swing.motion.edits.keys import SetKey, keyed_value
from vine_swing.motion.scene.channel_values import check_values
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.evaluate import evaluate

#: Moves smaller than this, px, are none.
NOTHING = 1e-9
#: The channels that say where an object is.
PLACE = ("path", "x", "y")


def set_values(scene: Scene, thing: SceneObject, values: Mapping[str, Value], frame: float, *, key: bool) -> SceneObject:
    """The object with values given to some of its channels at a frame: by a key where a channel has some, or `key` says so.

    Raises:
        EditError: if a value is none that the channel can have.
    """
    channels: dict[str, Channel] = {}
    for name, value in values.items():
        if thing.is_running(name):
            # A lone key would stop what runs by itself: the edit of one key sees to that.
            made = SetKey(edit="set-key", object=thing.id, channel=name, frame=frame, value=value).apply(scene).by_id[thing.id]
            channels[name] = made.channels[name]
            continue
        channel = thing.channels.get(name, Channel())
        by_key = bool(channel.keys) or key
        try:
            # The value alone: there may be thousands of keys beside it.
            fresh = Channel(keys=(Key(frame=frame, value=value),)) if by_key else channel.copy_with(base=value, keys=())
            check_values(fresh, thing.specs[name], f"'{thing.name}', {name}")
            channels[name] = _with_key(thing, name, channel, frame, value) if by_key else channel.copy_with(base=value)
        except ValueError as error:
            raise EditError(str(error)) from error
    return thing.copy_with(channels=thing.channels | channels) if channels else thing


class ValuesAtFrame:
    """Values of keys at one frame, before all rules, for several channels at once: far cheaper than one by one."""

    def __init__(self, things: Iterable[SceneObject], names: Iterable[str], frame: float) -> None:
        self.frame = frame
        pairs = [
            (thing, name) for thing in things for name in names if name in thing.specs and thing.is_keyed(name) and thing.specs[name].kind == "number"
        ]
        values = evaluate([thing.channels[name] for thing, name in pairs], np.array([frame]))[:, 0].tolist() if pairs else []
        self._known = {(thing.id, name): value for (thing, name), value in zip(pairs, values, strict=True)}

    def number(self, thing: SceneObject, name: str) -> float:
        """Return the keyed value of a number channel, or its base."""
        known = self._known.get((thing.id, name))
        if known is not None:
            return float(known)
        return float(keyed_value(thing.channels.get(name, Channel()), thing.specs[name], self.frame, thing))  # type: ignore[arg-type]


def place_by(here: ValuesAtFrame, thing: SceneObject, dx: float, dy: float) -> dict[str, Value]:
    """The values that change the place of an object by px of the space it moves in: of x and y, or of a point of its path."""
    if thing.is_keyed("path") and not (thing.is_keyed("x") or thing.is_keyed("y")):
        place = keyed_value(thing.channels["path"], thing.specs["path"], here.frame, thing)
        assert isinstance(place, tuple), "keys of a path hold points"
        return {"path": (place[0] + dx, place[1] + dy)}
    return {name: here.number(thing, name) + by for name, by in (("x", dx), ("y", dy)) if abs(by) > NOTHING}


def keyed_at_frame(scene: Scene, here: ValuesAtFrame, thing: SceneObject, names: Iterable[str]) -> SceneObject:
    """The object with a key here on some of the channels it has, holding what is there. Where it follows a path, its place is keyed on that."""
    wanted = [name for name in names if name in thing.specs and thing.specs[name].kind not in ("outline", "look")]
    if "path" in wanted:
        along = thing.is_keyed("path")
        wanted = [name for name in wanted if (name == "path") is along or (name in ("x", "y") and thing.is_keyed(name)) or name not in PLACE]
    channels: dict[str, Channel] = {}
    for name in wanted:
        if thing.is_running(name):
            channels[name] = SetKey(edit="set-key", object=thing.id, channel=name, frame=here.frame).apply(scene).by_id[thing.id].channels[name]
        else:
            value = here.number(thing, name) if thing.is_keyed(name) and thing.specs[name].kind == "number" else None
            channels[name] = _with_key(thing, name, thing.channels.get(name, Channel()), here.frame, value)
    return thing.copy_with(channels=thing.channels | channels) if channels else thing


def _with_key(thing: SceneObject, name: str, channel: Channel, frame: float, value: Value | None) -> Channel:
    # Its fields were checked with the edit.
    edit = SetKey.model_construct(edit="set-key", object=thing.id, channel=name, frame=frame, value=value, ease=None)
    return edit.changed(channel, thing.specs[name], thing, [])
