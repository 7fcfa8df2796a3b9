"""Dials: values of the scene that channels and settings of rules share."""

from functools import cached_property
from typing import Literal, Self

from pydantic import model_validator

from vine_swing.motion.basics.specs import ChannelSpec, Unit
from vine_swing.motion.basics.values import Frozen, Id, Name, Number
from vine_swing.motion.scene.sounds import Follow
from vine_swing.motion.timing.channel import Channel

#: In place of an object's id: what follows is the id of a dial.
DIAL = "dial:"
#: The one channel of a dial.
DIAL_CHANNEL = "value"


class Dial(Frozen):
    """A shared value of the scene that channels and settings of rules can read: a number, or a colour if its values are colours.

    `low` and `high` are its range, where it has one: values are within it, and eases that leave it are cut off there.
    """

    id: Id
    name: Name
    unit: Literal["", "%", "px", "°"] = ""
    low: Number | None = None
    high: Number | None = None
    channel: Channel = Channel()
    #: The sound it follows in place of its keys, as long as the scene has that sound.
    follows: Follow | None = None

    @property
    def is_colour(self) -> bool:
        """Whether it holds colours."""
        return isinstance(self.channel.keys[0].value if self.channel.keys else self.channel.base, str)

    @cached_property
    def spec(self) -> ChannelSpec:
        """What its value is, as a channel."""
        ranged = self.low is not None and self.high is not None
        span = (self.high or 0.0) - (self.low or 0.0) if ranged else 0.0
        step = 0.01 if self.unit == "%" or 0 < span <= 5 else 0.1 if 0 < span <= 50 else 1.0
        unit: Unit = "colour" if self.is_colour else self.unit
        default: float | str = "#FFFFFF" if self.is_colour else float(self.low or 0.0)
        return ChannelSpec(
            DIAL_CHANNEL, "value", "Value", "look", unit, default, self.low, self.high, step, "The value that all linked channels read."
        )

    @model_validator(mode="after")
    def _one_kind(self) -> Self:
        values = [key.value for key in self.channel.keys] + ([self.channel.base] if self.channel.base is not None else [])
        if any(isinstance(value, tuple) for value in values):
            raise ValueError(f"dial '{self.name}' has a point; a dial holds a number or a colour")
        if len({isinstance(value, str) for value in values}) > 1:
            raise ValueError(f"dial '{self.name}' has both numbers and colours; make all its values one kind")
        if self.low is not None and self.high is not None and not self.low < self.high:
            raise ValueError(f"dial '{self.name}' goes from {self.low:g} to {self.high:g}; its lower limit must lie below its upper one")
        if self.channel.formula is not None:
            raise ValueError(f"dial '{self.name}' has a formula, which dials do not take; put the formula into the channel that reads the dial")
        if self.follows is not None and self.is_colour:
            raise ValueError(f"dial '{self.name}' holds colours, which cannot follow a sound; use a number dial")
        for value in values:
            if isinstance(value, int | float) and self._beyond(value):
                raise ValueError(f"dial '{self.name}' has the value {value:g}; its range is {self.range_words}")
        return self

    def _beyond(self, value: float) -> bool:
        return (self.low is not None and value < self.low) or (self.high is not None and value > self.high)

    @property
    def range_words(self) -> str:
        """Its range in words."""
        if self.low is not None and self.high is not None:
            return f"{self.low:g} to {self.high:g}"
        return f"{self.low:g} or more" if self.low is not None else f"{self.high:g} or less" if self.high is not None else "any number"
