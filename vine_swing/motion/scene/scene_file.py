"""Scene files in and out: JSON text ↔ the model, with faults named by their place."""

import base64
import json
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from vine_swing.motion.basics.errors import SceneFileError
from vine_swing.motion.scene.graph import LoopError, in_order
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

#: How many faults one message lists; the rest are counted.
MOST_FAULTS = 20


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
        scene = Scene.model_validate(data)
        in_order(scene)
    except ValidationError as error:
        raise SceneFileError(faults(error)) from error
    except LoopError as error:
        raise SceneFileError([str(error)]) from error
    return scene


def dump(scene: Scene, *, indent: int | None = 1) -> str:
    """The scene as file text; what equals its default is left out, so that files stay readable."""
    return json.dumps(to_data(scene), ensure_ascii=False, indent=indent)


def to_data(scene: Scene) -> dict[str, Any]:
    """The scene as plain JSON data, format and version first."""
    head = {"format": scene.format, "version": scene.version}
    data = scene.model_dump(mode="json", exclude_defaults=True, by_alias=True)
    for timeline, written in ((scene, data), *zip(scene.insets, data.get("insets", ()), strict=True)):
        _write_modes(timeline.objects, written.get("objects", ()))
    for picture, one in zip(scene.pictures, data.get("pictures", ()), strict=True):
        one["data"] = base64.b64encode(picture.content).decode()
    heard: set[str] = set()
    for sound, one in zip(scene.sounds, data.get("sounds", ()), strict=True):
        if sound.file not in heard:
            one["data"] = base64.b64encode(sound.content).decode()
        heard.add(sound.file)
    return head | data | {"name": scene.name, "fps": scene.fps, "length": scene.length, "size": list(scene.size)}


def _write_modes(things: Sequence[SceneObject], written: Sequence[dict[str, Any]]) -> None:
    """Have objects as plain data tell the modes of their rules that are not usual: what is left out is read as the usual mode of the rule's kind."""
    for thing, data in zip(things, written, strict=True):
        for rule, one in zip(thing.rules, data.get("rules", ()), strict=True):
            one.pop("mode", None)
            if rule.mode != rule.spec.usual_mode:
                one["mode"] = rule.mode


def load(path: str | Path) -> Scene:
    """The scene in a file.

    Raises:
        SceneFileError: if the file holds no scene.
        OSError: if it cannot be read.
    """
    return parse(Path(path).read_bytes())


def json_schema() -> dict[str, Any]:
    """The JSON Schema (draft 2020-12) of scene files."""
    schema = Scene.model_json_schema()
    # A plain number or colour may stand for a whole channel; that is a reader's kindness the model itself does not show.
    whole = schema["$defs"]["Channel"]
    value = whole["properties"]["base"]["anyOf"][0]
    schema["$defs"]["Channel"] = {"anyOf": [whole, value], "title": "Channel"}
    # A word may look like a colour: what a setting is, its rule says.
    setting = schema["$defs"]["Rule"]["properties"]["settings"]["additionalProperties"]
    setting["anyOf"] = setting.pop("oneOf")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "Vine Swing scene"}


def faults(error: ValidationError) -> list[str]:
    """The faults Pydantic found, as sentences with their place."""
    return sentences(error.errors(include_url=False))


def sentences(errors: Sequence[Any]) -> list[str]:
    """Pydantic's error details as sentences with their place; the first few of them, and how many more there are."""
    lines = list(dict.fromkeys(_sentence(fault) for fault in errors))
    if len(lines) > MOST_FAULTS:
        lines = [*lines[:MOST_FAULTS], f"and {len(lines) - MOST_FAULTS} more"]
    return lines


#: Fields whose value may have several forms that Pydantic tells apart by a word, which it adds to the place after them.
_SEVERAL_FORMS = {"objects", "object", "edits", "shape", "how"}


def _sentence(fault: Any) -> str:
    place = _place(fault["loc"])
    at = f"{place}: " if place else ""
    value = fault.get("input")
    shown = f"; it is {value!r}" if isinstance(value, int | float | str | bool) and len(repr(value)) < 60 else ""
    context = fault.get("ctx", {})
    match fault["type"]:
        case "extra_forbidden":
            return f"{at}this field is unknown; take it out or correct its name"
        case "missing":
            return f"{at}this field is missing"
        case "value_error":
            return f"{at}{context['error']}"
        case "finite_number":
            return f"{at}must be a finite number"
        case "union_tag_invalid":
            return f"{place}.{context['discriminator'].strip(chr(39))}: should be one of {context['expected_tags']}; it is '{context['tag']}'"
        case "union_tag_not_found":
            return f"{place}.{context['discriminator'].strip(chr(39))}: this field is missing"
        case _:
            # "Input should be …", "String should have …"
            _, should, what = fault["msg"].partition(" should ")
            return f"{at}{'should ' + what if should else fault['msg']}{shown}"


def _place(loc: Iterable[int | str]) -> str:
    """`objects[0].channels.x.keys[1].frame`, without the words for forms that Pydantic adds."""
    text = ""
    form_next = False
    for part in loc:
        if isinstance(part, int):
            text += f"[{part}]"
        elif form_next or part.startswith("as "):
            form_next = False
        else:
            text += f".{part}" if text else part
            form_next = part in _SEVERAL_FORMS
    return text


def _refuse_constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number JSON knows; write a finite number")
