"""Small scenes with gradients."""

from typing import Any

from tests.motion.scenes import scene
from vine_swing.motion.scene.model import Scene


def blended(kind: str, stops: list[tuple[float, str]], ends: tuple[float, float, float, float], of: str = "fill", **changes: Any) -> Scene:
    """A rectangle of 200 × 140 px, in the middle of a picture of 240 × 180, whose fill or line has a gradient."""
    values: dict[str, Any] = {"x": 120, "y": 90, "width": 200, "height": 140, "fill": "#00000000", "stroke.width": 0}
    values |= dict(zip((f"{of}.from.x", f"{of}.from.y", f"{of}.to.x", f"{of}.to.y"), ends, strict=True))
    for n, (place, colour) in enumerate(stops, 1):
        values |= {f"{of}.{n}.place": place, f"{of}.{n}.colour": colour}
    shape = {"id": "sky", "name": "Sky", "kind": "shape", "shape": {"type": "rectangle"}, "paints": {of: {"kind": kind, "stops": len(stops)}}}
    return scene(shape | {"channels": values | changes}, size=[240, 180], length=1)


THREE = [(0.0, "#F2932B"), (0.4, "#2F6B4F"), (1.0, "#20304A")]
#: By name: scenes that both painters paint.
GRADIENTS = {
    "linear": blended("linear", THREE, (-100, 0, 100, 0)),
    "slanted": blended("linear", THREE, (-60, -50, 70, 40), rotation=15, **{"scale.x": 0.8}),
    "radial": blended("radial", THREE, (10, -10, 80, 20)),
    "see-through": blended("linear", [(0.0, "#D0365BFF"), (1.0, "#2F6B8F00")], (0, -70, 0, 70)),
    "in-any-order": blended("linear", [(0.6, "#F2932B"), (0.2, "#2F6B4F"), (0.9, "#20304A")], (-100, 0, 100, 0)),
    "no-length": blended("radial", THREE, (5, 5, 5, 5)),
    "line": blended("linear", THREE, (-100, -70, 100, 70), "stroke", **{"stroke.width": 26, "width": 160, "height": 100}),
    "faded": blended("radial", THREE, (0, 0, 0, 90), opacity=0.5),
}
