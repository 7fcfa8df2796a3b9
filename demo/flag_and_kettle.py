"""Flag and kettle: outlines moved by rules. A flag in the wind of a dial, a kettle that is squeezed, held and released, a line that boils, and one that
draws itself."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene, text, thing

LENGTH = 96


def boiling(size: float = 26) -> Data:
    """A line drawn again on twos."""
    return rule("rough", "outline", amplitude=2.2, size=size, changes=12)


def steam(number: int, x: float) -> Data:
    """A wisp that rises from the spout, repeatedly."""
    begin = 12 * number
    rises = keys((begin, 0.0, "even"), (begin + 48, 1.0), after="loop", before="loop")
    wisp = thing(
        f"Steam {number}",
        {"type": "outline", "d": "M0 0 C-30 -50 30 -90 0 -140 C-24 -180 20 -210 4 -250"},
        x=x,
        y=398,
        fill="#00000000",
        stroke="#FFFDF6",
        stroke_width=9,
        opacity=0.85,
    )
    return ruled(
        wisp, rule("ripple", "outline", amplitude=9, waves=3, speed=0.5), rule("draw-on", "outline", **{"from": 0.0, "to": 0.28, "shift": rises})
    )


def make() -> Data:
    squeeze = keys((0, 1.0, "slow-out-in"), (14, 0.66, "even"), (26, 0.66, "snap"), (34, 1.3, "slow-out-in"), (48, 1.0), after="loop")
    flag = ruled(
        box("Flag", 300, 170, x=372, y=190, fill=PALETTE["hibiscus"]),
        rule(
            "ripple", "outline", goes="through", amplitude={"formula": "6 + 34 * {Wind}"}, waves=1.5, speed={"formula": "-0.4 - 1.6 * {Wind}"}, grow=1
        ),
    )
    emblem = ruled(
        outline("Emblem", "M0 -44 C34 -38 38 20 0 46 C-38 20 -34 -38 0 -44 Z", x=372, y=190, fill=PALETTE["cream"]),
        rule("ripple", "outline", goes="through", amplitude={"formula": "3 + 9 * {Wind}"}, waves=0.5, speed={"formula": "-0.4 - 1.6 * {Wind}"}),
    )
    kettle = group("Kettle", x=900, y=586, pivot_y=110)
    body = outline(
        "Kettle body", "M-120 -70 C-60 -92 60 -92 120 -70 C160 -20 160 60 120 104 L-120 104 C-160 60 -160 -20 -120 -70 Z", parent="Kettle",
        fill=PALETTE["mango"], stroke=PALETTE["ink"], stroke_width=5,
    )  # fmt: skip
    spout = outline(
        "Spout",
        "M-128 40 C-170 30 -190 -20 -214 -56 L-178 -72 C-160 -40 -150 -6 -128 -6 Z",
        parent="Kettle",
        fill="#D97E1F",
        stroke=PALETTE["ink"],
        stroke_width=5,
    )
    lid = ellipse(
        "Lid",
        170,
        40,
        parent="Kettle",
        y=keys((0, -86, "even"), (34, -86, "slow-out"), (39, -128, "slow-in"), (45, -86), after="loop"),
        fill="#D97E1F",
        stroke=PALETTE["ink"],
        stroke_width=5,
    )
    grip = outline("Handle", "M-80 -92 C-60 -190 60 -190 80 -92", parent="Kettle", fill="#00000000", stroke=PALETTE["bark"], stroke_width=16)
    underline = ruled(
        thing("Underline", {"type": "line"}, x=440, y=668, end_x=400, stroke=PALETTE["cream"], stroke_width=7),
        rule("ripple", "outline", amplitude=5, waves=9),
        rule("draw-on", "outline", to=keys((10, 0.0, "slow-out-in"), (44, 1.0, "even"), (84, 1.0, "slow-in"), (94, 0.0))),
    )
    whole = scene(
        "Flag and kettle",
        LENGTH,
        [
            *forest(),
            box("Pole", 16, 520, 1, x=214, y=360, fill=PALETTE["bark"]),
            flag,
            emblem,
            box("Shelf", 520, 34, 0.4, x=900, y=598, fill=PALETTE["bark"]),
            steam(0, 700),
            steam(1, 716),
            steam(2, 690),
            ruled(kettle, rule("taper", "outline", size=squeeze, direction=-90)),
            grip,
            ruled(spout, boiling()),
            ruled(lid, boiling(20)),
            ruled(body, boiling(30)),
            text("Sign", "The post is in. Tea is on.", 42, font="bricolage-grotesque", weight=700, x=640, y=650, fill=PALETTE["cream"]),
            underline,
        ],
        PALETTE["sky"],
    )
    wind = {
        "id": "wind",
        "name": "Wind",
        "low": 0,
        "high": 1,
        "unit": "%",
        "channel": keys((0, 0.25, "slow-out-in"), (40, 0.9, "slow-out-in"), (95, 0.25)),
    }
    return whole | {"dials": [wind]}
