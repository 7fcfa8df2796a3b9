"""The small scenes of the page "Principles": where it helps, the plain motion on the left and the same with a rule on the right."""

import json
from pathlib import Path
from typing import Any

from demo.build import PALETTE, Data, box, ellipse, group, keys, outline, rule, ruled, scene

FOLDER = Path(__file__).resolve().parents[1] / "vine_swing" / "principles"
LENGTH = 72
GROUND = 236
LEFT, RIGHT = 130.0, 350.0


def small(name: str, *parts: Data, length: int = LENGTH) -> Data:
    """A scene of 480 × 270 on a strip of ground."""
    ground = outline("Ground", "M-20 0 C120 -10 360 -10 500 0 V60 H-20 Z", y=GROUND, fill=PALETTE["mid"])
    return scene(name, length, [ground, *parts], "#E7F0E6") | {"size": [480, 270]}


def fruit(name: str, x: Any, y: Any, colour: str = PALETTE["mango"], **channels: Any) -> list[Data]:
    """A small fruit that is on its lowest point."""
    whole = group(name, x=x, y=y, pivot_y=26, **channels)
    return [
        whole,
        ellipse(f"{name} body", 52, 52, parent=name, fill=colour),
        outline(f"{name} leaf", "M0 -24 C6 -40 22 -42 32 -38 C28 -26 14 -20 0 -24 Z", parent=name, fill=PALETTE["leaf"]),
    ]


def flag(name: str, x: Any, turn: Any, *rules: Data) -> list[Data]:
    """A post with an arm that turns."""
    return [
        box(f"{name} post", 12, 130, 0.4, x=x, y=GROUND - 60, fill=PALETTE["bark"]),
        ruled(group(name, x=x, y=GROUND - 116, rotation=turn), *rules),
        outline(f"{name} arm", "M-10 -9 H78 L92 0 L78 9 H-10 Z", parent=name, fill=PALETTE["hibiscus"]),
        ellipse(f"{name} knob", 16, 16, parent=name, fill=PALETTE["ink"]),
    ]


def squash() -> Data:
    fall = {"bezier": [1 / 3, 0, 2 / 3, 1 / 3]}
    rise = {"bezier": [1 / 3, 2 / 3, 2 / 3, 1]}
    y = keys((0, 60, fall), (12, GROUND - 26, rise), (24, 60), after="loop")
    soft = fruit("Soft fruit", RIGHT, y)
    soft[0] = ruled(soft[0], rule("squash-stretch", "stretch", "stretch.angle", amount=0.4, full_speed=26.0, impact=0.6, recover=5.0))
    return small("Squash and stretch", *fruit("Stiff fruit", LEFT, y, "#E8B968"), *soft)


def anticipation() -> Data:
    turn = keys((20, 0, "slow-out-in"), (28, -70), (52, -70, "slow-out-in"), (62, 0))
    return small("Anticipation", *flag("Plain arm", 90, turn), *flag("Ready arm", 310, turn, rule("wind-up", "rotation", size=0.3, frames=12.0)))


def staging() -> Data:
    bees = []
    for n in range(6):
        sway = rule("noise", "x", "y", amplitude=5.0, frequency=0.7, seed=float(n), loop=float(LENGTH))
        name = f"Bee {n + 1}"
        bees.append(ruled(ellipse(name, 22, 16, x=60.0 + 72 * n, y=70.0 + 40 * (n % 2), fill="#BFC8A8"), sway))
    hero = fruit("Main fruit", keys((0, 200), (36, 290), after="ping-pong"), GROUND - 26, PALETTE["hibiscus"])
    return small("Staging", *bees, *hero)


def poses() -> Data:
    stops = ((0, 0), (12, -50), (24, 20), (36, -30), (54, -30), (72, 0))
    straight = keys(*((f, v, "slow-out-in") for f, v in stops))
    held = keys(*((f, v, "hold") for f, v in stops))
    return small("Straight ahead and pose to pose", *flag("Posed arm", 90, held), *flag("Joined arm", 310, straight))


def overlap() -> Data:
    x = keys((8, 60, "slow-out-in"), (26, 180), (44, 180, "slow-out-in"), (62, 60))
    parts: list[Data] = []
    for prefix, off, rules in (("Stiff", 0, False), ("Loose", 220, True)):
        head = x | {"keys": [key | {"value": key["value"] + off} for key in x["keys"]]}
        parts.append(ellipse(f"{prefix} head", 40, 40, x=head, y=90, fill=PALETTE["deep"]))
        leader = f"{prefix.lower()}-head"
        for n in range(1, 5):
            name = f"{prefix} tail {n}"
            link = ellipse(name, 34 - 5 * n, 34 - 5 * n, x=60.0 + off if rules else head, y=90.0 + 30 * n, fill=PALETTE["leaf"])
            parts.append(ruled(link, rule("follow", "x", leader=leader, delay=2.0, spring=3.0, damping=0.4)) if rules else link)
            leader = name.lower().replace(" ", "-")
    return small("Follow-through and overlap", *parts)


def slow() -> Data:
    def across(ease: str) -> Data:
        return keys((4, 60, ease), (34, 420), (38, 420, ease), (68, 60))

    even, eased = fruit("Even fruit", across("linear"), 100, "#E8B968"), fruit("Eased fruit", across("slow-out-in"), GROUND - 26)
    return small("Slow in and slow out", *even, *eased)


def arcs() -> Data:
    x, y = keys((6, 70, "slow-out-in"), (30, 210), (42, 210, "slow-out-in"), (66, 70)), 190.0
    right = x | {"keys": [key | {"value": key["value"] + 200} for key in x["keys"]]}
    bent = fruit("Arced fruit", right, y)
    bent[0] = ruled(bent[0], rule("arc", "x", "y", bulge=0.6, side="left"))
    return small("Arcs", *fruit("Straight fruit", x, y, "#E8B968"), *bent)


def secondary() -> Data:
    x = keys((0, 90, "slow-out-in"), (36, 390, "slow-out-in"), (72, 90))
    body = fruit("Carrier", x, GROUND - 26, PALETTE["deep"])
    feather = group("Feather", parent="Carrier", y=-24)
    nod = rule("oscillator", "rotation", amplitude=14.0, cycles=6.0)
    return small(
        "Secondary action",
        *body,
        ruled(feather, nod),
        outline("Feather quill", "M0 0 C-10 -30 -4 -52 10 -66 C22 -44 14 -16 0 0 Z", parent="Feather", fill=PALETTE["hibiscus"]),
    )


def timing() -> Data:
    light, heavy = fruit("Light fruit", LEFT, 60, "#F0C987"), fruit("Heavy fruit", RIGHT, 60, "#A8552E")
    light[0] = ruled(light[0], rule("bounce", "y", floor=GROUND - 26.0, fall=14.0, keep=0.7))
    heavy[0] = ruled(heavy[0], rule("bounce", "y", floor=GROUND - 26.0, fall=8.0, keep=0.12))
    return small("Timing", *light, *heavy)


def bolder() -> Data:
    turn = keys((0, -10, "slow-out-in"), (18, 12, "slow-out-in"), (36, -10, "slow-out-in"), (54, 12, "slow-out-in"), (72, -10))
    return small("Exaggeration", *flag("Shy arm", 90, turn), *flag("Bold arm", 310, turn, rule("exaggerate", "rotation", amount=3.0)))


def solid() -> Data:
    x = keys((0, 70, "slow-out-in"), (36, 410, "slow-out-in"), (72, 70))
    nut = ruled(group("Nut", x=x, y=GROUND - 38), rule("roll", "rotation", radius=38.0))
    return small(
        "Solid drawing",
        nut,
        ellipse("Nut shell", 76, 76, parent="Nut", fill="#A8713A", stroke="#5A3A1C", stroke_width=4),
        outline("Nut seam", "M-30 -14 C-8 -30 20 -24 32 -8", parent="Nut", fill="#00000000", stroke="#5A3A1C", stroke_width=4),
        ellipse("Nut mark", 12, 12, parent="Nut", y=14, fill="#5A3A1C"),
    )


def appeal() -> Data:
    x = keys((0, 60, "slow-out-in"), (36, 420, "slow-out-in"), (72, 60))
    y = keys((0, 150, "slow-out-in"), (18, 90, "slow-out-in"), (36, 150), (54, 80, "slow-out-in"), (72, 150))
    leaf = outline("Glider", "M-44 0 C-24 -26 24 -26 48 0 C24 20 -24 20 -44 0 Z", x=x, y=y, fill=PALETTE["leaf"])
    return small(
        "Appeal", ruled(leaf, rule("face", "rotation", smooth=3.0) | {"mode": "replace"}, rule("noise", "y", amplitude=6.0, frequency=0.8, loop=72.0))
    )


WORDS: tuple[tuple[str, str, str, str, Any], ...] = (
    (
        "Squash and stretch",
        "Soft things lengthen when they are fast and flatten when they hit. It tells weight and stuff.",
        "Squash & stretch measures the final motion, whatever makes it, and keeps the area to the last digit.",
        "Stone, glass and steel: a heavy box that squashes looks like rubber.",
        squash,
    ),
    (
        "Anticipation",
        "A move is prepared by a smaller one the other way, so that nobody misses it.",
        "Wind-up dips before every keyed move by a share of it. Change the keys and it adapts.",
        "What must come as a surprise, and very small moves.",
        anticipation,
    ),
    (
        "Staging",
        "One thing at a time, and the eye is led to it.",
        "Noise kept small, pale colours and slow travel for what is by the way; contrast and a clear way for what matters.",
        "When everything moves a lot, nothing is staged: switch rules off first.",
        staging,
    ),
    (
        "Straight ahead and pose to pose",
        "Draw on from frame to frame, or fix the poses and then what lies between.",
        "Rough in poses with hold, watch them loop, then choose a feel: the keys stay. Rules then do what is best done straight ahead.",
        "Do not polish in-betweens before the poses read.",
        poses,
    ),
    (
        "Follow-through and overlap",
        "Loose parts come along later and go on when the body has stopped.",
        "Follow passes motion down a chain, link by link, with a delay and a spring.",
        "Stiff machines. And keep the delay short on small things.",
        overlap,
    ),
    (
        "Slow in and slow out",
        "Things set off and arrive gently; the dots lie closer there.",
        "Feels give every stretch its pace; the dots in the picture and the stem's thickness show it.",
        "What is hit or dropped has no slow out: use bounce or a sharper feel.",
        slow,
    ),
    (
        "Arcs",
        "Living things move along curves.",
        "Arc bends straight keyed travel by a share of its way; paths give any curve.",
        "Machines, and what slides along the ground.",
        arcs,
    ),
    (
        "Secondary action",
        "A smaller motion supports the main one.",
        "Oscillator and noise on a part, on top of whatever the whole does.",
        "If it is looked at first, it is too big.",
        secondary,
    ),
    (
        "Timing",
        "How many frames a thing takes says how heavy it is and how it feels.",
        "Bounce by frames or by gravity; drag a lane to play it slower without touching its keys.",
        "Equal timing for everything: nothing has weight then.",
        timing,
    ),
    (
        "Exaggeration",
        "Push the truth until it reads.",
        "Exaggerate moves every pose away from its middle, with one number one can key.",
        "Where the shy version was the point.",
        bolder,
    ),
    (
        "Solid drawing",
        "Forms have volume and balance, and keep them as they turn.",
        "Roll turns by exactly the way gone, squash and stretch keeps the area, pivots sit where things are held.",
        "Flat graphic work may cheat, if it cheats everywhere.",
        solid,
    ),
    (
        "Appeal",
        "One likes to watch it: clear, alive, with a character of its own.",
        "Face turns a leaf along its way, and a breath of noise keeps it from being dead.",
        "More rules do not make more appeal. Take away until it hurts.",
        appeal,
    ),
)


def texts() -> dict[str, str]:
    """File name → text of every principle."""
    result = {}
    for n, (label, about, ours, beware, make) in enumerate(WORDS, start=1):
        name = label.lower().replace(" ", "-")
        data = {"name": name, "label": label, "about": about, "ours": ours, "beware": beware, "scene": make()}
        result[f"{n:02}-{name}.json"] = json.dumps(data, ensure_ascii=False, indent=1) + "\n"
    return result
