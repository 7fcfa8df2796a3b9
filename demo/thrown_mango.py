"""Thrown mango: two frogs of the sorting office play catch forever; each channel of the mango has two keys."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, scene

#: The cubic that is exactly the parabola 2u − u²: a throw slowing as it rises; mirrored, it falls.
RISE = {"bezier": [1 / 3, 2 / 3, 2 / 3, 1]}


def frog(name: str, x: float, side: int, colour: str, dark: str, catch: int) -> list[Data]:
    """A frog on a stump, facing the other; it dips at the frame the mango arrives, and every 48 frames."""
    at = [(f, v, "slow-out-in") for f, v in ((catch - 4, 1.0), (catch + 3, 0.86), (catch + 10, 1.05), (catch + 16, 1.0))]
    stops = [(catch + 16 - 48, 1.0, "hold"), *at] if catch >= 24 else [*at, (catch - 4 + 48, 1.0)]
    dip = keys(*stops, after="loop", before="loop")
    n = name
    return [
        outline(f"{n} stump", "M-90 -26 C-60 -44 60 -44 90 -26 L108 160 H-108 Z", x=x, y=610, fill=PALETTE["bark"]),
        ellipse(f"{n} stump top", 184, 48, x=x, y=584, fill="#9C7445", stroke="#7F5B33", stroke_width=5),
        group(n, x=x, y=584, scale_x=side, scale_y=dip),
        ellipse(f"{n} far leg", 92, 64, parent=n, x=-52, y=-22, rotation=-18, fill=dark),
        outline(f"{n} body", "M-66 0 C-86 -60 -54 -132 4 -132 C60 -132 86 -70 66 0 C40 12 -40 12 -66 0 Z", parent=n, fill=colour),
        outline(f"{n} belly", "M-26 2 C-34 -40 -14 -86 18 -88 C50 -84 60 -40 48 0 C26 8 -6 8 -26 2 Z", parent=n, fill="#E9EBC2"),
        ellipse(f"{n} leg", 100, 62, parent=n, x=-40, y=-20, rotation=-12, fill=colour, stroke=dark, stroke_width=4),
        ellipse(f"{n} foot", 74, 24, parent=n, x=24, y=0, fill=colour, stroke=dark, stroke_width=4),
        outline(
            f"{n} arm",
            "M-8 -70 C18 -78 58 -90 84 -112 C96 -112 98 -98 90 -92 C66 -62 28 -44 2 -46 Z",
            parent=n,
            fill=colour,
            stroke=dark,
            stroke_width=4,
        ),
        ellipse(f"{n} head", 128, 92, parent=n, x=14, y=-152, fill=colour),
        outline(f"{n} smile", "M-26 0 C-6 18 34 18 54 -6", parent=n, x=14, y=-142, fill="#00000000", stroke=dark, stroke_width=5),
        outline(
            f"{n} cap",
            "M-44 4 C-40 -34 30 -40 40 -2 C62 0 72 6 74 12 C30 20 -20 18 -44 4 Z",
            parent=n,
            x=-22,
            y=-190,
            rotation=-22,
            fill=PALETTE["hibiscus"],
        ),
        box(f"{n} cap badge", 20, 14, 0.5, parent=n, x=-26, y=-202, rotation=-22, fill=PALETTE["cream"]),
        ellipse(f"{n} eye socket", 44, 44, parent=n, x=40, y=-190, fill=colour),
        ellipse(f"{n} eye", 30, 30, parent=n, x=42, y=-192, fill="#FFFDF4"),
        ellipse(f"{n} pupil", 13, 16, parent=n, x=47, y=-191, fill=PALETTE["ink"]),
    ]


def make() -> Data:
    mango = [
        group(
            "Mango",
            x=keys((0, 330), (24, 950), after="ping-pong"),
            y=keys((0, 478, RISE), (12, 196), after="ping-pong"),
            rotation=keys((0, -40), (24, 220), after="ping-pong"),
        ),
        ellipse("Mango body", 92, 72, parent="Mango", fill=PALETTE["mango"]),
        outline("Mango blush", "M-44 6 C-36 34 30 40 44 4 C36 22 -10 26 -44 6 Z", parent="Mango", fill="#E0662A"),
        ellipse("Mango shine", 30, 14, parent="Mango", x=-14, y=-18, rotation=-16, fill="#FFD28A"),
        outline("Mango stalk", "M0 0 C4 -8 10 -12 18 -14", parent="Mango", x=26, y=-28, fill="#00000000", stroke=PALETTE["bark"], stroke_width=6),
        outline("Mango leaf", "M0 0 C8 -26 34 -30 54 -22 C44 0 20 10 0 0 Z", parent="Mango", x=38, y=-38, fill=PALETTE["leaf"]),
    ]
    lianas = [
        outline(f"Liana {n}", f"M0 0 C{bend} 60 {-bend} 120 {bend / 2} {drop}", x=x, y=40, fill="#00000000", stroke=PALETTE["canopy"], stroke_width=7)
        for n, (x, bend, drop) in enumerate([(120, 14, 190), (512, -10, 120), (760, 12, 96), (1188, -16, 230)], start=1)
    ]
    frogs = frog("Fern", 214, 1, "#6DAE5B", "#3E7A42", 0) + frog("Moss", 1066, -1, "#4FA08A", "#2F6E62", 24)
    return scene("Thrown mango", 96, [*forest(), *lianas, *frogs, *mango], PALETTE["sky"])
