"""Limits on JSON that nobody vouches for."""

from typing import Any

#: Fields of one JSON object: an object of a scene has at most some thousand channels. Each unknown field becomes a fault of its own, so millions of
#: them would exhaust the memory before the first is reported.
MOST_FIELDS = 10_000


def check_fields(data: Any) -> None:
    """Refuse parsed JSON in which an object has too many fields.

    Raises:
        ValueError: with the number of fields.
    """
    waiting = [data]
    while waiting:
        part = waiting.pop()
        if isinstance(part, dict):
            checked_object(part)
            waiting += [value for value in part.values() if isinstance(value, dict | list)]
        elif isinstance(part, list):
            waiting += [value for value in part if isinstance(value, dict | list)]


def checked_object(fields: dict[str, Any]) -> dict[str, Any]:
    """Return a JSON object unchanged: an `object_hook` for `json.loads`.

    Raises:
        ValueError: if it has too many fields.
    """
    if len(fields) > MOST_FIELDS:
        raise ValueError(f"an object has {len(fields)} fields; at most {MOST_FIELDS} are read")
    return fields


def has_lone_surrogates(data: Any) -> bool:
    """True if a text or a name of a field in parsed JSON has half of a surrogate pair, which no encoding can write (Unicode, 3.9)."""
    waiting = [data]
    while waiting:
        part = waiting.pop()
        if isinstance(part, str):
            if any("\ud800" <= character <= "\udfff" for character in part):
                return True
        elif isinstance(part, dict):
            waiting += [*part.keys(), *part.values()]
        elif isinstance(part, list):
            waiting += part
    return False
