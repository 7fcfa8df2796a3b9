"""A channel: one value over time, as keys with eases and two ends."""

import itertools
import operator
from bisect import bisect_left
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Any, Literal, Self

import numpy as np
from numpy.typing import NDArray
from pydantic import ConfigDict, Field, field_validator, model_validator

from vine_swing.motion.basics.values import Frame, Frozen, Number, PointNumber, Text, Value, Words
from vine_swing.motion.formula.tree import MAX_LENGTH
from vine_swing.motion.timing.ease import Ease, EaseCurve, build
from vine_swing.motion.timing.ends import HOLD, End, turn_marks

MAX_KEYS = 20_000
SHAPED_BY_KEYS = frozenset({"handles", "spline"})
LINEAR = build("linear")


#: A handle: [frames, value] from its key.
Handle = tuple[Frame, Number]
Bend = Annotated[float, Field(strict=True, ge=-1, le=1)]
#: A point of an outline, and the point of another that it goes to.
Meeting = tuple[PointNumber, PointNumber]
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

    The keys of an outline hold SVG path data. `meets` names a point of this key's outline and the one of the next key's outline it goes to, both
    counted from 0; left out, points go where they have the least way.
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
    meets: Meeting | None = None

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
        return self if self.is_point or (self.out is None and self.into is None) else self.copy_with(out=one(self.out), into=one(self.into))

    def mirrored(self) -> Self:
        """The same key in time that runs backwards, but for its frame and its ease."""

        def one(handle: tuple[float, float] | None) -> tuple[float, float] | None:
            return handle if handle is None or self.is_point else (-handle[0], handle[1])

        return self.copy_with(out=one(self.into), into=one(self.out), bias=-self.bias if self.bias else 0.0)


#: What a row of `Columns.bends` begins with: how the stretch that leaves the key is shaped.
BY_EASE, BY_HANDLES, BY_SPLINE = 0.0, 1.0, 2.0


def _bend(key: Key) -> tuple[float, ...]:
    shaped = {"handles": BY_HANDLES, "spline": BY_SPLINE}.get(key.ease, BY_EASE) if isinstance(key.ease, str) else BY_EASE
    # Handles of points are in the picture and shape the path, not the pace along it.
    out, into = (None, None) if isinstance(key.value, tuple) else (key.out, key.into)
    return shaped, key.tension, key.continuity, key.bias, *(out or (np.nan, np.nan)), *(into or (np.nan, np.nan))


@dataclass(frozen=True, slots=True, eq=False)
class Columns:
    """The k keys of a channel as arrays, made once per channel.

    frames, values: (k,); values are empty unless they are numbers.
    codes: (k,), the number of the ease curve of each key's stretch; curves: those curves by their numbers.
    bends: (k, 8) if some stretch is shaped by its keys, else None: BY_EASE, BY_HANDLES or BY_SPLINE, tension, continuity, bias, the handle
        out as frames and value, the handle in; NaN for a handle that is left out.
    ends: what the channel does past its keys, as (first frame, last frame, (mode, times) before, (mode, times) after); None if it holds.
    """

    frames: NDArray[np.float64]
    values: NDArray[np.float64]
    codes: NDArray[np.int64]
    curves: dict[int, EaseCurve]
    bends: NDArray[np.float64] | None
    ends: tuple[float, float, tuple[str, int | None], tuple[str, int | None]] | None


class Channel(Frozen):
    """One value over time. Without keys it is `base` (or, where that is left out, the channel's default).

    A setting of a rule may have a formula over that, in which `value` is what its keys or its base say. Channels of objects have a link
    rule for it, which keeps its place among their other rules.
    """

    base: Value | None = None
    keys: tuple[Key, ...] = Field(default=(), max_length=MAX_KEYS)
    before: End = HOLD
    after: End = HOLD
    formula: Annotated[Text, Field(max_length=MAX_LENGTH)] | None = None

    @model_validator(mode="before")
    @classmethod
    def _plain_value(cls, data: Any) -> Any:
        """A plain number or colour represents a channel that never changes."""
        return {"base": data} if isinstance(data, int | float | str) and not isinstance(data, bool) else data

    @field_validator("keys")
    @classmethod
    def _in_order(cls, keys: tuple[Key, ...]) -> tuple[Key, ...]:
        # Most files have them in order already.
        frames = [key.frame for key in keys]
        if all(map(operator.lt, frames, frames[1:])):
            return keys
        ordered = tuple(sorted(keys, key=lambda key: key.frame))
        for before, after in itertools.pairwise(ordered):
            if before.frame == after.frame:
                raise ValueError(f"two keys share frame {after.frame:g}; keep one of them")
        return ordered

    @property
    def keys_colours(self) -> bool:
        """Whether its keys hold colours."""
        return bool(self.keys) and isinstance(self.keys[0].value, str) and self.keys[0].value.startswith("#")

    @property
    def said(self) -> list[str]:
        """What its keys hold, of a channel of words."""
        return [key.value.text for key in self.keys if isinstance(key.value, Words)]

    @property
    def as_numbers(self) -> "Channel":
        """The channel as one that can be computed: of words, which of its keys' words are said, counted from 0; any other is itself."""
        return self._which_words if self.keys and isinstance(self.keys[0].value, Words) else self

    @cached_property
    def _which_words(self) -> "Channel":
        # Words change all at once, and what would climb starts over.
        keys = tuple(key.copy_with(value=float(which), ease="hold") for which, key in enumerate(self.keys))
        before, after = (end.copy_with(mode="loop") if end.mode == "climb" else end for end in (self.before, self.after))
        return self.copy_with(keys=keys, before=before, after=after)

    @cached_property
    def columns(self) -> Columns:
        """The keys as columns."""
        keys = self.keys
        frames = np.array([key.frame for key in keys], dtype=float)
        shaped = [isinstance(key.ease, str) and key.ease in SHAPED_BY_KEYS for key in keys]
        curves = [LINEAR if bent else build(key.ease) for key, bent in zip(keys, shaped, strict=True)]
        bends = np.array([_bend(key) for key in keys]) if any(shaped) else None
        values = np.array([key.value for key in keys], dtype=float) if isinstance(keys[0].value, int | float) else np.empty(0)
        holds = len(keys) < 2 or all(end.mode == "hold" or end.times == 0 for end in (self.before, self.after))
        ends = None if holds else (keys[0].frame, keys[-1].frame, (self.before.mode, self.before.times), (self.after.mode, self.after.times))
        codes = np.array([curve.number for curve in curves])
        return Columns(frames, values, codes, {curve.number: curve for curve in curves}, bends, ends)

    @cached_property
    def whole(self) -> bool:
        """Whether all keys are on whole frames."""
        return all(key.frame == round(key.frame) for key in self.keys)

    def turns(self, length: int) -> list[float]:
        """The frames of a scene of `length` frames at which an end that repeats the keys begins a new turn, in order; see `turn_marks`."""
        return turn_marks(self.keys[0].frame, self.keys[-1].frame, self.before, self.after, length) if self.keys else []

    def key_at(self, frame: float) -> Key | None:
        """The key exactly at a frame, if there is one."""
        place = bisect_left(self.keys, frame, key=lambda key: key.frame)
        return self.keys[place] if place < len(self.keys) and self.keys[place].frame == frame else None
