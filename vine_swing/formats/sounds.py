"""Sounds as tables: how loud they are, and their beats, frame by frame, to be written as keys as keys."""

from vine_swing.formats.samples import Column, Table
from vine_swing.motion.sound import ATTACK, BANDS, RELEASE, beats_a_minute, level, onsets, pulses
from vine_swing.motion.sound.reading import Sound

#: Rows of a table at most.
MOST_ROWS = 20_000


def sound_table(sound: Sound, fps: float) -> Table:
    """How loud a sound is at each frame of a scene, 0…1, in all and in three bands; and `beats`, 1 where something begins, then falling."""
    columns = {
        "level" if band == "all" else band: level(sound.samples, sound.rate, fps, band=band, attack=ATTACK, release=RELEASE)[:MOST_ROWS]
        for band in BANDS
    }
    rows = len(columns["level"])
    begins = onsets(sound.samples, sound.rate)
    columns["beats"] = pulses(begins, fps, rows)
    remarks = [f"something begins {len(begins)} times"]
    if (pace := beats_a_minute(begins)) is not None:
        remarks[0] += f", about {pace:.0f} times a minute"
    if sound.cut or rows < int(sound.seconds * fps):
        remarks.append(f"only the first {rows / fps:.0f} seconds are read")
    times = Column("seconds", "number", tuple(frame / fps for frame in range(rows)))
    numbers = (Column(name, "number", tuple(values.round(4).tolist())) for name, values in columns.items())
    return Table((times, *numbers), rows, 0, "seconds", tuple(remarks))
