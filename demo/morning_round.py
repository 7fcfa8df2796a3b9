"""Morning round: the lemur postie walks along a wavy branch, slows down, stops and waves, and runs off; a tapir and a file of ants follow below."""

from pydantic import TypeAdapter

from demo.build import PALETTE, Data, ellipse, keys, outline, rule, ruled, scene
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data, to_data

LENGTH = 288
_EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])

BRANCH = "M-60 300 C90 262 210 322 360 316 C520 310 600 250 760 262 C900 272 980 330 1120 320 C1220 312 1290 286 1360 292 L1360 330 C1290 324 1210 348 1110 356 C980 364 890 312 760 302 C610 292 520 350 360 356 C200 360 90 306 -60 344 Z"
#: Where the lemur waves from, and when.
STAND, STOPS, LEAVES = 640.0, 118, 186


def branch() -> list[Data]:
    leaf = "M0 0 C14 -22 44 -24 64 -4 C44 12 16 14 0 0 Z"
    leaves = [
        ruled(
            outline(f"Branch leaf {n + 1}", leaf, x=x, y=y, rotation=turn, fill=tint),
            rule("noise", "rotation", amplitude=6.0, frequency=0.6, seed=float(n + 1), loop=float(LENGTH)),
        )
        for n, (x, y, turn, tint) in enumerate(
            [
                (150, 330, 60, "#4E9A57"),
                (300, 352, 110, "#3F8F4F"),
                (470, 336, 70, "#5FA763"),
                (880, 318, 120, "#3F8F4F"),
                (1040, 352, 55, "#4E9A57"),
                (1190, 342, 95, "#5FA763"),
            ]
        )
    ]
    return [
        outline("Branch", BRANCH, fill=PALETTE["bark"]),
        outline(
            "Branch light",
            "M-60 306 C90 268 210 328 360 322 C520 316 600 256 760 268 C900 278 980 336 1120 326 C1220 318 1290 292 1360 298",
            fill="#00000000",
            stroke="#8A6238",
            stroke_width=5,
        ),
        *leaves,
    ]


def postie() -> list[Data]:
    """The lemur: walks in, slows, stops, waves at the tapir, and runs off."""
    edits: list[Data] = [
        {"edit": "add-figure", "id": "postie", "name": "Postie", "starter": "two-legs", "x": -80.0, "y": 290.0, "height": 170.0},
        {"edit": "set-gait", "id": "postie", "preset": "stroll"},
        {"edit": "set-setting", "object": "postie", "rule": "gait", "setting": "ground", "value": "branch"},
    ]
    for name, at_stop, at_run in (
        ("stride", 112.0, 246.0),
        ("stance", 0.62, 0.33),
        ("lift", 12.0, 38.0),
        ("bob", 7.0, 20.0),
        ("lean", 2.0, 17.0),
        ("arm_swing", 22.0, 46.0),
        ("elbow", 8.0, 84.0),
        ("tail", 9.0, 17.0),
    ):
        edits += [
            {"edit": "set-key", "object": "postie", "channel": f"gait:{name}", "frame": float(LEAVES - 4), "value": at_stop, "ease": "slow-out-in"},
            {"edit": "set-key", "object": "postie", "channel": f"gait:{name}", "frame": float(LEAVES + 26), "value": at_run},
        ]
    for frame, x, ease in (
        (0, -80.0, "linear"),
        (78, 470.0, {"bezier": [0.3, 0.35, 0.55, 1.0]}),
        (STOPS, STAND, "linear"),
        (LEAVES, STAND, {"bezier": [0.5, 0.0, 0.6, 0.62]}),
        (LEAVES + 34, 840.0, "linear"),
        (LEAVES + 86, 1560.0, "linear"),
    ):
        edits.append({"edit": "set-key", "object": "postie", "channel": "x", "frame": float(frame), "value": x, "ease": ease})
    # The wave: keys on top of the walk, blending in and out; the other arm rests on the satchel.
    wave = [(STOPS - 6, 0.0), (STOPS + 10, -128.0), (LEAVES - 12, -128.0), (LEAVES + 4, 0.0)]
    hand = [
        (STOPS + 2, 0.0),
        (STOPS + 14, -38.0),
        (STOPS + 22, 18.0),
        (STOPS + 30, -38.0),
        (STOPS + 38, 18.0),
        (STOPS + 46, -38.0),
        (LEAVES - 2, 0.0),
    ]
    for channel, stops in (("near-arm.upper", wave), ("near-arm.lower", hand)):
        for frame, value in stops:
            edits.append({"edit": "set-key", "object": "postie", "channel": channel, "frame": float(frame), "value": value, "ease": "slow-out-in"})
    look = {
        "id": "look",
        "kind": "look-at",
        "settings": {
            "target": "tapir",
            "limit": 34,
            "share": keys((STOPS - 20, 0, "slow-out-in"), (STOPS - 4, 1), (LEAVES - 10, 1, "slow-out-in"), (LEAVES + 4, 0)),
        },
    }
    edits.append({"edit": "add-rule", "object": "postie", "rule": look})
    return edits


def satchel() -> list[Data]:
    """Hangs on the chest, and swings after the hips."""
    follow = {
        "id": "sway",
        "kind": "follow",
        "channels": ["rotation"],
        "settings": {"leader": "postie", "reads": "hips.turn", "delay": 3, "share": 2.4, "spring": 2.2, "damping": 0.25},
    }
    bag = outline("Satchel", "M-22 0 C-26 26 -22 34 0 36 C22 34 26 26 22 0 Z", x=-4, y=-98, rotation=4, fill="#C46A0A") | {
        "parent": "postie",
        "bone": "spine.1",
        "rules": [follow],
    }
    flap = outline("Satchel flap", "M-24 -2 H24 C22 14 10 20 0 20 S-22 14 -24 -2 Z", fill="#A65608", parent="Satchel")
    strap = outline("Satchel strap", "M-20 0 C-14 -30 6 -44 18 -48", fill="#00000000", stroke="#7A4A20", stroke_width=5, parent="Satchel")
    return [strap, bag, flap, ellipse("Satchel seal", 10, 10, y=9, fill=PALETTE["cream"], parent="Satchel")]


def cap() -> list[Data]:
    """A postie's cap, on the head."""
    on = {"parent": "postie", "bone": "head.1"}
    return [
        outline("Postie cap", "M-19 4 C-18 -14 14 -18 20 2 L32 8 L-18 8 Z", x=7, y=-184, fill=PALETTE["hibiscus"]) | on,
        ellipse("Postie cap badge", 8, 8, x=12, y=-186, fill=PALETTE["cream"]) | on,
    ]


def below() -> list[Data]:
    edits: list[Data] = [
        {"edit": "add-figure", "id": "tapir", "name": "Tapir", "starter": "four-legs", "x": 1420.0, "y": 640.0, "height": 150.0},
        {"edit": "set-gait", "id": "tapir", "preset": "amble"},
        {"edit": "set-setting", "object": "tapir", "rule": "gait", "setting": "facing", "value": "the way it goes"},
        {"edit": "set-setting", "object": "tapir", "rule": "gait", "setting": "ground", "value": "near-hills"},
        {"edit": "set-key", "object": "tapir", "channel": "x", "frame": 0.0, "value": 1420.0, "ease": "linear"},
        {"edit": "set-key", "object": "tapir", "channel": "x", "frame": float(LENGTH - 1), "value": 420.0},
    ]
    for n in range(6):
        item = f"ant-{n + 1}"
        edits += [
            {"edit": "add-figure", "id": item, "name": f"Ant {n + 1}", "starter": "six-legs", "x": -60.0, "y": 690.0, "height": 38.0},
            {"edit": "set-gait", "id": item, "preset": "tripod"},
            {"edit": "set-setting", "object": item, "rule": "gait", "setting": "phase", "value": 57.0 * n},
            {"edit": "set-key", "object": item, "channel": "x", "frame": 0.0, "value": 60.0 + 92.0 * n, "ease": "linear"},
            {"edit": "set-key", "object": item, "channel": "x", "frame": float(LENGTH - 1), "value": 560.0 + 92.0 * n},
            {"edit": "set-ends", "object": item, "channel": "x", "before": {"mode": "coast"}, "after": {"mode": "coast"}},
        ]
    return edits


#: Colours of the animals, by what their parts are called.
COATS = {
    "postie": {"#9A6A3E": "#8E8F96", "#744D2B": "#5E5F68", "#EAD3A6": "#F3EEE2"},
    "tapir": {"#9A6A3E": "#3E3A42", "#744D2B": "#2C2930", "#EAD3A6": "#E9E4DA"},
    "ant": {"#9A6A3E": "#A5452B", "#744D2B": "#7A2F1C"},
}


def make() -> Data:
    hills = [
        outline(
            "Far hills",
            "M-700 40 C-600 -60 -470 -90 -380 -20 S-180 70 -60 -30 S180 -120 300 -20 S520 50 700 -60 V400 H-700 Z",
            x=640,
            y=470,
            fill=PALETTE["far"],
        ),
        outline(
            "Middle hills",
            "M-700 20 C-560 -70 -460 40 -320 10 S-60 -90 80 0 S320 60 440 -30 S600 -60 700 10 V400 H-700 Z",
            x=640,
            y=545,
            fill=PALETTE["mid"],
        ),
        outline(
            "Near hills",
            "M-900 6 C-760 34 -620 -26 -460 -6 S-160 34 -20 4 S240 -30 380 -4 S700 30 900 -8 V400 H-900 Z",
            x=640,
            y=640,
            fill=PALETTE["deep"],
        ),
    ]
    canopy = outline(
        "Canopy",
        "M-680 -120 H680 V10 C600 54 560 -10 480 18 S360 54 290 10 S150 -20 90 22 S-80 58 -150 14 S-300 -18 -370 20 S-520 62 -590 16 S-660 -10 -680 10 Z",
        x=640,
        y=24,
        fill=PALETTE["canopy"],
    )
    begun = from_data(scene("Morning round", LENGTH, [*hills, *branch(), canopy], "#DDEBE2"))
    created = apply_all(begun, _EDITS.validate_python([*below(), *postie()]))
    data = to_data(created)
    tints = [(who, part) for who in COATS for part in data["objects"] if part["id"].startswith(who)]
    for who, part in tints:
        fill = part.get("channels", {}).get("fill")
        if fill and fill["base"] in COATS[who]:
            part["channels"]["fill"] = {"base": COATS[who][fill["base"]]}
    objects = data["objects"]
    # The near arm lies over the satchel.
    at = next(n for n, obj in enumerate(objects) if obj["id"] == "postie-near-arm-hand")
    strap, *bag = satchel()
    data["objects"] = [*objects[:at], strap, *bag, *cap(), *objects[at:]]
    # Written as the files of people are: in the order of the model.
    return to_data(from_data(data))
