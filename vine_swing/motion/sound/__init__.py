"""Sounds for motion to follow, and to be heard with it: how loud they are in each frame, where something begins in them, and how they are mixed."""

from vine_swing.motion.sound.levels import ATTACK, BANDS, RELEASE, level, loudness
from vine_swing.motion.sound.onsets import beats_a_minute, onsets, pulses

__all__ = ["ATTACK", "BANDS", "RELEASE", "beats_a_minute", "level", "loudness", "onsets", "pulses"]
