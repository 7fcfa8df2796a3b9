"""Two objects in lock-step."""

from collections.abc import Iterator

from vine_swing.motion.edits.rules import AddRule
from vine_swing.motion.notes.keyed import changes, keyed, pair_name
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel

#: Frames of film by which the second comes later where it is mended.
_LATER = 4
#: Rules that run by a clock of their own, in step with their like.
_CLOCKED = ("oscillator", "pendulum")


def find(measures: SceneMeasures) -> Iterator[Note]:
    """Objects that have no parent, with the very same moves, or the same swing, at the same time. More than a pair are a pattern."""
    alike: dict[tuple[object, ...], list[SceneObject]] = {}
    for thing in measures.scene.objects:
        if thing.parent is not None or not thing.shown or thing.kind == "camera":
            continue
        for what in _moves(thing):
            alike.setdefault(what, []).append(thing)
    told: set[tuple[str, str]] = set()
    for what, things in alike.items():
        if len(things) != 2 or (things[0].id, things[1].id) in told or pair_name(things[0]) == pair_name(things[1]):
            # Wings and eyes go together.
            continue
        one, other = things
        told.add((one.id, other.id))
        id_ = next(f"later-{n}" for n in range(1, 1000) if all(rule.id != f"later-{n}" for rule in other.rules))
        rule = Rule(id=id_, kind="retime", channels=(str(what[0]),), settings={"delay": Channel(base=float(round(measures.film(_LATER))))})
        text = f"{one.name} and {other.name} move in lock-step: the same {what[0]}, at the same time."
        mend = Mend(f"{other.name} {round(measures.film(_LATER))} frames later", (AddRule(edit="add-rule", object=other.id, rule=rule),))
        yield Note("lock-step", other.id, str(what[0]), (0.0, float(measures.length - 1)), text, sure=0.45, bad=0.35, mends=(mend,))


def _moves(thing: SceneObject) -> Iterator[tuple[object, ...]]:
    """What can be compared of the moves of an object: its keys from the first value on, and its swings."""
    if any(rule.on and rule.kind == "retime" for rule in thing.rules):
        return
    for name, channel in keyed(thing):
        # Wheels and hands of clocks turn alike, and fades fade alike.
        if name in ("x", "y", "scale.x", "scale.y") and len(channel.keys) > 2 and changes(channel) and not thing.rules_on(name):
            start = channel.keys[0].number
            yield name, tuple((key.frame, round(key.number - start, 6), key.ease) for key in channel.keys)
    for rule in thing.rules:
        if rule.on and rule.kind in _CLOCKED and not rule.linked and rule.channels != "keyed":
            settings = tuple(sorted((name, str(one)) for name, one in rule.settings.items()))
            yield rule.channels[0], rule.kind, settings


KIND = NoteKind(
    name="lock-step",
    label="In lock-step",
    why=(
        "Two things that move alike at the same time look like one, or like machines. A few frames between them, and they live. "
        "Meant, for twins and eyes."
    ),
    about="scene",
    of_scene=find,
)
