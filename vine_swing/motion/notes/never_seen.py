"""Something that is never seen in the picture."""

from collections.abc import Iterator

from vine_swing.motion.edits.arranging import AlignObjects
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject


def find(measures: SceneMeasures) -> Iterator[Note]:
    """What no frame shows. It is looked for in the scene as a whole, as others may follow it."""
    for thing in measures.scene.objects:
        yield from _unseen(measures, thing)


def _unseen(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Drawn, shown, and at no frame both inside the picture and visible; and of no use to anything else."""
    if thing.drawn_shape is None and thing.pictured is None:
        return
    if (
        not _is_shown(measures, thing)
        or thing.id in measures.named
        or thing.id in measures.copied
        or measures.box(thing) is None
        or measures.seen(thing).any()
    ):
        return
    if measures.inside(thing).any():
        yield Note(
            "never-seen", thing.id, None, (0, measures.length - 1), f"{thing.name} is never visible: its opacity stays at 0.", sure=0.6, bad=0.4
        )
        return
    edits: tuple[Edit, ...] = tuple(AlignObjects(edit="align-objects", objects=(thing.id,), side=side, to="picture") for side in ("middle", "centre"))
    mends = (Mend("Bring it into the picture", edits),) if thing.parent is None else ()
    text = f"{thing.name} never comes into the picture."
    yield Note("never-seen", thing.id, None, (0, measures.length - 1), text, sure=0.7, bad=0.4, mends=mends)


def _is_shown(measures: SceneMeasures, thing: SceneObject) -> bool:
    """Whether neither it nor its parent is hidden, which is always meant."""
    return all(one.shown for one in measures.scene.upwards(thing.id))


KIND = NoteKind(
    name="never-seen",
    label="Never seen",
    why=("What is never in the picture was left outside by a slip, or forgotten, and is exported for nothing. Meant, for what others go by."),
    about="scene",
    of_scene=find,
)
