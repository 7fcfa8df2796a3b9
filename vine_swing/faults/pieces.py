"""Parts of the scenes with faults. Each `made_…` function takes whether to include the fault."""

from typing import Any

SceneData = dict[str, Any]
_WIDE, _HIGH, _LENGTH = 640, 360, 48
_LEAF, _MANGO, _BARK, _SKY = "#3D8B5F", "#F2932B", "#7A5B3A", "#2F739F"


def keys(*stops: tuple[Any, ...], after: str = "hold") -> SceneData:
    """A channel from (frame, value[, ease]) stops."""
    created = [dict(zip(("frame", "value", "ease"), stop, strict=False)) for stop in stops]
    return {"keys": created, "after": {"mode": after}}


def shape(name: str, kind: str = "ellipse", *, rules: Any = (), parent: str | None = None, span: Any = None, **channels: Any) -> SceneData:
    """A drawn object; channel names are written with `_` for the dot."""
    named = {key.replace("_", "."): value for key, value in channels.items()}
    created = {"id": name.lower().replace(" ", "-"), "name": name, "kind": "shape", "shape": {"type": kind}, "parent": parent}
    return created | {"channels": named, "rules": list(rules)} | ({"span": span} if span else {})


def scene(*objects: SceneData, **head: Any) -> SceneData:
    """A small scene; `head` is what differs from the others."""
    ground = shape("Ground", "rectangle", x=_WIDE / 2, y=330, width=_WIDE, height=60, fill="#A8C69F")
    created = {"format": "vine-swing-scene", "version": 1, "name": "Fault", "fps": 24, "length": _LENGTH, "size": [_WIDE, _HIGH]}
    return created | {"objects": [ground, *objects]} | head


def mango(**channels: Any) -> SceneData:
    """A mango at rest in the middle, unless told otherwise."""
    rest: SceneData = {"x": 320, "y": 180, "width": 70, "height": 60, "fill": _MANGO}
    return shape("Mango", **(rest | channels))


def made_flashing(fault: bool) -> SceneData:
    """A sky that flashes at every third frame, or at every twelfth."""
    every = 3 if fault else 12
    colours = keys(*((frame, "#FFFFFF" if frame // every % 2 else "#203040", "hold") for frame in range(0, _LENGTH, every)))
    return scene(shape("Lightning", "rectangle", x=320, y=180, width=640, height=360, fill=colours))


def made_foot_slides(fault: bool) -> SceneData:
    """A walk with strides longer than its legs, or as long as they can reach."""
    stride = 360.0 if fault else 70.0
    return scene(*_walker(stride, keys((0, 80, "linear"), (47, 560))))


#: Where the joints of a walker's legs rest, hip to toe.
_LEG = ((0, -100), (4, -52), (0, -10), (18, 0))
_BONES = ("upper", "lower", "end")


def _walker(stride: float, x: SceneData) -> list[SceneData]:
    """A figure on two legs with a line on every bone, and its gait."""
    sides = ("far", "near")
    legs = [{"id": f"{side}-leg", "name": f"{side.capitalize()} leg", "kind": "leg", "joints": [list(joint) for joint in _LEG]} for side in sides]
    figure = {"spine": [[0, -100], [0, -150]], "head": [[0, -185]], "limbs": legs}
    gait = {"id": "gait", "kind": "gait", "channels": "keyed", "settings": {"stride": stride}}
    postie = {"id": "postie", "name": "Postie", "kind": "figure", "figure": figure, "channels": {"x": x, "y": 300}, "rules": [gait]}
    drawn = [
        _limb(f"{side.capitalize()} {bone}", f"{side}-leg.{bone}", _LEG[n], _LEG[n + 1], 14, "#5C4630" if side == "far" else _BARK)
        for side in sides
        for n, bone in enumerate(_BONES)
    ]
    return [postie, *drawn, _limb("Back", "spine.1", (0, -100), (0, -150), 34, _MANGO), _limb("Nose", "head.1", (0, -150), (0, -185), 30, _MANGO)]


def _limb(name: str, bone: str, start: tuple[int, int], end: tuple[int, int], width: float, stroke: str) -> SceneData:
    """A thick line along a bone, where the figure rests."""
    line = {"type": "outline", "d": f"M {start[0]} {start[1]} L {end[0]} {end[1]}"}
    created = {"id": name.lower().replace(" ", "-"), "name": name, "kind": "shape", "shape": line, "parent": "postie", "bone": bone}
    return created | {"channels": {"fill": "#00000000", "stroke": stroke, "stroke.width": width}}


def made_pop(fault: bool) -> SceneData:
    """A mango that jumps up for one frame on its way."""
    stray = [(20, 180, "linear"), (21, 120, "linear"), (22, 180, "linear")] if fault else []
    return scene(mango(x=keys((0, 120), (47, 520)), y=keys((0, 180, "linear"), *stray, (47, 210))))


def made_seam(fault: bool) -> SceneData:
    """A leaf that sways forever, and ends other than it began."""
    end = 14 if fault else -18
    return scene(shape("Leaf", width=150, height=60, x=320, y=160, fill=_LEAF, rotation=keys((0, -18), (12, 18), (24, end), after="loop")))


def made_ends_early(fault: bool) -> SceneData:
    """A hand that is missing before its arm."""
    arm = shape("Arm", "rectangle", x=320, y=180, width=200, height=40, fill=_BARK, rotation=keys((0, -20), (47, 20)))
    hand = shape("Hand", parent="arm", x=110, y=0, width=60, height=60, fill=_MANGO, span={"first": 0, "last": 24} if fault else None)
    return scene(arm, hand)


def made_through_ground(fault: bool) -> SceneData:
    """A mango that falls into the ground, or onto it."""
    landing = 330 if fault else 270
    postie, *drawn = _walker(70.0, keys((0, 60), (47, 140)))
    postie["rules"][0]["settings"]["ground"] = "ground"
    return scene(mango(x=420, y=keys((0, 60, "slow-out"), (24, landing), (30, landing - 30), (36, landing))), postie, *drawn)


def made_nearly(fault: bool) -> SceneData:
    """A fade that stops at 3 %."""
    return scene(mango(opacity=keys((4, 1), (40, 0.03 if fault else 0))))


def made_long_way(fault: bool) -> SceneData:
    """An arrow that turns by 340° instead of 20°."""
    return scene(shape("Arrow", "rectangle", x=320, y=170, width=200, height=30, fill=_SKY, rotation=keys((4, 170), (40, -170 if fault else 190))))


def made_second_leg(fault: bool) -> SceneData:
    """Two legs, of which one is in a hurry."""

    def leg(side: str, x: float, end: int) -> SceneData:
        swing = keys((0, -30), (end, 30), (2 * end, -30), after="loop")
        return shape(f"{side} leg", "rectangle", x=x, y=150, width=40, height=160, pivot_y=-80, fill=_BARK, rotation=swing)

    return scene(leg("Left", 280, 12), leg("Right", 360, 9 if fault else 12))


def made_cut_corner(fault: bool) -> SceneData:
    """A parcel on a belt, with round corners or sharp ones."""
    direction = "spline" if fault else "straight"
    stops = [(0, [100, 90]), (16, [500, 90]), (32, [500, 270]), (47, [140, 270])]
    path = {"keys": [{"frame": frame, "value": value, "way": direction, "ease": "linear"} for frame, value in stops]}
    return scene(shape("Parcel", "rectangle", width=60, height=50, fill="#C98A4B", path=path))


def made_even_speed(fault: bool) -> SceneData:
    """A frog that slides from rest to rest at one speed, or eases."""
    ease = "linear" if fault else "slow-out-in"
    frog = {"id": "frog", "name": "Frog", "kind": "group", "channels": {"x": keys((6, 140, ease), (40, 500)), "y": 240}}
    parts = [shape(name, parent="frog", x=x, y=y, width=w, height=h, fill=_LEAF) for name, x, y, w, h in _FROG]
    return scene(frog, *parts)


_FROG = (("Body", 0, 0, 110, 80), ("Head", 30, -50, 80, 60), ("Eye", 44, -74, 22, 22))


def made_hard_stop(fault: bool) -> SceneData:
    """A mango that drops and lies still, or squashes."""
    squash = [] if fault else [{"id": "soft", "kind": "squash-stretch", "channels": ["stretch", "stretch.angle"]}]
    return scene(mango(y=keys((4, 40, {"bezier": [0.55, 0, 1, 0.45]}), (22, 270)), rules=squash))


def made_all_at_once(fault: bool) -> SceneData:
    """Five leaves that fall together, or one after the other."""
    later = 0 if fault else 4
    leaves = (
        shape(f"Leaf of {who}", x=100 + 110 * n, y=keys((8 + later * n, 60), (30 + later * n, 250 - 12 * n)), width=60, height=30, fill=_LEAF)
        for n, who in enumerate(("fern", "palm", "liana", "moss", "reed"))
    )
    return scene(*leaves)


def made_lock_step(fault: bool) -> SceneData:
    """Two fruits that hop at the same time, or not."""

    def hop(by: int) -> SceneData:
        return keys((by, 250), (by + 8, 150), (by + 16, 250), (by + 24, 180), (by + 30, 250))

    return scene(
        shape("Mango", x=220, y=hop(2), width=70, height=60, fill=_MANGO),
        shape("Papaya", x=420, y=hop(2 if fault else 9), width=60, height=80, fill="#D0365B"),
    )


def made_too_fast(fault: bool) -> SceneData:
    """A mango that crosses the picture in two frames, or in a second."""
    return scene(mango(x=keys((10, 80, "linear"), (12 if fault else 34, 560))))


def made_text_brief(fault: bool) -> SceneData:
    """Eight words, shown for half a second or for three."""
    words = {"type": "text", "text": "All parcels for the upper canopy leave at noon"}
    sign = {"id": "sign", "name": "Sign", "kind": "shape", "shape": words, "channels": {"x": 60, "y": 180, "text.size": 24, "fill": "#1F2A25"}}
    return scene(sign | {"span": {"first": 6, "last": 18 if fault else 90}}, length=96)


def made_never_seen(fault: bool) -> SceneData:
    """A leaf that lies outside of the picture."""
    return scene(mango(), shape("Leaf", x=-200 if fault else 120, y=120, width=80, height=40, fill=_LEAF))


def made_missing_glyph(fault: bool) -> SceneData:
    """A word with a letter that no font here has."""
    words = {"type": "text", "text": "Post 𐎀" if fault else "Post"}
    return scene(
        {"id": "sign", "name": "Sign", "kind": "shape", "shape": words, "channels": {"x": 120, "y": 200, "text.size": 80, "fill": "#1F2A25"}}
    )


def made_lone_key(fault: bool) -> SceneData:
    """A mango with one key of its place, or with two."""
    stops = ((6, 120),) if fault else ((6, 120), (40, 520))
    return scene(mango(x=keys(*stops)))


def made_same_keys(fault: bool) -> SceneData:
    """A mango with two keys of the same place, or of two."""
    return scene(mango(x=keys((6, 120), (40, 120 if fault else 520))))


def made_keys_outside(fault: bool) -> SceneData:
    """A move that ends after the scene does."""
    return scene(mango(x=keys((6, 120), (90 if fault else 40, 520))))


def made_idle_rule(fault: bool) -> SceneData:
    """A sway of 0°, or of 20°."""
    sway = {"id": "sway", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 0 if fault else 20, "frequency": 1}}
    return scene(mango(rules=[sway]))


def made_dead_link(fault: bool) -> SceneData:
    """A link with a misspelled name."""
    link = {"id": "link", "kind": "link", "channels": ["x"], "settings": {"formula": f"{{{'Papaja' if fault else 'Papaya'}.x}} + 200"}}
    papaya = shape("Papaya", x=keys((4, 80), (40, 320)), y=100, width=60, height=80, fill="#D0365B")
    return scene(papaya, mango(y=230, rules=[link]))


def made_unused_dial(fault: bool) -> SceneData:
    """A dial that nothing reads, or that a sway does."""
    sway = {"id": "sway", "kind": "link", "channels": ["rotation"], "settings": {"formula": "{Wind} * sin(f * 15)"}}
    wind = {"id": "wind", "name": "Wind", "channel": {"base": 20}}
    return scene(mango(rules=[] if fault else [sway]), dials=[wind])


def made_plain_names(fault: bool) -> SceneData:
    """Ten leaves called after their shape, or by names."""
    names = [
        f"Ellipse {n}" if fault else f"{word} leaf"
        for n, word in enumerate(["Big", "Old", "New", "Wet", "Dry", "Red", "Pale", "Low", "Thin", "Round"], start=2)
    ]
    leaves = (shape(name, x=60 + 58 * n, y=180 + 30 * (n % 2), width=50, height=30, fill=_LEAF) for n, name in enumerate(names))
    return scene(*leaves)
