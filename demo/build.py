"""Small words for writing scenes down: keys, channels and objects as scene file data."""

from typing import Any

Data = dict[str, Any]
PALETTE = {
    "canopy": "#3B5E3F",
    "deep": "#4D8C66",
    "mid": "#7FB791",
    "far": "#A9D2BC",
    "sky": "#CFE6D8",
    "bark": "#6E4B2A",
    "ink": "#26332C",
    "cream": "#F4E3C1",
    "mango": "#F2932B",
    "hibiscus": "#D0365B",
    "leaf": "#3F8F4F",
}


def keys(*stops: tuple[float, float | str] | tuple[float, float | str, Any], after: str = "hold", before: str = "hold") -> Data:
    """A keyed channel from (frame, value[, ease]) stops."""
    channel: Data = {"keys": [dict(zip(("frame", "value", "ease"), stop, strict=False)) for stop in stops]}
    if after != "hold":
        channel["after"] = {"mode": after}
    if before != "hold":
        channel["before"] = {"mode": before}
    return channel


def thing(name: str, shape: Data | None, *, parent: str | None = None, **channels: Any) -> Data:
    """An object; channel names are written with `_` for the dot."""
    data: Data = {"id": name.lower().replace(" ", "-"), "name": name, "kind": "shape" if shape else "group"}
    if parent:
        data["parent"] = parent.lower().replace(" ", "-")
    if shape:
        data["shape"] = shape
    data["channels"] = {key.replace("_", "."): value for key, value in channels.items()}
    return data


def ellipse(name: str, width: float, height: float, **rest: Any) -> Data:
    return thing(name, {"type": "ellipse"}, width=width, height=height, **rest)


def box(name: str, width: float, height: float, roundness: float = 0.0, **rest: Any) -> Data:
    return thing(name, {"type": "rectangle"}, width=width, height=height, roundness=roundness, **rest)


def outline(name: str, d: str, **rest: Any) -> Data:
    return thing(name, {"type": "outline", "d": d}, **rest)


def group(name: str, **rest: Any) -> Data:
    return thing(name, None, **rest)


def text(name: str, words: str, size: float, *, font: str = "figtree", weight: int = 400, align: str = "middle", **rest: Any) -> Data:
    return thing(name, {"type": "text", "text": words, "font": font, "weight": weight, "align": align}, text_size=size, **rest)


def parade(name: str, settings: Data, **rest: Any) -> Data:
    """A parade; its children is shown repeatedly."""
    return thing(name, None, **rest) | {"kind": "parade", "parade": settings}


def rule(kind: str, *channels: str, **settings: Any) -> Data:
    """A rule on some channels; numbers, words and whole channels are its settings."""
    return {"id": f"{kind}-{'-'.join(channels).replace('.', '-')}", "kind": kind, "channels": list(channels), "settings": settings}


def ruled(obj: Data, *rules: Data) -> Data:
    """The object with rules on it."""
    return obj | {"rules": list(rules)}


def blended(obj: Data, kind: str, ends: tuple[float, float, float, float], *stops: tuple[float, str]) -> Data:
    """The shape with a gradient for its fill: x and y of both ends in its own space, and the place and colour of each stop."""
    channels = dict(zip(("fill.from.x", "fill.from.y", "fill.to.x", "fill.to.y"), ends, strict=True))
    for number, (place, colour) in enumerate(stops, 1):
        channels |= {f"fill.{number}.place": place, f"fill.{number}.colour": colour}
    return obj | {"paints": {"fill": {"kind": kind, "stops": len(stops)}}, "channels": obj["channels"] | channels}


def look(kind: str, **settings: Any) -> Data:
    """A rule on a look."""
    return {"id": kind, "kind": kind, "channels": ["look"], "settings": settings}


def scene(name: str, length: int, objects: list[Data], background: str) -> Data:
    return {
        "format": "vine-swing-scene",
        "version": 1,
        "name": name,
        "fps": 24,
        "length": length,
        "size": [1280, 720],
        "background": background,
        "objects": objects,
    }


def forest(*, seed_hills: tuple[str, str, str] | None = None) -> list[Data]:
    """The backdrop most scenes share: three rows of hills and the edge of the canopy above."""
    far, mid, near = seed_hills or (
        "M-700 40 C-600 -60 -470 -90 -380 -20 S-180 70 -60 -30 S180 -120 300 -20 S520 50 700 -60 V400 H-700 Z",
        "M-700 20 C-560 -70 -460 40 -320 10 S-60 -90 80 0 S320 60 440 -30 S600 -60 700 10 V400 H-700 Z",
        "M-700 0 C-600 50 -520 -40 -400 -10 S-160 70 -20 10 S240 -60 380 10 S600 50 700 -10 V400 H-700 Z",
    )
    return [
        outline("Far hills", far, x=640, y=430, fill=PALETTE["far"]),
        outline("Middle hills", mid, x=640, y=520, fill=PALETTE["mid"]),
        outline("Near hills", near, x=640, y=620, fill=PALETTE["deep"]),
        outline(
            "Canopy",
            "M-680 -120 H680 V40 C600 84 560 20 480 48 S360 84 290 40 S150 10 90 52 S-80 88 -150 44 S-300 12 -370 50 S-520 92 -590 46 S-660 20 -680 40 Z",
            x=640,
            y=30,
            fill=PALETTE["canopy"],
        ),
    ]
