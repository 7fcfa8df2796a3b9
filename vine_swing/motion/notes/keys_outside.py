"""Keys outside the frames that the scene shows."""

from collections.abc import Iterator

from vine_swing.motion.basics.values import MAX_LENGTH
from vine_swing.motion.edits.scene import SetLength
from vine_swing.motion.notes.keyed import changes, goes_on, keyed
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Moves whose last keys lie after the last frame, and that are not over there. One key just past the end closes a loop, and is meant."""
    beyond: list[str] = []
    furthest = 0.0
    for name, channel in keyed(thing):
        last = channel.keys[-1].frame
        outside = [key for key in channel.keys if key.frame > measures.length - 1 + measures.film(1)]
        if outside and changes(channel) and not goes_on(channel) and last > measures.length - 1 + measures.film(2):
            beyond.append(name)
            furthest = max(furthest, last)
    if not beyond:
        return
    length = int(furthest) + 1
    text = f"{thing.name} has keys up to frame {furthest:g}, but the scene ends at frame {measures.length - 1}: the end of its move is never seen."
    # Keys may lie farther than any scene is long.
    fits = length <= MAX_LENGTH
    mends = (Mend(f"Make the scene {length} frames long", (SetLength(edit="set-length", length=length),)),) if fits else ()
    yield Note("keys-outside", thing.id, beyond[0], (float(measures.length - 1), furthest), text, sure=0.5, bad=0.3, mends=mends)


KIND = NoteKind(
    name="keys-outside",
    label="Keys outside the scene",
    why=("Keys after the last frame are work that nobody sees; often the scene was made shorter. Meant, where a move is to be cut off by the end."),
    about="object",
    of_object=find,
)
