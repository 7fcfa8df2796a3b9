"""Names like "Ellipse 3" among many."""

import re
from collections.abc import Iterator

from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Note, NoteKind

#: What new objects are called until they are called something: a kind, with or without a colour and a number.
_PLAIN = re.compile(
    r"^(?:\w+ )?(?:ellipse|rectangle|polygon|star|line|outline|group|text|object|shape|picture|parade|inset)(?: \d+)?$", re.IGNORECASE
)
#: From this many objects on it matters, and from this many plain names.
_MANY, _LEAST = 10, 3


def find(measures: SceneMeasures) -> Iterator[Note]:
    """Objects that were never given a name of their own, in a scene of many."""
    plain = [thing for thing in measures.scene.objects if _PLAIN.match(thing.name)]
    if len(measures.scene.objects) >= _MANY and len(plain) >= _LEAST:
        names = ", ".join(thing.name for thing in plain[:3])
        text = f"{len(plain)} of {len(measures.scene.objects)} objects are called after their shape ({names} …): who shall tell them apart?"
        yield Note("plain-names", plain[0].id, None, (0, measures.length - 1), text, sure=0.6, bad=0.1)


KIND = NoteKind(
    name="plain-names",
    label="Nameless things",
    why="Among ten objects nobody knows which is Ellipse 3, and the wrong one is moved. Meant, for what is drawn to be thrown away.",
    about="scene",
    of_scene=find,
)
