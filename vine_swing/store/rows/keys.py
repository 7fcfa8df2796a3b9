"""Keys to rows and back: there may be hundreds of thousands of them, so each is written and read without detours."""

import json
from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from vine_swing.motion.basics.values import Words
from vine_swing.motion.timing.channel import Key
from vine_swing.motion.timing.ease import Ease

#: The columns of a key, beside its channel and its frame.
KEY = ("value", "ease", "out_frames", "out_value", "in_frames", "in_value", "tension", "continuity", "bias", "way", "value_y", "meets")
#: The only ones that nearly all keys need: where no others are written, those take the defaults of the table.
PLAIN = KEY[:2]
_EASE: TypeAdapter[Ease] = TypeAdapter(Ease)


def read_key(frame: float, columns: Sequence[Any]) -> dict[str, Any]:
    """A key as the model takes it, from its frame and its columns `KEY`. There are very many, so what is as by default is left to the model."""
    value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias, way, value_y, meets = columns
    if isinstance(value, str) and value.startswith("{"):
        value = json.loads(value)
    key: dict[str, Any] = {"frame": frame, "value": value if value_y is None else (value, value_y), "ease": ease_data(ease)}
    if out_frames is not None:
        key["out"] = out_frames, out_value
    if in_frames is not None:
        key["in"] = in_frames, in_value
    if tension or continuity or bias:
        key |= {"tension": tension, "continuity": continuity, "bias": bias}
    if way is not None:
        key["way"] = way
    if meets is not None:
        key["meets"] = tuple(json.loads(meets))
    return key


#: Thousands of keys share a few eases.
@lru_cache(maxsize=4096)
def _ease_text(ease: Ease) -> str:
    return _EASE.dump_json(ease).decode()


@lru_cache(maxsize=4096)
def ease_data(text: str) -> Any:
    """An ease as the model takes it, from what its column holds."""
    return json.loads(text)


_PLAIN_FIELDS = frozenset({"frame", *PLAIN})


def is_plain(key: Key) -> bool:
    """Whether a key says no more than its frame and its columns `PLAIN` hold: everything else was left out when it was made."""
    return key.__pydantic_fields_set__ <= _PLAIN_FIELDS and isinstance(key.value, (float, str))


def plain_values(key: Key) -> tuple[Any, ...]:
    """What the columns `PLAIN` hold of a key that is plain."""
    return key.value, _ease_text(key.ease)


def key_values(key: Key) -> tuple[Any, ...]:
    """What the columns `KEY` hold of a key."""
    ease = _ease_text(key.ease)
    # A point takes two columns; whatever else a key holds takes the first, words as they are in a file.
    value, y = key.value if isinstance(key.value, tuple) else (key.value, None)
    if isinstance(value, Words):
        value = value.model_dump_json()
    meets = None if key.meets is None else json.dumps(key.meets)
    return value, ease, *(key.out or (None, None)), *(key.into or (None, None)), key.tension, key.continuity, key.bias, key.way, y, meets
