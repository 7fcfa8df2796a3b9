"""River raft: a crew of frogs, each an inset that paddles and blinks in its own time, on a raft that is an inset too and floats across.

One frog is drawn and animated, once; the raft shows it three times, each from another of its frames, and the river shows the raft twice.
"""

from typing import Any

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene, text

LENGTH = 240
#: One stroke of the paddle, after which a frog is unchanged.
STROKE = 48


def inset(name: str, shows: str, past: str = "hold", **channels: Any) -> Data:
    """An object that shows an inner scene."""
    return group(name, **channels) | {"kind": "inset", "inset": {"scene": shows, "past": past}}


def inner(id: str, name: str, length: int, size: tuple[int, int], objects: list[Data]) -> Data:
    """A scene inside, on the colour of the river."""
    return {"id": id, "name": name, "length": length, "size": list(size), "background": "#BFDDE0", "objects": objects}


def frog() -> Data:
    """A frog that paddles, breathes and blinks, in one stroke that goes on and on."""
    lean = keys((0, -7, "slow-out-in"), (22, 9, "slow-out-in"), (STROKE, -7), after="loop")
    reach = keys((0, -58, "slow-out-in"), (22, 34, "slow-out-in"), (STROKE, -58), after="loop")
    lift = keys((0, 0, "even"), (22, 0, "slow-out-in"), (34, -26, "slow-out-in"), (STROKE, 0), after="loop")
    blink = keys((27, 0.0, "snap"), (30, 1.0, "even"), (32, 1.0, "slow-out"), (37, 0.0))
    puff = rule("oscillator", "scale.x", "scale.y", amplitude=0.05, frequency=1.0)

    def eye(side: str, x: float) -> list[Data]:
        return [
            ellipse(f"{side} eye bump", 62, 62, parent="Head", x=x, y=-34, fill=PALETTE["leaf"]),
            ellipse(f"{side} eye", 40, 40, parent="Head", x=x, y=-38, fill=PALETTE["cream"]),
            ellipse(f"{side} pupil", 17, 21, parent="Head", x=x + 5, y=-37, fill=PALETTE["ink"]),
            ellipse(f"{side} lid", 46, 46, parent="Head", x=x, y=-61, pivot_y=-23, scale_y=blink, fill="#357A44"),
        ]

    parts = [
        group("Frog parts", x=210, y=210),
        outline("Hind legs", "M-96 92 C-110 40 -60 20 -20 60 L24 60 C64 20 110 40 96 92 L60 104 H-60 Z", parent="Frog parts", y=20, fill="#357A44"),
        group("Upper body", parent="Frog parts", y=96, rotation=lean),
        ellipse("Body", 148, 170, parent="Upper body", y=-70, fill=PALETTE["leaf"]),
        ruled(ellipse("Belly", 92, 118, parent="Upper body", y=-58, fill="#CBE3A0"), puff),
        outline("Satchel strap", "M-62 -128 C-20 -90 30 -50 64 -30", parent="Upper body", fill="#00000000", stroke=PALETTE["bark"], stroke_width=10),
        box("Satchel", 56, 44, 0.3, parent="Upper body", x=62, y=-18, rotation=8, fill=PALETTE["bark"]),
        group("Head", parent="Upper body", y=-158, rotation=ruled_lean()),
        ellipse("Face", 152, 98, parent="Head", fill=PALETTE["leaf"]),
        *eye("Far", -40),
        *eye("Near", 40),
        outline("Mouth", "M-48 16 C-20 34 26 34 52 14", parent="Head", fill="#00000000", stroke="#25562F", stroke_width=6),
        group("Arm", parent="Upper body", x=38, y=-96, rotation=reach),
        group("Paddle", parent="Arm", y=lift),
        box("Shaft", 11, 240, 1, parent="Paddle", x=6, y=104, fill=PALETTE["bark"]),
        ellipse("Blade", 40, 86, parent="Paddle", x=6, y=236, fill="#8A5F36"),
        outline("Forearm", "M-16 -8 C-20 30 -12 66 -4 84 L18 84 C22 50 22 20 16 -8 Z", parent="Arm", fill="#357A44"),
        ellipse("Hand", 32, 28, parent="Paddle", x=6, y=84, fill="#4C9A5B"),
    ]
    return inner("frog", "Paddling frog", STROKE, (420, 420), parts)


def ruled_lean() -> Data:
    """The head looks ahead while the body leans."""
    return keys((0, 5, "slow-out-in"), (22, -6, "slow-out-in"), (STROKE, 5), after="loop")


def raft() -> Data:
    """Logs, mail, a flag and a crew of three: the same frog from three of its frames."""
    logs = [box(f"Log {n + 1}", 190, 46, 1, x=170 + 140 * n, y=372, fill=("#8A5F36", "#7A5230")[n % 2]) for n in range(5)]
    crew = [
        inset(f"Frog {n + 1}", "frog", "loop", x=200 + 196 * n, y=232, scale_x=0.72, scale_y=0.72, inner=float(start))
        for n, start in enumerate((0, 17, 33))
    ]
    flag = ruled(
        box("Pennant", 150, 66, x=793, y=92, pivot_x=-75, fill=PALETTE["hibiscus"]),
        rule("ripple", "outline", goes="through", amplitude=11, waves=1, speed=-1.0, grow=1),
    )
    parcels = [
        box("Parcel", 96, 74, 0.06, x=724, y=314, rotation=-3, fill="#C9975B"),
        box("Parcel ribbon", 16, 74, x=724, y=314, rotation=-3, fill=PALETTE["hibiscus"]),
        box("Small parcel", 62, 50, 0.06, x=736, y=254, rotation=5, fill="#DDB277"),
    ]
    mast = box("Mast", 14, 320, 1, x=786, y=216, fill=PALETTE["bark"])
    return inner("raft", "Raft", LENGTH, (960, 480), [mast, flag, *parcels, *crew, *logs])


def water(name: str, y: float, fill: str, speed: float, amplitude: float) -> Data:
    """A band of the river whose upper edge runs."""
    band = box(name, 1500, 260, x=640, y=y + 130, fill=fill)
    return ruled(band, rule("ripple", "outline", goes="through", amplitude=amplitude, waves=4, speed=speed))


def make() -> Data:
    def rocks(frequency: float, turn: float) -> list[Data]:
        return [
            rule("oscillator", "y", amplitude=7, frequency=frequency),
            rule("oscillator", "rotation", amplitude=turn, frequency=frequency, phase=0.25),
        ]

    far = inset("Far raft", "raft", x=keys((0, 1340, "even"), (LENGTH - 1, 620)), y=396, scale_x=-0.26, scale_y=0.26, inner=20.0)
    near = inset("Raft", "raft", x=keys((0, -260, "even"), (LENGTH - 1, 1500)), y=452, scale_x=0.78, scale_y=0.78)
    sign = [
        box("Post", 18, 150, 0.3, x=1130, y=610, fill=PALETTE["bark"]),
        box("Board", 214, 66, 0.2, x=1130, y=548, rotation=-2, fill=PALETTE["cream"], stroke=PALETTE["bark"], stroke_width=5),
        text("Board words", "Canopy Post, this way", 18, font="bricolage-grotesque", weight=700, x=1130, y=548, rotation=-2, fill=PALETTE["ink"]),
    ]
    whole = scene(
        "River raft",
        LENGTH,
        [
            *forest()[:3],
            water("Far water", 418, "#8FC3CB", -0.25, 3),
            ruled(far, *rocks(0.5, 1.2)),
            water("Middle water", 446, "#73B0BC", 0.35, 5),
            ruled(near, *rocks(0.4, 1.6)),
            water("Near water", 588, "#5A9DAE", -0.5, 7),
            *sign,
            forest()[3],
        ],
        PALETTE["sky"],
    )
    return whole | {"insets": [frog(), raft()]}
