"""More small scenes with one fault each, and the same without it: other channels, other values, other ways to get it wrong."""

from collections.abc import Callable
from typing import Any

from vine_swing.faults.pieces import SceneData, keys, mango, scene, shape

Pair = tuple[str, str, SceneData, SceneData]


def _pair(kind: str, what: str, make: Callable[[bool], SceneData]) -> Pair:
    return kind, what, make(True), make(False)


def _leaf(**channels: Any) -> SceneData:
    return shape("Leaf", **({"x": 320, "y": 160, "width": 120, "height": 50, "fill": "#3D8B5F"} | channels))


def _text(words: str, **more: Any) -> SceneData:
    text = {"type": "text", "text": words}
    channels = {"x": 60, "y": 180, "text.size": 24, "fill": "#1F2A25"} | more.pop("channels", {})
    return {"id": "sign", "name": "Sign", "kind": "shape", "shape": text, "channels": channels} | more


def _wing(side: str, end: int, **more: Any) -> SceneData:
    flap = keys((0, 1), (end, 0.2), (2 * end, 1), after="loop")
    return shape(f"{side} wing", x=300 if side == "Near" else 340, y=150, width=120, height=40, fill="#2F739F", **({"scale_y": flap} | more))


def _oscillator(frequency: float, **settings: Any) -> list[SceneData]:
    return [{"id": "sway", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 20, "frequency": frequency} | settings}]


def _looped(name: str, fault: SceneData, sound: SceneData) -> Callable[[bool], SceneData]:
    return lambda wrong: scene(_leaf(**{name: fault if wrong else sound}))


def _of_mango(name: str, fault: Any, sound: Any) -> Callable[[bool], SceneData]:
    return lambda wrong: scene(mango(**{name: fault if wrong else sound}))


def _row(off: float) -> SceneData:
    return scene(*(shape(f"{word} stone", x=80 + 90 * n, y=200 + (off if n == 2 else 0), width=50, height=40) for n, word in enumerate(_WORDS[:5])))


_WORDS = ("Big", "Old", "Wet", "Round", "Pale", "Thin")


def _fall(name: str, at: int, later: int) -> SceneData:
    return shape(name, x=at, y=keys((6 + later, 60), (28 + later, 240 - at // 20)), width=50, height=30, fill="#3D8B5F")


_LONG = "All parcels for the upper canopy leave at noon"
_TOWNS = ("Fern", "Palm", "Moss", "Reed", "Vine", "Root", "Bark", "Leaf", "Seed", "Stem")
_LIGHT = {"id": "light", "name": "Light", "channel": {"base": "#FFE0A0"}}
#: Gathers speed to the last.
_FALL = {"bezier": [0.55, 0, 1, 0.45]}


def _rule(kind: str, channels: Any, **settings: Any) -> SceneData:
    return {"id": "rule", "kind": kind, "channels": channels, "settings": settings}


_SQUASH = {"id": "soft", "kind": "squash-stretch", "channels": ["stretch", "stretch.angle"], "settings": {}}


def _bounce() -> SceneData:
    return {"id": "bounce", "kind": "bounce", "channels": ["y"], "settings": {"floor": 270, "fall": 10, "keep": 0.5}}


def _shown(last: int) -> SceneData:
    return keys((0, 0), (4, 1), (last, 1), (last + 4, 0))


def _said(every: int) -> SceneData:
    """Three texts of several words, one after the other and over again, each for this many frames."""
    texts = ("Mail is in", "Ask the toucan", "Closed at noon", "Mail is in")
    return {"keys": [{"frame": n * every, "value": {"text": one}} for n, one in enumerate(texts)], "after": {"mode": "loop"}}


def _comes_back(gone: int) -> SceneData:
    """Clear for twelve frames and gone for this many, all the time."""
    return keys((0, 1, "hold"), (12, 0, "hold"), (12 + gone, 1, "hold"), after="loop")


def _blinks(every: int) -> SceneData:
    return keys(*((frame, frame // every % 2, "hold") for frame in range(0, 48, every)))


PAIRS: list[Pair] = [
    _pair("nearly", "97 % for all of it", _of_mango("opacity", keys((4, 0), (40, 0.97)), keys((4, 0), (40, 1)))),
    _pair("nearly", "48 % for a half", _of_mango("opacity", keys((4, 0), (24, 0.48), (40, 0)), keys((4, 0), (24, 0.5), (40, 0)))),
    _pair("nearly", "357° for a turn", lambda wrong: scene(_leaf(rotation=keys((4, 0), (40, 357 if wrong else 360))))),
    _pair("nearly", "a level that is not", lambda wrong: scene(mango(x=keys((4, 90), (40, 540)), y=keys((4, 180), (40, 184 if wrong else 180))))),
    _pair("nearly", "beside a row", lambda wrong: _row(1.5 if wrong else 0)),
    _pair("long-way", "the other way round", lambda wrong: scene(_leaf(rotation=keys((4, -100), (40, 150 if wrong else -210))))),
    _pair("long-way", "in the middle", lambda wrong: scene(_leaf(rotation=keys((4, 0), (20, 200 if wrong else 120), (40, 220 if wrong else 140))))),
    _pair("pop", "in rotation", _looped("rotation", keys((0, 0), (20, 0), (21, 60), (22, 0), (47, 30)), keys((0, 0), (20, 0), (32, 60), (47, 30)))),
    _pair("pop", "in size", _of_mango("scale_x", keys((0, 1), (20, 1), (21, 1.6), (22, 1), (47, 1.2)), keys((0, 1), (20, 1), (34, 1.6), (47, 1.2)))),
    _pair("pop", "in opacity", _of_mango("opacity", keys((0, 1), (20, 1), (21, 0), (22, 1), (47, 0.6)), keys((0, 1), (20, 1), (34, 0), (47, 0.6)))),
    _pair("seam", "in size", _looped("scale_x", keys((0, 1), (10, 1.4), (20, 1.1), after="loop"), keys((0, 1), (10, 1.4), (20, 1), after="loop"))),
    _pair("seam", "in opacity", _looped("opacity", keys((0, 1), (10, 0.2), (20, 0.7), after="loop"), keys((0, 1), (10, 0.2), (20, 1), after="loop"))),
    _pair("seam", "in height", _looped("y", keys((0, 160), (10, 90), (20, 150), after="loop"), keys((0, 160), (10, 90), (20, 160), after="loop"))),
    _pair(
        "seam",
        "in speed",
        _looped(
            "rotation",
            keys((0, 0, "spline"), (8, 30, "spline"), (16, 10, "spline"), (24, 0, "spline"), after="loop"),
            keys((0, 0, "slow-out-in"), (8, 30, "slow-out-in"), (16, 10, "slow-out-in"), (24, 0), after="loop"),
        ),
    ),
    _pair("ends-early", "by itself", lambda wrong: scene(mango(x=keys((4, 90), (40, 500))) | ({"span": {"last": 30}} if wrong else {}))),
    _pair(
        "ends-early",
        "before a parent that ends too",
        lambda wrong: scene(
            shape("Arm", "rectangle", x=320, y=180, width=160, height=30, span={"first": 0, "last": 40}, opacity=keys((34, 1), (40, 0))),
            shape("Hand", parent="arm", x=90, y=0, width=50, height=50, span={"first": 0, "last": 20 if wrong else 40}),
        ),
    ),
    _pair("second-leg", "two wings", lambda wrong: scene(_wing("Near", 6), _wing("Far", 4 if wrong else 6))),
    _pair(
        "second-leg",
        "mirrored arms",
        lambda wrong: scene(
            shape("Left arm", "rectangle", x=260, y=160, width=30, height=120, rotation=keys((0, 0), (16, 40))),
            shape("Right arm", "rectangle", x=380, y=160, width=30, height=120, rotation=keys((0, 0), (22 if wrong else 16, -40))),
        ),
    ),
    _pair("lone-key", "of opacity", _of_mango("opacity", keys((6, 0.5)), keys((6, 0.5), (30, 1)))),
    _pair("lone-key", "of rotation", _of_mango("rotation", keys((12, 30)), keys((12, 30), (30, 90)))),
    _pair("same-keys", "of rotation", _of_mango("rotation", keys((6, 30), (20, 30), (40, 30)), keys((6, 30), (20, 60), (40, 30)))),
    _pair(
        "same-keys",
        "of both places",
        lambda wrong: scene(mango(x=keys((6, 120), (40, 120 if wrong else 400)), y=keys((6, 150), (40, 150 if wrong else 260)))),
    ),
    _pair("keys-outside", "a fall", _of_mango("y", keys((6, 60), (80, 250)), keys((6, 60), (40, 250)))),
    _pair("keys-outside", "a turn", _of_mango("rotation", keys((6, 0), (30, 90), (70, 180)), keys((6, 0), (30, 90), (44, 180)))),
    _pair("idle-rule", "noise of nothing", lambda wrong: scene(mango(rules=[_rule("noise", ["x"], amplitude=0 if wrong else 12, frequency=1)]))),
    _pair(
        "idle-rule",
        "a limit out of reach",
        lambda wrong: scene(mango(x=keys((4, 120), (40, 500)), rules=[_rule("limit", ["x"], low=-2000, high=2000 if wrong else 300)])),
    ),
    _pair(
        "idle-rule",
        "smooth on what stands",
        lambda wrong: scene(mango(rotation=30 if wrong else keys((4, 0), (40, 90)), rules=[_rule("smooth", ["rotation"], frames=4)])),
    ),
    _pair(
        "dead-link",
        "a leader that is gone",
        lambda wrong: scene(
            mango(x=keys((4, 100), (40, 400))), _leaf(rules=[_rule("follow", ["x"], leader="papaya" if wrong else "mango", delay=3)])
        ),
    ),
    _pair(
        "dead-link",
        "a channel that is not",
        lambda wrong: scene(
            mango(rotation=keys((4, 0), (40, 90))),
            _leaf(rules=[_rule("link", ["rotation"], formula="{Mango.spin}" if wrong else "{Mango.rotation}")]),
        ),
    ),
    _pair(
        "unused-dial",
        "of colour",
        lambda wrong: scene(mango(rules=[] if wrong else [_rule("tint", ["fill"], dial="light", share=0.5)]), dials=[_LIGHT]),
    ),
    _pair("too-fast", "downwards", lambda wrong: scene(mango(y=keys((10, 60, "linear"), (11 if wrong else 30, 240))))),
    _pair("text-brief", "faded", lambda wrong: scene(_text(_LONG, channels={"opacity": _shown(10 if wrong else 76)}), length=96)),
    _pair(
        "text-brief",
        "that flashes by repeatedly",
        lambda wrong: scene(_text("Mail is in", channels={"text": _said(12 if wrong else 48)}), length=288),
    ),
    _pair(
        "text-brief",
        "that comes back after a while, and one that blinks",
        lambda wrong: scene(_text("Mail is in now", channels={"opacity": _comes_back(24 if wrong else 8)}), length=240),
    ),
    _pair("never-seen", "see-through", lambda wrong: scene(mango(), _leaf(y=90, opacity=0 if wrong else 1))),
    _pair("never-seen", "below the picture", lambda wrong: scene(mango(), _leaf(y=500 if wrong else 90))),
    _pair("missing-glyph", "in a line", lambda wrong: scene(_text("Canopy 𒀀 Post" if wrong else "Canopy Post"))),
    _pair(
        "all-at-once",
        "four of them",
        lambda wrong: scene(*(_fall(f"{word} leaf", 90 + 130 * n, 0 if wrong else 5 * n) for n, word in enumerate(_WORDS[:4]))),
    ),
    _pair(
        "lock-step",
        "in their swing",
        lambda wrong: scene(
            shape("Bell", x=200, y=160, width=70, height=90, rules=_oscillator(1, phase=0)),
            shape("Lamp", x=440, y=160, width=50, height=70, rules=_oscillator(1, phase=0 if wrong else 120)),
        ),
    ),
    _pair(
        "flashing",
        "in opacity",
        lambda wrong: scene(shape("Flash", "rectangle", x=320, y=180, width=640, height=360, fill="#101010", opacity=_blinks(3 if wrong else 16))),
    ),
    _pair(
        "hard-stop",
        "against a wall",
        lambda wrong: scene(mango(x=keys((4, 60, _FALL), (22, 560)), rules=[] if wrong else [_rule("squash-stretch", ["stretch", "stretch.angle"])])),
    ),
    _pair(
        "plain-names",
        "with colours",
        lambda wrong: scene(
            *(shape(f"Green star {n}" if wrong else f"Star of {_TOWNS[n]}", "star", x=60 + 58 * n, y=180 - 40 * (n % 2)) for n in range(10))
        ),
    ),
]
