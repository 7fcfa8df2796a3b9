"""Checking a scene that edits have made with the very models that read scene files, part by part: only what is new is checked."""

from collections.abc import Mapping
from typing import Any

from vine_swing.motion.basics.values import Frozen
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.timeline import Timeline
from vine_swing.motion.timing.channel import Channel


def checked(scene: Scene, *, since: Scene) -> Scene:
    """The scene, if a scene file could hold it; its parts are those of `scene` itself.

    Args:
        scene: what edits have made; they put parts together without checking them.
        since: the scene they began with, all of which has been checked.

    Raises:
        ValidationError: naming each fault with its place.
    """
    if scene is since:
        return scene
    _check_timeline(scene, since)
    before = since.insets_by_id
    for inner in scene.insets:
        was = before.get(inner.id)
        if was is not inner:
            _check_timeline(inner, was)
            inner.checked()
    if scene.fonts is not since.fonts:
        _check_whole(scene.fonts, since.fonts)
    if scene.pictures is not since.pictures:
        _check_whole(scene.pictures, since.pictures)
    if scene.sounds is not since.sounds:
        _check_whole(scene.sounds, since.sounds)
    # Checks how the parts fit together; parts that are models already are taken as they are.
    scene.checked()
    return scene


def _check_timeline(part: Timeline, since: Timeline | None) -> None:
    known = {thing.id: thing for thing in since.objects} if since is not None else {}
    for thing in part.objects:
        if known.get(thing.id) is not thing:
            _check_object(thing, known.get(thing.id))
    dials = {dial.id: dial for dial in since.dials} if since is not None else {}
    for dial in part.dials:
        before = dials.get(dial.id)
        if before is not dial:
            _check_channels({"channel": dial.channel}, {"channel": before.channel} if before is not None else {})
            dial.checked()
    if part.markers is not (since.markers if since is not None else ()):
        _check_whole(part.markers, since.markers if since is not None else ())
    cues = since.cues if since is not None else ()
    if part.cues is not cues:
        _check_whole(part.cues, cues)


def _check_object(thing: SceneObject, before: SceneObject | None) -> None:
    _check_channels(thing.channels, before.channels if before is not None else {})
    rules = {rule.id: rule for rule in before.rules} if before is not None else {}
    for rule in thing.rules:
        old = rules.get(rule.id)
        if old is not rule:
            _check_channels(_channels_of(rule), _channels_of(old) if old is not None else {})
            rule.checked()
    if before is None or thing.span is not before.span:
        thing.span.checked()
    thing.checked()


def _channels_of(rule: Rule) -> dict[str, Channel]:
    return {name: setting for name, setting in rule.settings.items() if isinstance(setting, Channel)}


def _check_channels(channels: Mapping[str, Channel], before: Mapping[str, Channel]) -> None:
    for name, channel in channels.items():
        old = before.get(name)
        if old is channel:
            continue
        known = set(map(id, old.keys)) if old is not None else set[int]()
        for key in channel.keys:
            if id(key) not in known:
                _check_again(key)
        _check_again(channel.copy_with(keys=()))
        # The order of the keys, and that no two share a frame.
        channel.checked()


def _check_whole(parts: tuple[Any, ...], before: tuple[Any, ...]) -> None:
    known = set(map(id, before))
    for part in parts:
        if id(part) not in known:
            _check_again(part)


def _check_again(part: Frozen) -> None:
    """Check every field of a part from plain data, as if it were read from a file."""
    type(part).model_validate(part.model_dump(by_alias=True))
