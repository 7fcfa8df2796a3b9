"""Scene files in and out: JSON text ↔ the model, with faults named by their place."""

import json
from collections.abc import Iterable
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from vine_swing.motion.errors import SceneFileError
from vine_swing.motion.model import Scene

#: How many faults one message lists; the rest are counted.
MOST_FAULTS = 5


def parse(text: str | bytes) -> Scene:
    """The scene a file's text describes.

    Raises:
        SceneFileError: if the text is not JSON, or not a scene; it lists each fault with its place.
    """
    try:
        data = json.loads(text, parse_constant=_refuse_constant)
    except UnicodeDecodeError as error:
        raise SceneFileError([f"the file is not UTF-8 text (byte {error.start}); save it as UTF-8"]) from error
    except json.JSONDecodeError as error:
        raise SceneFileError([f"the file is not JSON: {error.msg} at line {error.lineno}, column {error.colno}"]) from error
    except (ValueError, RecursionError) as error:
        raise SceneFileError([f"the file is not JSON we can read: {str(error) or 'it is nested too deep'}"]) from error
    return from_data(data)


def from_data(data: Any) -> Scene:
    """The scene that parsed JSON describes.

    Raises:
        SceneFileError: listing each fault with its place.
    """
    if not isinstance(data, dict) or data.get("format") != "vine-swing-scene":
        raise SceneFileError(['this is not a scene file: it must be a JSON object with "format": "vine-swing-scene"'])
    try:
        return Scene.model_validate(data)
    except ValidationError as error:
        raise SceneFileError(faults(error)) from error


def dump(scene: Scene, *, indent: int | None = 1) -> str:
    """The scene as file text; what equals its default is left out, so that files stay readable."""
    return json.dumps(to_data(scene), ensure_ascii=False, indent=indent)


def to_data(scene: Scene) -> dict[str, Any]:
    """The scene as plain JSON data, format and version first."""
    head = {"format": scene.format, "version": scene.version}
    return (
        head
        | scene.model_dump(mode="json", exclude_defaults=True)
        | {"name": scene.name, "fps": scene.fps, "length": scene.length, "size": list(scene.size)}
    )


def load(path: str | Path) -> Scene:
    """The scene in a file.

    Raises:
        SceneFileError: if the file holds no scene.
        OSError: if it cannot be read.
    """
    return parse(Path(path).read_bytes())


def faults(error: ValidationError) -> list[str]:
    """The faults Pydantic found, as sentences with their place."""
    every = error.errors(include_url=False, include_context=True, include_input=True)
    # Where a value may have several forms, each form complains; the deepest complaints at a place are the useful ones.
    lines = list(dict.fromkeys(_sentence(fault) for fault in every))
    if len(lines) > MOST_FAULTS:
        lines = [*lines[:MOST_FAULTS], f"and {len(lines) - MOST_FAULTS} more"]
    return lines


#: Names of alternatives that Pydantic adds to a place; they are not in the file.
_ALTERNATIVES = {"shape", "group", "number", "colour", "named", "bezier", "points", "spring", "bounce", "ellipse", "outline"}


def _sentence(fault: Any) -> str:
    place = _place(fault["loc"])
    value = fault.get("input")
    shown = f"; it is {value!r}" if isinstance(value, int | float | str | bool) and len(repr(value)) < 60 else ""
    match fault["type"]:
        case "extra_forbidden":
            return f"{place}: this field is unknown; take it out or correct its name"
        case "missing":
            return f"{place}: this field is missing"
        case "value_error":
            said = str(fault["ctx"]["error"])
            return f"{place}: {said}" if place else said
        case "finite_number":
            return f"{place}: must be a finite number"
        case _:
            message = fault["msg"].removeprefix("Input should be ").removeprefix("Value error, ")
            return f"{place}: should be {message}{shown}"


def _place(loc: Iterable[int | str]) -> str:
    """`objects[0].channels.x.keys[1].frame`, without the names of alternatives Pydantic adds."""
    text = ""
    last: int | str = ""
    for part in loc:
        if isinstance(part, int):
            text += f"[{part}]"
        elif part not in _ALTERNATIVES or last == part:  # a field may be named like the alternative it is in
            text += f".{part}" if text else part
        last = part
    return text


def _refuse_constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number JSON knows; write a finite number")
