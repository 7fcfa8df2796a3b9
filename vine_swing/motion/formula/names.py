"""Names in formulas: resolving them in a scene, and updating them when objects are renamed."""

import re
from collections.abc import Collection, Iterable, Mapping
from difflib import get_close_matches
from types import MappingProxyType

from vine_swing.motion.formula.tree import FormulaError, Reference, read, references

_NONE: Mapping[str, str] = MappingProxyType({})
_BRACES = re.compile(r"\{([^{}@]*)(@[^{}]*)?\}")


def split(text: str, objects: Collection[str]) -> tuple[str, str] | None:
    """The object and the channel that `Mill wheel.rotation` means among some names of objects; None for what is no channel.

    Names and channels may both have full stops in them: the longest name that fits is meant.
    """
    at = text.rfind(".")
    while at > 0:
        if text[:at] in objects:
            return text[:at], text[at + 1 :]
        at = text.rfind(".", 0, at)
    return None


def checked(text: str, channels: dict[str, Iterable[str]], dials: Iterable[str]) -> list[Reference]:
    """The references of a formula, if everything in it can be read.

    Args:
        text: the formula.
        channels: the names of channels that hold numbers, by the object's name.
        dials: the names of dials.

    Raises:
        FormulaError: with the place of the character, and the nearest name where one is unknown.
    """
    dials = list(dials)
    found = references(read(text))
    for one in found:
        if one.text in dials:
            continue
        parts = split(one.text, channels)
        if parts is None:
            known = [*channels, *dials]
            raise FormulaError(f"there is no '{one.text}' in this scene{_nearest(one.text.split('.')[0], known)}", one.at + 1)
        name, channel = parts
        if channel not in channels[name]:
            raise FormulaError(f"'{name}' has no channel '{channel}'{_nearest(channel, list(channels[name]))}", one.at + 2 + len(name))
    return found


def renamed(text: str, names: Collection[str], *, objects: Mapping[str, str] = _NONE, dials: Mapping[str, str] = _NONE) -> str:
    """A formula after objects or dials got other names.

    Args:
        text: the formula.
        names: the names of all objects before that.
        objects: the new names of objects by those they had. An object is named with a channel: `{Mill.x}`.
        dials: the same of dials. A dial is named by itself: `{Wind}`.
    """

    def one(match: re.Match[str]) -> str:
        inner, offset = match[1].strip(), match[2] or ""
        parts = split(inner, names)
        if parts is not None and parts[0] in objects:
            inner = f"{objects[parts[0]]}.{parts[1]}"
        elif inner in dials:
            inner = dials[inner]
        else:
            return match[0]
        return f"{{{inner}{' ' if offset else ''}{offset}}}"

    return _BRACES.sub(one, text)


def _nearest(name: str, known: list[str]) -> str:
    near = get_close_matches(name, known, n=1, cutoff=0.5)
    return f"; did you mean '{near[0]}'?" if near else f"; there is {', '.join(known[:12])}" if known else ""
