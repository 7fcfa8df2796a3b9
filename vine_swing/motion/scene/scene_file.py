"""Scene files in and out: JSON text ↔ the model, with faults named by their place."""

import base64
import json
import re
from collections.abc import Callable, Iterable, Sequence
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError

from vine_swing.motion.basics.errors import NotJson, SceneFileError
from vine_swing.motion.basics.json_size import checked_object, has_lone_surrogates
from vine_swing.motion.basics.report import Report, unreported
from vine_swing.motion.scene.cues import MAX_OBJECTS
from vine_swing.motion.scene.graph import LoopError, in_order
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.timeline import MAX_INSETS

#: How many faults one message lists; the rest are counted.
MOST_FAULTS = 20
_OBJECT: TypeAdapter[SceneObject] = TypeAdapter(SceneObject)
_SURROGATE = re.compile(rb"\\u[dD][89a-fA-F]|\xed[\xa0-\xbf]")


def parse(text: str | bytes, *, report: Report = unreported) -> Scene:
    """Return the scene that a file's text describes.

    Args:
        text: JSON, UTF-8 where it is bytes.
        report: called with the share that is done, 0…1.

    Raises:
        SceneFileError: if the text is not JSON, or not a scene; it lists the first faults with their locations.
    """
    return from_data(_json_of(text, parse_constant=_refuse_constant), report=report)


def _json_of(text: str | bytes, *, parse_constant: Callable[[str], Any] | None) -> Any:
    try:
        data = json.loads(text, parse_constant=parse_constant, object_hook=checked_object)
    except UnicodeDecodeError as error:
        raise NotJson([f"the file is not UTF-8 text (byte {error.start}); save it as UTF-8"]) from error
    except json.JSONDecodeError as error:
        raise NotJson([f"the file is not JSON: {error.msg} at line {error.lineno}, column {error.colno}"]) from error
    except (ValueError, RecursionError) as error:
        raise SceneFileError([f"the file is not JSON we can read: {str(error) or 'it is nested too deep'}"]) from error
    if _may_have_surrogates(text) and has_lone_surrogates(data):
        raise SceneFileError(["the file has half of a surrogate pair in a text, which is no character; write the whole pair"])
    return data


def parse_fields(text: str | bytes, *, report: Report = unreported) -> Scene:
    """Return the scene that JSON describes in which `format` and `version` may be missing; raises and reports as `parse`."""
    # NaN is left to the model, which names the field.
    data = _json_of(text, parse_constant=None)
    if not isinstance(data, dict):
        raise SceneFileError(["this should be a JSON object, with the fields of a scene"])
    return from_data({"format": "vine-swing-scene"} | data, report=report)


def from_data(data: Any, *, report: Report = unreported) -> Scene:
    """Return the scene that parsed JSON describes; raises and reports as `parse`.

    Objects are validated one by one: reading a large scene must not keep other threads waiting, and the first faults are enough.
    """
    if not isinstance(data, dict) or data.get("format") != "vine-swing-scene":
        raise SceneFileError(['this is not a scene file: it must be a JSON object with "format": "vine-swing-scene"'])
    try:
        scene = Scene.model_validate(_with_objects(data, report))
        in_order(scene)
    except ValidationError as error:
        raise SceneFileError(faults(error)) from error
    except LoopError as error:
        raise SceneFileError([str(error)]) from error
    return scene


def _with_objects(data: dict[str, Any], report: Report) -> dict[str, Any]:
    """Return the data of a scene with its objects, and those of its inner scenes, as models.

    Raises:
        SceneFileError: listing the first faults of objects.
    """
    insets = data.get("insets")
    inner = [one for one in insets if isinstance(one, dict)] if isinstance(insets, list) else []
    total = sum(len(one["objects"]) for one in (data, *inner) if isinstance(one.get("objects"), list))
    validated, found = 0, list[str]()

    def objects_of(timeline: dict[str, Any], location: str) -> dict[str, Any]:
        nonlocal validated
        given = timeline.get("objects")
        if not isinstance(given, list) or len(given) > MAX_OBJECTS:
            return timeline
        objects = []
        for number, one in enumerate(given):
            try:
                objects.append(_OBJECT.validate_python(one))
            except ValidationError as error:
                found.extend(sentences([fault | {"loc": (location + "objects", number, *fault["loc"])} for fault in error.errors(include_url=False)]))
                if len(found) >= MOST_FAULTS:
                    raise SceneFileError([*found[:MOST_FAULTS], "and perhaps more"]) from error
            validated += 1
            if validated % 16 == 0:
                report(validated / total)
        return timeline | {"objects": objects}

    whole = objects_of(data, "")
    if isinstance(insets, list):
        whole |= {"insets": [objects_of(one, f"insets[{n}].") if isinstance(one, dict) else one for n, one in enumerate(insets[: MAX_INSETS + 1])]}
    if found:
        raise SceneFileError(found)
    return whole


def dump(scene: Scene, *, indent: int | None = 1) -> str:
    """The scene as file text; what equals its default is left out, so that files stay readable."""
    return json.dumps(to_data(scene), ensure_ascii=False, indent=indent)


def to_data(scene: Scene, *, contents: bool = True) -> dict[str, Any]:
    """The scene as plain JSON data, format and version first.

    Args:
        contents: whether pictures and sounds are included, as base64.
    """
    head = {"format": scene.format, "version": scene.version}
    data = scene.model_dump(mode="json", exclude_defaults=True, by_alias=True)
    for timeline, written in ((scene, data), *zip(scene.insets, data.get("insets", ()), strict=True)):
        _write_modes(timeline.objects, written.get("objects", ()))
    for picture, one in zip(scene.pictures, data.get("pictures", ()), strict=True) if contents else ():
        one["data"] = base64.b64encode(picture.content).decode()
    heard: set[str] = set()
    for sound, one in zip(scene.sounds, data.get("sounds", ()), strict=True) if contents else ():
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
    # A plain number or colour may represent a whole channel; that is a reader's kindness the model itself does not show.
    whole = schema["$defs"]["Channel"]
    value = whole["properties"]["base"]["anyOf"][0]
    schema["$defs"]["Channel"] = {"anyOf": [whole, value], "title": "Channel"}
    # A word may look like a colour: the rule declares the kind of each setting.
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


def _may_have_surrogates(text: str | bytes) -> bool:
    """True if a text has an escape or, as bytes, an encoding of a surrogate: only then its strings are looked through."""
    return _SURROGATE.search(text.encode("utf-8", "surrogatepass") if isinstance(text, str) else text) is not None


def _refuse_constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number JSON knows; write a finite number")
