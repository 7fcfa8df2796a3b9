"""Notes: what a supervising animator would remark on the motion, with ready mends. One file a kind; `kinds.py` lists them."""

from vine_swing.motion.notes.finding import FoundNotes, find_notes
from vine_swing.motion.notes.kinds import KINDS
from vine_swing.motion.notes.note import Mend, Note, NoteKind

__all__ = ["KINDS", "FoundNotes", "Mend", "Note", "NoteKind", "find_notes"]
