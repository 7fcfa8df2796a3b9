"""Short ways to write scenes for tests, and hypothesis strategies for their parts."""

from typing import Any

from hypothesis import strategies as st

from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.motion.timing.channel import Channel

EXAMPLE = {
    "format": "vine-swing-scene",
    "version": 1,
    "name": "Example",
    "fps": 24,
    "length": 120,
    "size": [1280, 720],
    "background": "#F7F2E7",
    "dials": [{"id": "wind", "name": "Wind", "channel": {"base": 0.4, "keys": []}}],
    "objects": [
        {
            "id": "mango",
            "name": "Mango",
            "kind": "shape",
            "parent": None,
            "shape": {"type": "ellipse"},
            "channels": {
                "x": {
                    "base": 100,
                    "keys": [{"frame": 0, "value": 100, "ease": "linear"}, {"frame": 24, "value": 340, "ease": "linear"}],
                    "before": {"mode": "hold"},
                    "after": {"mode": "ping-pong", "times": None},
                }
            },
            "rules": [
                {
                    "id": "r1",
                    "kind": "oscillator",
                    "on": True,
                    "channels": ["rotation"],
                    "settings": {"wave": "sine", "amplitude": 15, "frequency": 0.6, "phase": 0},
                }
            ],
        }
    ],
}


def channel(*stops: tuple[Any, ...], before: Any = "hold", after: Any = "hold") -> Channel:
    """A channel from (frame, value[, ease]) stops; ends as a mode or (mode, times)."""

    def end(written: Any) -> dict[str, Any]:
        return {"mode": written} if isinstance(written, str) else {"mode": written[0], "times": written[1]}

    keys = [dict(zip(("frame", "value", "ease"), stop, strict=False)) for stop in stops]
    return Channel.model_validate({"keys": keys, "before": end(before), "after": end(after)})


def shape(
    object_id: str, *, name: str | None = None, parent: str | None = None, type: str = "ellipse", rules: Any = (), **channels: Any
) -> dict[str, Any]:
    """An object; channel names are written with `_` for the dot, values as numbers or channels."""
    written = {key.replace("_", "."): v.model_dump(by_alias=True) if isinstance(v, Channel) else v for key, v in channels.items()}
    return {
        "id": object_id,
        "name": name or object_id.title(),
        "kind": "shape",
        "shape": {"type": type},
        "parent": parent,
        "channels": written,
        "rules": list(rules),
    }


def text(words: str = "Canopy Post", **changes: Any) -> dict[str, Any]:
    """A text called Title; `shape` is what its shape has besides the words."""
    settings = changes.pop("shape", {})
    shape = {"type": "text", "text": words} | settings
    return {
        "id": "title",
        "name": "Title",
        "kind": "shape",
        "shape": shape,
        "channels": {name.replace("_", "."): one for name, one in changes.items()},
    }


def parade(
    object_id: str = "p", *, parent: str | None = None, settings: dict[str, Any] | None = None, rules: Any = (), **values: Any
) -> dict[str, Any]:
    """A parade; channel names are written with `_` for the dot."""
    named = {key.replace("_", "."): one.model_dump(by_alias=True) if hasattr(one, "model_dump") else one for key, one in values.items()}
    return {
        "id": object_id,
        "name": object_id.title(),
        "kind": "parade",
        "parent": parent,
        "parade": settings or {},
        "channels": named,
        "rules": list(rules),
    }


def scene(*objects: dict[str, Any], **head: Any) -> Scene:
    return from_data({"format": "vine-swing-scene", "version": 1, "objects": list(objects), **head})


numbers = st.floats(-1e6, 1e6, allow_nan=False).map(lambda v: round(v, 4))
frames = st.integers(-400, 400).map(float)
eases = st.one_of(
    st.sampled_from(["hold", "linear", "even", "slow-out", "slow-in", "slow-out-in", "snap", "heavy", "wind-up", "overshoot", "spring", "bounce"]),
    st.tuples(st.floats(0, 1), st.floats(-2, 3), st.floats(0, 1), st.floats(-2, 3)).map(lambda b: {"bezier": list(b)}),
    st.fixed_dictionaries({"frequency": st.floats(0.1, 12), "damping": st.floats(0, 3)}).map(lambda s: {"spring": s}),
    st.fixed_dictionaries({"bounces": st.integers(0, 8), "keep": st.floats(0.01, 0.95)}).map(lambda b: {"bounce": b}),
)
ends = st.tuples(st.sampled_from(["hold", "coast", "loop", "climb", "ping-pong"]), st.none() | st.integers(0, 5))


bends = st.floats(-1, 1)
handles = st.none() | st.tuples(st.floats(-50, 50), st.floats(-100, 100)).map(lambda at: [round(v, 4) for v in at])


@st.composite
def channels(draw: Any, least: int = 1, most: int = 6) -> Channel:
    """A keyed number channel; its keys may have handles and bends, and stretches shaped by them."""
    at = draw(st.lists(frames, min_size=least, max_size=most, unique=True))
    keys = [{"frame": f, "value": draw(numbers), "ease": draw(eases | st.sampled_from(["handles", "spline"]))} for f in at]
    if draw(st.booleans()):
        keys = [
            key | {"out": draw(handles), "in": draw(handles), "tension": draw(bends), "continuity": draw(bends), "bias": draw(bends)} for key in keys
        ]
    (before, b), (after, a) = draw(ends), draw(ends)
    return Channel.model_validate({"keys": keys, "before": {"mode": before, "times": b}, "after": {"mode": after, "times": a}})
