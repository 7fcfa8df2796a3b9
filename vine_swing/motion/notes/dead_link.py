"""A link, or another rule, that names what is not there."""

from collections.abc import Iterator

from vine_swing.motion.notes.note import Note, NoteKind
from vine_swing.motion.notes.sight import Sight
from vine_swing.motion.scene.references import missing_of


def find(sight: Sight) -> Iterator[Note]:
    """What rules and formulas name and the scene does not have, with the nearest name that it has."""
    for thing in sight.scene.objects:
        for text in dict.fromkeys(missing_of(sight.scene, thing)):
            yield Note("dead-link", thing.id, None, (0, float(sight.length - 1)), f"{text[0].upper()}{text[1:]}.", 0.9, 0.7)


KIND = NoteKind(
    name="dead-link",
    label="A link without an answer",
    why=("What names something that was deleted or is called otherwise now stands still. Never meant: name what is there, or take the rule off."),
    about="scene",
    of_scene=find,
)
