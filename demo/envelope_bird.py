"""Envelope bird: an envelope opens, becomes a bird and flies off. Outlines are keyed; commands that differ are matched by least way."""

from demo.build import PALETTE, Data, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 132
OPENS, TURNS, FLIES = 18, 34, 58
ENVELOPE = "M-120 -74 L120 -74 L120 74 L-120 74 Z"
BIRD = (
    "M-168 6 C-130 -12 -96 -34 -44 -44 C8 -54 58 -62 96 -58 C120 -55 136 -46 142 -36 L176 -28 L144 -14"
    " C130 18 82 46 20 50 C-42 54 -92 38 -128 26 L-176 34 Z"
)
CLOSED = "M-120 -74 L120 -74 L0 22 Z"
OPEN = "M-120 -74 L120 -74 L0 -158 Z"
WING_UP = "M-66 -30 C-40 -38 16 -46 54 -40 C40 -96 -20 -160 -92 -184 C-104 -124 -92 -72 -66 -30 Z"
WING_DOWN = "M-66 -24 C-36 -34 16 -38 54 -30 C44 20 -4 86 -70 108 C-92 64 -88 16 -66 -24 Z"


def flaps() -> list[tuple[float, str, str]]:
    """The wing up and down from where the bird flies, quicker at first."""
    stops, frame, up = [], FLIES, True
    while frame < LENGTH - 6:
        stops.append((frame, WING_UP if up else WING_DOWN, "slow-out-in"))
        frame += 5 if frame < FLIES + 24 else 7
        up = not up
    return stops


def make() -> Data:
    body = keys((0, ENVELOPE, "hold"), (TURNS, ENVELOPE, "slow-out-in"), (FLIES, BIRD))
    wing = keys((0, CLOSED, "hold"), (8, CLOSED, "wind-up"), (OPENS, OPEN, "hold"), (TURNS, OPEN, "slow-out-in"), *flaps())
    bird = group(
        "Letter",
        x=keys((0, 520), (FLIES, 520, "slow-out"), (LENGTH - 1, 1540)),
        y=keys((0, 440), (TURNS, 440, "slow-out-in"), (FLIES, 380, "slow-out-in"), (LENGTH - 1, 120)),
        rotation=keys((TURNS, 0, "slow-out-in"), (FLIES + 10, -14)),
    )
    return scene(
        "Envelope bird",
        LENGTH,
        [
            *forest(),
            outline(
                "Branch",
                "M-420 14 C-260 -10 -80 6 180 -6 C260 -10 320 -18 360 -30 C330 4 260 22 180 26 C-60 36 -260 24 -420 34 Z",
                x=460,
                y=520,
                fill=PALETTE["bark"],
            ),
            bird,
            outline("Body", ENVELOPE, parent="Letter", fill=PALETTE["cream"], stroke=PALETTE["ink"], stroke_width=4, outline=body),
            ellipse(
                "Eye",
                keys((0, 40), (TURNS, 40, "slow-out-in"), (FLIES, 14)),
                keys((0, 40), (TURNS, 40, "slow-out-in"), (FLIES, 14)),
                parent="Letter",
                x=keys((0, 0), (TURNS, 0, "slow-out-in"), (FLIES, 106)),
                y=keys((0, 14), (8, 14, "wind-up"), (OPENS, -60, "hold"), (TURNS, -60, "slow-out-in"), (FLIES, -34)),
                fill=keys((0, PALETTE["hibiscus"]), (TURNS, PALETTE["hibiscus"], "even"), (FLIES, PALETTE["ink"])),
            ),
            ruled(
                outline("Wing", CLOSED, parent="Letter", fill="#E9CF9C", stroke=PALETTE["ink"], stroke_width=4, outline=wing),
                rule("bend", "outline", angle=keys((FLIES, 0, "slow-out-in"), (FLIES + 6, -24)), direction=-120, held="start"),
            ),
        ],
        PALETTE["sky"],
    )
