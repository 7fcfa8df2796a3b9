"""Keys that all hold the same value."""

from collections.abc import Iterator

from vine_swing.motion.edits.keys import DeleteKeys
from vine_swing.motion.notes.keyed import changes, keyed, row_of, span_of
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A channel with several keys of one value, where nothing of its row moves and no rule follows its keys."""
    moves = {row_of(name) for name, channel in keyed(thing) if changes(channel)}
    by_keys = any(rule.channels == "keyed" for rule in thing.rules)
    rows: dict[str, list[str]] = {}
    for name, channel in keyed(thing):
        bent = any(key.ease == "handles" or key.ease == "spline" for key in channel.keys)
        if len(channel.keys) > 1 and not changes(channel) and row_of(name) not in moves and not thing.rules_on(name) and not bent and not by_keys:
            rows.setdefault(row_of(name), []).append(name)
    for row, names in rows.items():
        first, last = span_of(thing.channels[names[0]])
        edits = tuple(
            DeleteKeys(edit="delete-keys", object=thing.id, channel=name, frames=tuple(key.frame for key in thing.channels[name].keys))
            for name in names
        )
        count = len(thing.channels[names[0]].keys)
        text = f"{count} keys of {thing.name}'s {row} all hold the same value, so it stands still from frame {first:g} to {last:g}."
        yield Note("same-keys", thing.id, names[0], (first, last), text, sure=0.75, bad=0.2, mends=(Mend("Make it a plain value", edits),))


KIND = NoteKind(
    name="same-keys",
    label="Keys of one value",
    why=(
        "Several keys that hold one value move nothing: most often the value was not changed, or the time was not. Meant, as a "
        "hold that is still to be used."
    ),
    about="object",
    of_object=find,
)
