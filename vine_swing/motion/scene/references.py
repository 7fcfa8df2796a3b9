"""Missing references of rules and formulas, each with the nearest existing name."""

from collections.abc import Iterator
from difflib import get_close_matches

from vine_swing.motion.formula import split
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.rules.spec import WHERE
from vine_swing.motion.scene.dial import DIAL
from vine_swing.motion.scene.graph import resolved
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject


def missing_references(scene: Scene) -> list[str]:
    """One sentence for each object that a rule switched on names and the scene does not have, in the order of the troupe."""
    return list(dict.fromkeys(sentence for thing in scene.objects for sentence in missing_of(scene, thing)))


def missing_of(scene: Scene, thing: SceneObject) -> Iterator[str]:
    """The same for one object."""
    for rule in thing.rules:
        if not rule.on:
            continue
        acted = [name for name in thing.specs if rule in thing.rules_on(name)]
        for name in acted[:1]:
            for owner, channel in rule.dependencies(thing.id, name):
                if owner == thing.id or resolved(scene, (owner, channel)) is not None:
                    continue
                where = f"'{thing.name}', {rule.spec.label.lower()} on {name}"
                if owner == NAMED:
                    yield f"{where}: there is no '{channel}'{_nearest(channel, _names(scene, channel))}"
                elif owner.startswith(DIAL):
                    yield f"{where}: there is no dial '{owner.removeprefix(DIAL)}'{_nearest(owner, list(scene.dials_by_id))}"
                elif owner not in scene.by_id:
                    yield f"{where}: there is no object '{owner}'{_nearest(owner, list(scene.by_id))}"
                elif channel != WHERE:
                    other = scene.by_id[owner]
                    yield f"{where}: '{other.name}' has no channel '{channel}'{_nearest(channel, list(other.specs))}"


def _names(scene: Scene, text: str) -> list[str]:
    """Return candidates for a missing reference: channels of the named object, or all objects with the channel, and dials."""
    parts = split(text, scene.by_name)
    if parts is not None:
        return [f"{parts[0]}.{name}" for name in scene.by_name[parts[0]].specs]
    channel = text.partition(".")[2]
    return [f"{name}.{channel}" for name, thing in scene.by_name.items() if channel in thing.specs] + list(scene.dials_by_name)


def _nearest(text: str, known: list[str]) -> str:
    found = get_close_matches(text, known, n=1, cutoff=0.5)
    return f"; did you mean '{found[0]}'?" if found else ""
