"""Everything starts and stops on the same frame."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.edits.arranging import SpreadInTime
from vine_swing.motion.notes.keyed import goes_on, moving, span_of
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: From this many moving objects on, of which at least this share begin and end together.
_LEAST, _SHARE = 4, 0.8
#: Frames of film by which overlapping action usually follows.
_LATER = 3


def find(measures: SceneMeasures) -> Iterator[Note]:
    """The first and last keys of objects that have no parent and move once."""
    spans: dict[tuple[float, float], list[SceneObject]] = {}
    for thing in measures.scene.objects:
        channels = moving(thing)
        if thing.parent is not None or thing.kind == "camera" or not channels or thing.rules or any(map(goes_on, channels.values())):
            continue
        ends = [span_of(channel) for channel in channels.values()]
        spans.setdefault((min(first for first, _ in ends), max(last for _, last in ends)), []).append(thing)
    count = sum(map(len, spans.values()))
    for (first, last), things in spans.items():
        if len(things) < max(_LEAST, int(np.ceil(_SHARE * count))) or (first <= 0 and last >= measures.length - 1):
            continue
        later = float(max(1, round(measures.film(_LATER))))
        ids = tuple(thing.id for thing in things)
        edit = SpreadInTime(edit="spread-in-time", objects=ids, later=later, order="left-to-right", how="keys", frame=first)
        text = f"{len(things)} things all start at frame {first:g} and stop at frame {last:g}: nothing leads, and nothing follows."
        yield Note(
            "all-at-once",
            things[0].id,
            None,
            (first, last),
            text,
            sure=0.45,
            bad=0.4,
            mends=(Mend(f"Each {later:g} frames after the one before", (edit,)),),
        )


KIND = NoteKind(
    name="all-at-once",
    label="All at once",
    why=(
        "Where everything starts and stops together the eye has nothing to follow, and it looks like one rigid thing. Meant, for "
        "a chorus or an explosion."
    ),
    about="scene",
    of_scene=find,
)
