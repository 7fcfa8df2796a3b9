"""A link, or another rule, that names what is not there."""

from collections.abc import Iterator

from vine_swing.motion.edits.dials import SetDial
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.references import missing_of


def find(measures: SceneMeasures) -> Iterator[Note]:
    """What rules and formulas name and the scene does not have, with the nearest name that it has; and dials that follow a deleted sound."""
    for thing in measures.scene.objects:
        for text in dict.fromkeys(missing_of(measures.scene, thing)):
            yield Note("dead-link", thing.id, None, (0, float(measures.length - 1)), f"{text[0].upper()}{text[1:]}.", sure=0.9, bad=0.7)
    for owner, dial in measures.scene.dials_by_id.items():
        if dial.follows is not None and dial.follows.sound not in measures.scene.sounds_by_id:
            text = f"The dial {dial.name} follows a sound that is not here any more, so it goes by its keys."
            mend = Mend("Let it go by its keys", (SetDial(edit="set-dial", id=dial.id, follows=None),))
            yield Note("dead-link", owner, None, (0, float(measures.length - 1)), text, sure=0.9, bad=0.6, mends=(mend,))


KIND = NoteKind(
    name="dead-link",
    label="A link without an answer",
    why=("What names something that was deleted or is called otherwise now stands still. Never meant: name what is there, or take the rule off."),
    about="scene",
    of_scene=find,
)
