"""Hypnotic hibiscus: thirty blossoms in one another, in two colours, that grow forever: after 48 frames each stands where the next but one stood."""

import math

from demo.build import PALETTE, Data, ellipse, keys, outline, parade, scene

LENGTH = 48
COPIES = 30
PETALS = 5


def blossom() -> str:
    """Five petals about the middle, 300 px across, as SVG path data."""
    parts = []
    for petal in range(PETALS):
        here, there = (2 * math.pi * (petal + side) / PETALS for side in (0, 1))
        middle = (here + there) / 2

        def at(angle: float, radius: float) -> str:
            return f"{radius * math.sin(angle):.2f} {-radius * math.cos(angle):.2f}"

        parts.append(f"{'M' + at(here, 92) if petal == 0 else ''} C{at(here - 0.12, 178)} {at(middle - 0.42, 186)} {at(middle, 150)}")
        parts.append(f"C{at(middle + 0.42, 186)} {at(there + 0.12, 178)} {at(there, 92)}")
    return " ".join(parts) + " Z"


def make() -> Data:
    item = outline("Blossom", blossom(), parent="Rings", fill=PALETTE["hibiscus"])
    rings = parade(
        "Rings",
        {
            "arrange": "nest",
            "geometric": True,
            "wraps": True,
            "front": "smallest",
            "lists": [{"object": "blossom", "channel": "fill", "values": [PALETTE["hibiscus"], PALETTE["cream"]]}],
        },
        x=640,
        y=360,
        count=COPIES,
        delay=0,
        from_scale=0.02,
        to_scale=9.0,
        from_rotation=0,
        to_rotation=216,
        shift=keys((0, 0.0), (LENGTH, 2.0), after="climb"),
    )
    return scene("Hypnotic hibiscus", LENGTH, [item, rings, ellipse("Pollen", 14, 14, x=640, y=360, fill=PALETTE["mango"])], PALETTE["hibiscus"])
