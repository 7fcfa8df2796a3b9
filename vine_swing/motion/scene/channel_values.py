"""Checks that values fit the kind of their channel."""

from typing import Any, Literal

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.specs import ChannelSpec
from vine_swing.motion.basics.values import Value, Words
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.rules.rule import SETTING
from vine_swing.motion.timing.channel import Channel, Key

#: Keys of one outline.
MAX_OUTLINE_KEYS = 2_000
_KINDS: dict[str, tuple[str, Any]] = {
    "number": ("a number", (int, float)),
    "colour": ("a colour such as '#F2932B'", str),
    "point": ("a point such as [640, 360]", tuple),
    "outline": ("SVG path data such as 'M 0 0 L 40 0 L 20 30 Z'", str),
    "look": ("left to rules", ()),
    "words": ("words such as {'text': 'Mail!'}", Words),
}
#: Kinds whose keys have no handles, as words.
_HANDLELESS = {"colour": "colours", "outline": "outlines", "words": "words"}


def check_values(channel: Channel, spec: ChannelSpec, where: str) -> None:
    """Refuse a number where a colour belongs, a point where a number belongs, and so on.

    Raises:
        ValueError: naming `where`, the value and what would fit.
    """
    if channel.formula is not None and SETTING not in spec.name:
        raise ValueError(f"{where}: a formula belongs in a link rule here; only settings of rules have their own")
    kind = spec.kind
    if kind == "look" and (channel.keys or channel.base is not None):
        raise ValueError(f"{where}: a look has no values of its own; key the settings of its rules")
    if channel.base is not None:
        if kind == "point":
            raise ValueError(f"{where}: a path has no base; without keys, x and y say where the object is")
        if kind == "outline":
            raise ValueError(f"{where}: an outline has no base; without keys, the shape says what it is")
        if kind == "words":
            raise ValueError(f"{where}: words have no base; without keys, the text of the shape is what it says")
        _check_value(channel.base, kind, where, "base")
    if kind == "outline":
        _check_outlines(channel, where)
    for key in channel.keys:
        if kind in _HANDLELESS and (key.out is not None or key.into is not None):
            raise ValueError(f"{where}: the key at frame {key.frame:g} has handles, which {_HANDLELESS[kind]} cannot have; use spline or an ease")
        if kind != "outline" and key.meets is not None:
            raise ValueError(f"{where}: the key at frame {key.frame:g} says which point it meets, which only keys of an outline can; take it out")
        if kind != "point" and key.way is not None:
            raise ValueError(f"{where}: the key at frame {key.frame:g} has a way, which only keys of a path can have; take it out")
        _check_value(key.value, kind, where, key)


def _check_value(value: Value, kind: str, where: str, of: Key | Literal["base"]) -> None:
    wanted, form = _KINDS[kind]
    if not isinstance(value, form) or (isinstance(value, str) and value.startswith("#") != (kind == "colour")):
        what = of if isinstance(of, str) else f"key at frame {of.frame:g}"
        raise ValueError(f"{where}: the {what} is {value!r}; it must be {wanted}")


def _check_outlines(channel: Channel, where: str) -> None:
    if len(channel.keys) > MAX_OUTLINE_KEYS:
        raise ValueError(f"{where}: there are {len(channel.keys)} keys; an outline has at most {MAX_OUTLINE_KEYS}")
    for key in channel.keys:
        if isinstance(key.value, str) and not key.value.startswith("#"):
            try:
                parse_path(key.value)
            except MotionError as error:
                raise ValueError(f"{where}: the key at frame {key.frame:g}: {error}") from error
