"""A hard stop from full speed, or a contact of something soft, with nothing that takes the blow."""

from collections.abc import Iterator

from vine_swing.motion.edits.rules import AddRule
from vine_swing.motion.notes.keyed import goes_on, keyed
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.objects import SceneObject

#: How fast it must arrive: a share of the diagonal in a frame of film, and this many times the mean speed of its last stretch.
_FAST, _RISING = 0.012, 1.4
#: What keeps this share of its height at a bounce is no stone.
_SPRINGY = 0.3
_SOFT = ("squash-stretch", "bounce", "spring", "smooth", "overshoot", "steps", "follow", "limit")


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Stops and contacts that nothing gives way to."""
    if any(name in ("scale.x", "scale.y", "stretch", "rotation") for name, _ in keyed(thing)):
        # Somebody has seen to it by hand.
        return
    yield from _stops(measures, thing)
    yield from _contacts(measures, thing)


def _stops(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A fall that gathers speed to its last key, and is still in the next frame. What squashes, bounces or swings on is not stopped hard."""
    if not (thing.is_keyed("x") or thing.is_keyed("y")) or measures.rules_on(thing, *_SOFT):
        return
    for name, channel in keyed(thing):
        if name not in ("x", "y") or len(channel.keys) < 2 or goes_on(channel):
            continue
        before, last = channel.keys[-2:]
        at, step = round(last.frame), measures.step
        if before.ease == "hold" or not 2 * step <= at <= measures.length - 1 - 2 * step or last.frame - before.frame < 2 * step:
            continue
        values = measures.value(thing, name)
        arriving = abs(values[at] - values[at - step])
        mean = step * abs(last.number - before.number) / (last.frame - before.frame)
        after = abs(values[at + step] - values[at])
        if arriving > max(_FAST * measures.diagonal, _RISING * mean) and after < 0.05 * arriving and measures.seen(thing)[at]:
            text = f"{thing.name} comes to frame {at} at full speed and is still in the next: nothing takes the blow."
            yield Note("hard-stop", thing.id, name, (float(before.frame), float(last.frame)), text, sure=0.5, bad=0.5, mends=(_squash(thing),))


def _contacts(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A bounce that keeps so much of its height that it must be soft, without any squash where it lands."""
    bounces = [rule for rule in measures.rules_on(thing, "bounce") if (rule.plain("keep") or 0.0) >= _SPRINGY]
    if not bounces or measures.rules_on(thing, "squash-stretch") or not measures.seen(thing).any() or thing.parent is not None:
        return
    contacts = [float(frame) for frame in measures.reader.contacts(thing.id) if 0 <= frame < measures.length]
    if len(contacts) >= 2:
        text = f"{thing.name} bounces {len(contacts)} times as something soft does, and keeps its shape at every contact."
        yield Note("hard-stop", thing.id, "y", (contacts[0], contacts[-1]), text, sure=0.45, bad=0.5, mends=(_squash(thing),))


def _squash(thing: SceneObject) -> Mend:
    used = {rule.id for rule in thing.rules}
    rule_id = next(f"soft-{n}" for n in range(1, 1000) if f"soft-{n}" not in used)
    rule = Rule(id=rule_id, kind="squash-stretch", channels=("stretch", "stretch.angle"))
    return Mend("Let it squash", (AddRule(edit="add-rule", object=thing.id, rule=rule),))


KIND = NoteKind(
    name="hard-stop",
    label="A hard stop",
    why=(
        "What lands gives way: it squashes, bounces, or shakes what it lands on. A dead stop makes it a stone, or glued. Meant, "
        "for stones and stamps."
    ),
    about="object",
    of_object=find,
)
