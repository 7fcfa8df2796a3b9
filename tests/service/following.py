"""What a page holds of a scene's motion after messages of the service, as it takes them up."""

from typing import Any


def taken_up(held: Any, message: Any) -> dict[str, Any]:
    """The motion a page holds after one more message: what it says is new, None is missing, the rest unchanged."""
    old = {} if message["whole"] else held["objects"]
    there = [*message["order"], *message["dials"], *message["copies"]]
    known = {owner: _object(old.get(owner, {}), message["objects"].get(owner, {})) for owner in there}
    objects = {owner: parts for owner, parts in known.items() if parts}
    return {**message, "objects": objects, "steps": message.get("steps", None if held is None else held["steps"])}


def _object(was: dict[str, Any], fresh: dict[str, Any]) -> dict[str, Any]:
    new = {name: part for name, part in fresh.items() if name != "whole"}
    return overlaid({} if fresh.get("whole") else was, new)


def overlaid(was: dict[str, Any], fresh: dict[str, Any]) -> dict[str, Any]:
    """Parts of an object after some were changed; those in groups, such as its channels, one by one."""
    found = dict(was)
    for name, part in fresh.items():
        if part is None:
            found.pop(name, None)
        elif name in ("channels", "turns", "bones"):
            found[name] = overlaid(was.get(name, {}), part)
        else:
            found[name] = part
    return found


def described(motion: dict[str, Any]) -> dict[str, Any]:
    """A motion without what tells nothing of it: empty groups, the revision, and whether all was sent."""
    objects = {owner: {name: part for name, part in parts.items() if part != {}} for owner, parts in motion["objects"].items()}
    return {**motion, "objects": objects, "revision": None, "whole": None}
