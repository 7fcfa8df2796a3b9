"""What can be told of a sound for motion to go by: how loud it is in each frame, and where something begins in it."""

from vine_swing.motion.sound.levels import BANDS, level, loudness
from vine_swing.motion.sound.onsets import beats_a_minute, onsets, pulses

__all__ = ["BANDS", "beats_a_minute", "level", "loudness", "onsets", "pulses"]
