"""A dial that nothing reads."""

from collections.abc import Iterator

from vine_swing.motion.edits.dials import DeleteDial
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind


def find(measures: SceneMeasures) -> Iterator[Note]:
    """Dials that no rule and no formula names, and by which no sound is turned up and down."""
    heard = {sound.dial for sound in measures.scene.sounds}
    for owner, dial in measures.scene.dials_by_id.items():
        if owner not in measures.named and dial.id not in heard:
            mend = Mend("Delete the dial", (DeleteDial(edit="delete-dial", id=dial.id),))
            yield Note(
                "unused-dial",
                owner,
                None,
                (0, float(measures.length - 1)),
                f"Nothing reads the dial {dial.name}: turning it changes nothing.",
                sure=0.8,
                bad=0.2,
                mends=(mend,),
            )


KIND = NoteKind(
    name="unused-dial",
    label="An unused dial",
    why="A dial that nothing reads promises what it does not do. Meant, while what shall read it is still to come.",
    about="scene",
    of_scene=find,
)
