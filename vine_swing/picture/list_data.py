"""The paint list as plain data, for the page and for the files of tests/picture/cases. See docs/paint-list.md."""

import base64
from collections.abc import Callable
from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np

from vine_swing.motion.basics import colour
from vine_swing.motion.curves.series import OutlineSeries
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.picture.effects import EFFECTS, Mask
from vine_swing.picture.paint_list import Copies, Effect, Fill, Gradient, Group, Instance, PaintList, Picture, Step, Stroke
from vine_swing.picture.tracks import OutlineTrack, Track

Data = dict[str, Any]
#: The name of each step in data.
OPERATIONS: dict[str, type[Step]] = {"fill": Fill, "stroke": Stroke, "picture": Picture, "group": Group, "instance": Instance, "copies": Copies}
_NAMES = {kind: name for name, kind in OPERATIONS.items()}
_EFFECT_NAMES = {kind: name for name, kind in EFFECTS.items()}


def steps_data(steps: tuple[Step, ...]) -> list[Data]:
    """Steps with the addresses of their tracks instead of values; what is as usual is left out."""
    return [_step_data(step) for step in steps]


def _step_data(step: Step) -> Data:
    data: Data = {"op": _NAMES[type(step)], "id": step.id}
    if step.opacity:
        data["opacity"] = [_address(track) for track in step.opacity]
    if not step.shown:
        data["shown"] = False
    match step:
        case Fill():
            data |= _gradient_data(step.gradient)
            data |= {"matrix": _address(step.matrix), "outline": _outline_address(step.outline), "colour": _address(step.colour)}
            data |= {"rule": step.rule} if step.rule != "nonzero" else {}
        case Stroke():
            data |= _gradient_data(step.gradient)
            data |= {"matrix": _address(step.matrix), "outline": _outline_address(step.outline), "colour": _address(step.colour)}
            data["width"] = _address(step.width)
            data |= {"cap": step.cap} if step.cap != "round" else {}
            data |= {"join": step.join} if step.join != "round" else {}
            data |= {"dash": list(step.dash)} if step.dash else {}
            data |= {"offset": _address(step.offset)} if step.offset is not None else {}
        case Picture():
            data |= {"matrix": _address(step.matrix), "size": _address(step.size), "page": _address(step.page), "smooth": step.smooth}
            data["pictures"] = step.kept.owner or step.id
            data |= {"fit": step.fit} if step.fit != "stretch" else {}
            data |= {"tile": step.tile} if step.tile != "none" else {}
        case Group():
            data |= {"blend": step.blend, "steps": steps_data(step.children)}
            data |= {"effects": [_effect_data(effect) for effect in step.effects]} if step.effects else {}
        case Instance():
            data |= {"matrix": _address(step.matrix), "delay": step.delay, "steps": steps_data(step.children)}
            data |= {"frames": _address(step.frames)} if step.frames is not None else {}
        case Copies():
            data |= {"matrices": _address(step.matrices), "delays": list(step.delays), "each": [steps_data(steps) for steps in step.each]}
            data |= {name: _address(track) for name, track in (("fades", step.fades), ("order", step.order)) if track is not None}
    return data


def _gradient_data(gradient: Gradient | None) -> Data:
    if gradient is None:
        return {}
    stops = [[_address(place), _address(colour)] for place, colour in gradient.stops]
    return {"gradient": {"kind": gradient.kind, "ends": [_address(end) for end in gradient.ends], "stops": stops}}


def _effect_data(effect: Effect) -> Data:
    data: Data = {"effect": _EFFECT_NAMES[type(effect)]}
    for part in fields(effect):
        value = getattr(effect, part.name)
        if isinstance(value, Track):
            data[part.name] = _address(value)
        elif part.name == "steps":
            data["steps"] = steps_data(value)
        elif value is not None:
            data[part.name] = value
    return data


def _address(track: Track) -> list[Any]:
    """Whose it is, which it is, and the frame of its first row where that is not 0."""
    return [track.owner, track.name, *([track.first] if track.first else [])]


def _outline_address(track: OutlineTrack) -> Any:
    return [track.owner, track.first] if track.first else track.owner


@dataclass(frozen=True)
class _Known:
    """The values of a file, by their addresses."""

    track: Callable[[list[Any]], Track]
    outlines: dict[str, OutlineTrack]
    pictures: dict[str, tuple[bytes, ...]]


def read(data: Data) -> PaintList:
    """The paint list of a file: `size`, `background`, `steps`, and by owner `tracks` (rows by name), `outlines` (`which`, and `outlines` as SVG
    path data) and `pictures` (in base64).

    Raises:
        KeyError: for a step that does not exist, or an address nothing is found at.
    """
    tracks: dict[tuple[str, str], Track] = {}
    for owner, named in data["tracks"].items():
        for name, rows in named.items():
            values = np.array(rows, np.float64)
            tracks[owner, name] = Track(owner, name, values[:, 0] if values.shape[1] == 1 else values)
    outlines = {
        owner: OutlineTrack(OutlineSeries.of([parse_path(d) for d in one["outlines"]], np.array(one["which"], np.intp)), owner)
        for owner, one in data.get("outlines", {}).items()
    }
    pictures = {owner: tuple(map(base64.b64decode, encoded)) for owner, encoded in data.get("pictures", {}).items()}
    known = _Known(lambda address: replace(tracks[address[0], address[1]], first=address[2] if len(address) > 2 else 0), outlines, pictures)
    width, height = data["size"]
    return PaintList((width, height), colour.parse_hex(data["background"]), tuple(_read_step(step, known) for step in data["steps"]))


def _read_step(data: Data, known: _Known) -> Step:
    kind = OPERATIONS[data["op"]]
    given: Data = {"id": data["id"], "shown": data.get("shown", True)}
    given["opacity"] = tuple(known.track(address) for address in data.get("opacity", ()))
    for name in ("matrix", "colour", "width", "size", "page", "matrices", "fades", "order", "frames", "offset"):
        if name in data:
            given[name] = known.track(data[name])
    if "outline" in data:
        owner, first = data["outline"] if isinstance(data["outline"], list) else (data["outline"], 0)
        given["outline"] = replace(known.outlines[owner], first=first)
    if "pictures" in data:
        given["pictures"] = known.pictures[data["pictures"]]
    if "steps" in data:
        given["children"] = tuple(_read_step(step, known) for step in data["steps"])
    if "each" in data:
        given["each"] = tuple(tuple(_read_step(step, known) for step in steps) for steps in data["each"])
        given["delays"] = tuple(data["delays"])
    given |= {name: data[name] for name in ("smooth", "blend", "delay", "rule", "fit", "tile", "cap", "join") if name in data}
    if "dash" in data:
        given["dash"] = tuple(data["dash"])
    if "gradient" in data:
        written = data["gradient"]
        stops = tuple((known.track(place), known.track(of)) for place, of in written["stops"])
        x0, y0, x1, y1 = map(known.track, written["ends"])
        given["gradient"] = Gradient(written["kind"], (x0, y0, x1, y1), stops)
    if "effects" in data:
        given["effects"] = tuple(_read_effect(one, known) for one in data["effects"])
    return kind(**given)


def _read_effect(data: Data, known: _Known) -> Effect:
    kind = EFFECTS[data["effect"]]
    plain = {name: value for name, value in data.items() if name not in ("effect", "steps")}
    given: Data = {name: known.track(value) if isinstance(value, list) else value for name, value in plain.items()}
    if kind is Mask:
        given["steps"] = tuple(_read_step(step, known) for step in data["steps"])
    return kind(**given)
