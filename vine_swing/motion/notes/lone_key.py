"""One lone key, which moves nothing."""

from collections.abc import Iterator

from vine_swing.motion.edits.keys import DeleteKeys
from vine_swing.motion.notes.keyed import keyed, row_of
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A channel with one key, where none of its row has two and no rule makes it move."""
    rows: dict[str, list[str]] = {}
    for name, _ in keyed(thing):
        rows.setdefault(row_of(name), []).append(name)
    for row, names in rows.items():
        lone = [name for name in names if len(thing.channels[name].keys) == 1]
        if len(lone) < len(names) or any(thing.rules_on(name) for name in names):
            continue
        # A figure is posed by keys of many joints: one of them alone is part of a pose.
        if thing.skeleton is not None and row not in ("travel", "size", "rotation", "opacity"):
            continue
        frame = thing.channels[lone[0]].keys[0].frame
        edits = tuple(DeleteKeys(edit="delete-keys", object=thing.id, channel=name, frames=(frame,)) for name in lone)
        text = f"{thing.name} has one key of its {row}, at frame {frame:g}: one alone moves nothing. Key another value at another frame."
        yield Note("lone-key", thing.id, lone[0], (frame, frame), text, sure=0.7, bad=0.25, mends=(Mend("Make it a plain value", edits),))


KIND = NoteKind(
    name="lone-key",
    label="One lone key",
    why=("A key says where a thing is at a moment. It takes two, with different values, to move. Meant, where the other key is still to come."),
    about="object",
    of_object=find,
)
