"""The kinds of notes, in the order the guide tells them in. A new kind is a file beside this one and a line here."""

from vine_swing.motion.notes import (
    all_at_once,
    cut_corner,
    dead_link,
    ends_early,
    even_speed,
    flashing,
    foot_slides,
    hard_stop,
    idle_rule,
    keys_outside,
    lock_step,
    lone_key,
    long_way,
    missing_glyph,
    nearly,
    never_seen,
    plain_names,
    pop,
    same_keys,
    seam,
    second_leg,
    text_brief,
    through_ground,
    too_fast,
    unused_dial,
)
from vine_swing.motion.notes.note import NoteKind

_ALL = (
    *(flashing, foot_slides, pop, seam, ends_early, through_ground),
    *(nearly, long_way, second_leg, cut_corner, even_speed, hard_stop, all_at_once, lock_step),
    *(too_fast, text_brief, never_seen, missing_glyph),
    *(lone_key, same_keys, keys_outside, idle_rule, dead_link, unused_dial, plain_names),
)
KINDS: dict[str, NoteKind] = {one.KIND.name: one.KIND for one in _ALL}
