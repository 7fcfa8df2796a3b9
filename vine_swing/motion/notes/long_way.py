"""The long way round: more than half a turn where the short way would do."""

from collections.abc import Iterator

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.keys import SetKey
from vine_swing.motion.notes.keyed import goes_on, stretches
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: From here on it is a whole turn that stopped short, which is another note.
_WHOLE = 355.0


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Two keys of rotation between half a turn and a whole one apart. Whole turns, and turns that go on forever, are meant."""
    channel = thing.channels.get("rotation")
    if channel is None or goes_on(channel) or thing.rules_on("rotation"):
        return
    for place, (one, other) in enumerate(stretches(channel)):
        way = other.number - one.number
        if not 180 < abs(way) < _WHOLE or one.ease == "hold":
            continue
        by = -360.0 if way > 0 else 360.0
        later = channel.keys[place + 1 :]
        edits: tuple[Edit, ...] = tuple(
            SetKey(edit="set-key", object=thing.id, channel="rotation", frame=key.frame, value=key.number + by) for key in later
        )
        text = f"{thing.name} turns {way:+.4g}° from frame {one.frame:g} to {other.frame:g}; {way + by:+.4g}° ends in the same pose."
        # Three quarters of a turn are counted by people; other angles are what is left of a number that went past 180.
        sure = 0.35 if way % 90 == 0 else 0.6
        yield Note("long-way", thing.id, "rotation", (one.frame, other.frame), text, sure=sure, bad=0.6, mends=(Mend("Turn the short way", edits),))


KIND = NoteKind(
    name="long-way",
    label="The long way round",
    why="From 170° to −170° is 20° one way and 340° the other, and numbers go the long way. Meant, where the thing is to spin.",
    about="object",
    of_object=find,
)
