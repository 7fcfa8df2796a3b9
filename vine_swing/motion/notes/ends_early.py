"""A part that ends before its parent, or anything that vanishes while it is still seen."""

from collections.abc import Iterator

from vine_swing.motion.edits.spans import SetSpan
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: What is as faint as this at its last frame has faded out already.
_FADED = 0.15


def find(measures: SceneMeasures) -> Iterator[Note]:
    """Looked for in the scene as a whole, as something beside it may take its place."""
    for thing in measures.scene.objects:
        if thing.span.last is not None:
            yield from _ended(measures, thing)


def _ended(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """The last frame of a span at which it is seen in full, with nothing that takes its place."""
    scene = measures.scene
    last = thing.span.last
    if last is None or last >= scene.length - 1 or last < 0 or not thing.shown or thing.id in measures.copied:
        return
    parent = scene.by_id[thing.parent] if thing.parent is not None else None
    end = parent.span.within(scene.length)[1] if parent is not None else scene.length - 1
    if parent is not None and (end <= last or measures.opacity(parent)[min(last + 1, scene.length - 1)] <= _FADED):
        return
    if not measures.seen(thing)[last] or measures.opacity(thing)[last] <= _FADED:
        return
    beside = (one for one in scene.objects if one.parent == thing.parent and one is not thing)
    if any(abs((one.span.first or 0) - last - 1) <= measures.film(1) for one in beside if one.span.first is not None):
        return
    edit = SetSpan(edit="set-span", id=thing.id, first=thing.span.first, last=None if parent is None else parent.span.last)
    if parent is not None:
        text = f"{thing.name} ends at frame {last}, while {parent.name}, which it hangs on, goes on to frame {end}."
        yield Note(
            "ends-early", thing.id, None, (last, end), text, sure=0.8, bad=0.8, mends=(Mend(f"Let it last as long as {parent.name}", (edit,)),)
        )
    elif thing.span.first is None or thing.span.first <= 0:
        # An object that appears and disappears at its own frames is shown for that time.
        text = f"{thing.name} vanishes after frame {last} while it is in full view."
        yield Note("ends-early", thing.id, None, (last, last + 1), text, sure=0.4, bad=0.6, mends=(Mend("Let it last to the end", (edit,)),))


KIND = NoteKind(
    name="ends-early",
    label="Ends too early",
    why=(
        "A hand that vanishes before its arm, or a leaf that is gone from one frame to the next, is seen at once. Meant, where "
        "something else takes its place."
    ),
    about="scene",
    of_scene=find,
)
