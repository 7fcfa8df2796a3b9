"""Small scenes with looks, one and two at a time, and paint lists as case files hold them."""

from collections.abc import Iterator
from itertools import permutations
from typing import Any

from tests.motion.scenes import scene
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.effects import Mask
from vine_swing.picture.list_data import steps_data
from vine_swing.picture.paint_list import Copies, Fill, Group, Instance, PaintList, Picture, Step, Stroke
from vine_swing.picture.tracks import OutlineTrack, Track

#: One rule of every kind and way of going about it, by a name.
LOOKS: dict[str, tuple[str, dict[str, Any]]] = {
    "shadow": ("shadow", {"dx": 9, "dy": 7.5, "blur": 4, "opacity": 0.6}),
    "hard-shadow": ("shadow", {"dx": -6, "dy": 5, "blur": 0, "opacity": 1, "colour": "#D0365B"}),
    "glow": ("glow", {"size": 5, "strength": 2.4}),
    "glow-over": ("glow", {"size": 4, "strength": 0.8, "lies": "over"}),
    "blur": ("blur", {"size": 2.5}),
    "blur-across": ("blur", {"size": 5, "way": "across", "angle": 30}),
    "blur-level": ("blur", {"size": 5, "way": "across"}),
    "fringe": ("fringe", {"distance": 3.3, "angle": 40}),
    "fringe-outward": ("fringe", {"distance": 9, "way": "outward"}),
    "mask": ("mask", {"by": "hole", "feather": 3}),
    "mask-outside": ("mask", {"by": "hole", "side": "outside"}),
    "mask-lightness": ("mask", {"by": "hole", "reads": "lightness", "feather": 1.5}),
    "recolour": ("recolour", {"hue": 70, "saturation": 0.6, "brightness": 1.1}),
    "recolour-two": ("recolour", {"share": 0.8}),
}


def rule(name: str, key: str = "") -> dict[str, Any]:
    """The rule of a look."""
    kind, settings = LOOKS[name]
    return {"id": f"r-{name}{key}", "kind": kind, "settings": settings}


def looked(*names: str) -> Scene:
    """A group of a star with a thick line and half of a disc, with some looks, turned and beside something else."""
    rules = [rule(name, str(n)) for n, name in enumerate(names)]

    def drawn(object_id: str, kind: str, parent: str | None, **channels: Any) -> dict[str, Any]:
        named = {name.replace("_", "."): value for name, value in channels.items()}
        return {"id": object_id, "name": object_id, "kind": "shape", "shape": {"type": kind}, "parent": parent, "channels": named}

    return scene(
        drawn("ground", "rectangle", None, x=120, y=90, width=260, height=60, fill="#8FB08A"),
        drawn("hole", "ellipse", None, x=128, y=80, width=90, height=70, fill="#E8C86A") | {"shown": False},
        {"id": "both", "name": "Both", "kind": "group", "channels": {"x": 118, "y": 88, "rotation": 20}, "rules": rules},
        drawn("star", "star", "both", x=-12, width=90, height=90, stroke_width=5, fill="#F2932B"),
        drawn("disc", "ellipse", "both", x=34, y=10, width=50, height=50, fill="#2F6B8FB0"),
        size=[240, 180],
        length=1,
    )


def alone(name: str, *, zoomed: bool = False) -> Scene:
    """A look on one disc without a line, which a camera enlarges and turns if asked."""
    disc = {"id": "disc", "name": "Disc", "kind": "shape", "shape": {"type": "ellipse"}, "rules": [rule(name)]}
    hole = {
        "id": "hole",
        "name": "Hole",
        "kind": "shape",
        "shape": {"type": "star"},
        "shown": False,
        "channels": {"x": 130, "y": 88, "fill": "#E8C86A"},
    }
    camera = {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": 116, "y": 90, "zoom": 1.4, "rotation": 25}}
    objects = [disc | {"channels": {"x": 118, "y": 88, "width": 100, "height": 70}}, hole, *([camera] if zoomed else [])]
    return scene(*objects, size=[240, 180], length=1)


def pairs() -> Iterator[tuple[str, ...]]:
    """Every look alone, and every two of different names in both orders."""
    yield from ((name,) for name in LOOKS)
    yield from permutations(LOOKS, 2)


def as_case(listed: PaintList) -> dict[str, Any]:
    """A paint list with all of its values, as case files hold one."""
    data: dict[str, Any] = {"size": list(listed.size), "background": "#F7F2E7", "tracks": {}, "outlines": {}, "steps": steps_data(listed.steps)}
    for track in _tracks(listed.steps):
        if isinstance(track, OutlineTrack):
            outlines = [path_data(one) for one in track.outlines]
            bounds = [one.bounds() for one in track.outlines]
            data["outlines"][track.owner] = {"which": track.which.tolist(), "outlines": outlines, "bounds": bounds}
        else:
            rows = track.values if track.values.ndim > 1 else track.values[:, None]
            data["tracks"].setdefault(track.owner, {})[track.name] = rows.tolist()
    return data


def _tracks(steps: tuple[Step, ...]) -> Iterator[Track | OutlineTrack]:
    for step in steps:
        yield from step.opacity
        match step:
            case Fill() | Stroke() | Picture():
                yield from (one for one in vars(step).values() if isinstance(one, Track | OutlineTrack))
                if not isinstance(step, Picture) and step.gradient is not None:
                    yield from step.gradient.tracks
            case Instance():
                yield step.matrix
                yield from _tracks(step.children)
            case Group():
                yield from _tracks(step.children)
                for effect in step.effects:
                    yield from effect.tracks
                    yield from _tracks(effect.steps) if isinstance(effect, Mask) else ()
            case Copies():
                raise NotImplementedError("no case here has copies")
