"""A channel: one value over time, as keys with eases and two ends."""

import itertools
from typing import Any

from pydantic import Field, field_validator, model_validator

from vine_swing.motion.ease import Ease
from vine_swing.motion.ends import HOLD, End
from vine_swing.motion.values import Frame, Frozen, Value

MAX_KEYS = 20_000


class Key(Frozen):
    """A value at a frame, and the ease of the stretch that leaves it."""

    frame: Frame
    value: Value
    ease: Ease = "linear"


class Channel(Frozen):
    """One value over time. Without keys it is `base` (or, where that is left out, the channel's default)."""

    base: Value | None = None
    keys: tuple[Key, ...] = Field(default=(), max_length=MAX_KEYS)
    before: End = HOLD
    after: End = HOLD

    @model_validator(mode="before")
    @classmethod
    def _plain_value(cls, data: Any) -> Any:
        """A plain number or colour stands for a channel that never changes."""
        return {"base": data} if isinstance(data, int | float | str) and not isinstance(data, bool) else data

    @field_validator("keys")
    @classmethod
    def _in_order(cls, keys: tuple[Key, ...]) -> tuple[Key, ...]:
        ordered = tuple(sorted(keys, key=lambda key: key.frame))
        for before, after in itertools.pairwise(ordered):
            if before.frame == after.frame:
                raise ValueError(f"two keys share frame {after.frame:g}; keep one of them")
        return ordered

    def key_at(self, frame: float) -> Key | None:
        """The key exactly at a frame, if there is one."""
        return next((key for key in self.keys if key.frame == frame), None)
