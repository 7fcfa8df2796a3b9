"""A seam: the first and the last frame of a loop disagree."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.edits.timing import CloseLoop
from vine_swing.motion.notes.keyed import changes, keyed, numbers, span_of
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.evaluate import evaluate

#: A jump of less than this share of what the loop moves by is not seen.
_JUMP = 0.02
#: How much more the speed may change at the seam than anywhere else in the loop, and that as a share of its mean speed.
_KINK, _OF_MEAN = 3.0, 0.8
_LOOPED = ("x", "y", "rotation", "scale.x", "scale.y", "skew", "opacity", "width", "height")


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Loops whose keys do not close, in value or in speed, where that can be seen."""
    for name, channel in keyed(thing):
        if name not in _LOOPED or channel.after.mode != "loop" or not changes(channel):
            continue
        first, last = span_of(channel)
        if last >= measures.length - 1 + measures.film(1) or not _shown_at(measures, thing, last):
            continue
        values = numbers(channel)
        reach = float(values.max() - values.min())
        off = abs(values[-1] - values[0])
        if name == "rotation":
            off = abs(off - 360 * round(off / 360))
        if off > _JUMP * reach:
            text = f"{thing.name}'s {name} jumps where its loop begins again: {values[-1]:.4g} at frame {last:g}, {values[0]:.4g} at frame {first:g}."
            mend = Mend("Close the loop", (CloseLoop(edit="close-loop", object=thing.id, channels=(name,)),))
            # From one end to the other and back to the first at once: perhaps an object that follows repeatedly.
            sure = 0.8 if off < 0.5 * reach else 0.45
            yield Note("seam", thing.id, name, (first, last), text, sure=sure, bad=0.8, mends=(mend,))
        elif off == 0 and len(channel.keys) > 2 and _kink(channel) > _KINK:
            text = f"{thing.name}'s {name} changes its speed with a jerk at frame {last:g}, where its loop begins again, and nowhere else."
            yield Note("seam", thing.id, name, (first, last), text, sure=0.5, bad=0.4)


def _shown_at(measures: SceneMeasures, thing: SceneObject, frame: float) -> bool:
    """Whether it can be seen around the frame at which the loop begins again."""
    at = int(np.clip(round(frame), 1, measures.length - 1))
    if thing.id in measures.copied:
        # Its copies are elsewhere, each in a time of its own.
        return False
    seen = measures.seen(thing)
    return bool(seen[at - 1] and seen[at])


def _kink(channel: Channel) -> float:
    """By how many times the speed changes more at the seam than at any key within; 0 where it is too little to be seen."""
    first, last = span_of(channel)
    near = (last - first) * 1e-4
    frames = np.array([key.frame for key in channel.keys])
    free = channel.copy_with(after=channel.after.copy_with(mode="hold"), before=channel.before.copy_with(mode="hold"))

    def speed(t: np.ndarray, side: float) -> np.ndarray:
        found: np.ndarray = (evaluate([free], t + side * near)[0] - evaluate([free], t)[0]) / (side * near)
        return found

    inner = np.abs(speed(frames[1:-1], 1) - speed(frames[1:-1], -1))
    seam = float(abs(speed(frames[:1], 1)[0] - speed(frames[-1:], -1)[0]))
    values = numbers(channel)
    mean = float(np.abs(np.diff(values)).sum() / (last - first))
    return 0.0 if seam < _OF_MEAN * mean else seam / max(float(inner.max()), 1e-3 * mean)


KIND = NoteKind(
    name="seam",
    label="A seam in a loop",
    why=(
        "A loop that does not end as it begins, in value and in speed, jumps at every turn. Meant, for things that go by again "
        "and again, out of view."
    ),
    about="object",
    of_object=find,
)
