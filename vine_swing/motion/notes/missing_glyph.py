"""A character that the font does not have."""

from collections.abc import Iterator

from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Note, NoteKind
from vine_swing.motion.outline.drawing import missing_in
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """The characters of a text that neither its font nor any shipped one has."""
    shape = thing.drawn_shape
    if isinstance(shape, TextShape) and (missing := missing_in(shape)):
        text = f"No font here has {', '.join(repr(one) for one in missing[:5])}, so {thing.name} shows a gap."
        yield Note("missing-glyph", thing.id, None, (0, float(measures.length - 1)), text, sure=0.95, bad=0.8)


KIND = NoteKind(
    name="missing-glyph",
    label="A missing character",
    why="A character that no font has leaves a gap. Never meant: bring a font that has it, or write it otherwise.",
    about="object",
    of_object=find,
)
