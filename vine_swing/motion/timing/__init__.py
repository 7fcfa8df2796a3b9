"""From keys to values over time: channels and their keys, eases, ends, paths, and keys fitted to motion."""

from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ends import turn_marks
from vine_swing.motion.timing.evaluate import KeyedChannels

__all__ = ["Channel", "Key", "KeyedChannels", "turn_marks"]
