"""A channel: one value over time, as keys with eases and two ends."""

import itertools
from typing import Annotated, Any, Literal, Self

from pydantic import ConfigDict, Field, field_validator, model_validator

from vine_swing.motion.ease import Ease
from vine_swing.motion.ends import HOLD, End
from vine_swing.motion.formula.tree import MAX_LENGTH
from vine_swing.motion.values import Frame, Frozen, Number, Value

MAX_KEYS = 20_000


#: A handle: [frames, value] from its key.
Handle = tuple[Frame, Number]
Bend = Annotated[float, Field(strict=True, ge=-1, le=1)]
#: How a path goes from one of its keys to the next.
Way = Literal["straight", "bezier", "spline"]


#: For models with a field that files call `in`, which is a word of the language.
NAMED_IN = ConfigDict(validate_by_name=True, validate_by_alias=True, serialize_by_alias=True)


class Key(Frozen):
    """A value at a frame, and the ease of the stretch that leaves it.

    `out` and `in` are used by stretches with the ease "handles", as offsets from the key in frames and value; left out,
    they lie a third of the way along the straight line. `tension`, `continuity` and `bias` are used by "spline".

    The keys of a path are points. There `way` says how the path goes on from the key, `out` and `in` are [dx, dy], and
    the ease is the pace along the way alone. Left out, the way is a spline if the ease says so, a Bezier curve if one
    of the stretch's keys has a handle there, and straight otherwise.
    """

    model_config = NAMED_IN

    frame: Frame
    value: Value
    ease: Ease = "linear"
    out: Handle | None = None
    into: Annotated[Handle | None, Field(alias="in")] = None
    tension: Bend = 0.0
    continuity: Bend = 0.0
    bias: Bend = 0.0
    way: Way | None = None

    @property
    def is_point(self) -> bool:
        """Whether it is a key of a path."""
        return isinstance(self.value, tuple)

    @property
    def number(self) -> float:
        """The value of a key that holds a number."""
        assert isinstance(self.value, int | float), f"the key at frame {self.frame:g} holds {self.value!r}, not a number"
        return float(self.value)

    def scaled(self, value: float = 1.0, frames: float = 1.0) -> Self:
        """The same key with its handles scaled in value and in time."""

        def one(handle: tuple[float, float] | None) -> tuple[float, float] | None:
            return None if handle is None else (handle[0] * frames, handle[1] * value)

        # The handles of a path have no time in them.
        return self if self.is_point or (self.out is None and self.into is None) else self.but(out=one(self.out), into=one(self.into))

    def mirrored(self) -> Self:
        """The same key in time that runs backwards, but for its frame and its ease."""

        def one(handle: tuple[float, float] | None) -> tuple[float, float] | None:
            return handle if handle is None or self.is_point else (-handle[0], handle[1])

        return self.but(out=one(self.into), into=one(self.out), bias=-self.bias if self.bias else 0.0)


class Channel(Frozen):
    """One value over time. Without keys it is `base` (or, where that is left out, the channel's default).

    A setting of a rule may have a formula over that, in which `value` is what its keys or its base say. Channels of objects have a link
    rule for it, which keeps its place among their other rules.
    """

    base: Value | None = None
    keys: tuple[Key, ...] = Field(default=(), max_length=MAX_KEYS)
    before: End = HOLD
    after: End = HOLD
    formula: Annotated[str, Field(max_length=MAX_LENGTH)] | None = None

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
