"""Shared parts of look rules."""

from vine_swing.motion.rules.spec import Mode, Read, Settings, Source

#: The largest standard deviation of a blur, px.
LARGEST_BLUR = 500.0
BLUR_ABOUT = "How soft its edge is: the standard deviation of the blur, as in SVG; 0 is sharp."


def no_numbers(source: Source, settings: Settings, mode: Mode) -> Read:
    """In place of `prepare` for rules that act on looks alone."""
    raise LookupError("a rule on looks does nothing to numbers")
