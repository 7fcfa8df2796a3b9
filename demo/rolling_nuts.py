"""Rolling nuts: two nuts of different size run down the same slope, neither slipping; behind them the forest follows, the far part slower."""

from demo.build import PALETTE, Data, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 96
#: The slope, from its top on the left to its foot on the right.
TOP, FOOT = (-120.0, 372.0), (1400.0, 676.0)
LONG = ((FOOT[0] - TOP[0]) ** 2 + (FOOT[1] - TOP[1]) ** 2) ** 0.5
UP = ((FOOT[1] - TOP[1]) / LONG, -(FOOT[0] - TOP[0]) / LONG)
DOWNHILL = {"bezier": [0.45, 0.05, 0.9, 0.75]}


def nut(name: str, radius: float, first: int, last: int, colour: str) -> list[Data]:
    """A nut whose rim is on the slope, wherever it is."""
    (x0, y0), (x1, y1) = ((at[0] + UP[0] * radius, at[1] + UP[1] * radius) for at in (TOP, FOOT))
    whole = group(name, x=keys((first, round(x0, 2), DOWNHILL), (last, round(x1, 2))), y=keys((first, round(y0, 2), DOWNHILL), (last, round(y1, 2))))
    r = radius
    return [
        ruled(whole, rule("roll", "rotation", radius=radius)),
        ellipse(f"{name} shell", 2 * r, 2 * r, parent=name, fill=colour, stroke="#5A3A1C", stroke_width=5),
        outline(
            f"{name} seam",
            f"M{-r * 0.8:g} {-r * 0.35:g} C{-r * 0.2:g} {-r * 0.75:g} {r * 0.5:g} {-r * 0.6:g} {r * 0.85:g} {-r * 0.2:g}",
            parent=name,
            fill="#00000000",
            stroke="#5A3A1C",
            stroke_width=4,
        ),
        ellipse(f"{name} eye left", r * 0.3, r * 0.3, parent=name, x=-r * 0.3, y=r * 0.12, fill="#5A3A1C"),
        ellipse(f"{name} eye right", r * 0.3, r * 0.3, parent=name, x=r * 0.3, y=r * 0.12, fill="#5A3A1C"),
        ellipse(f"{name} mouth", r * 0.3, r * 0.34, parent=name, y=r * 0.52, fill="#5A3A1C"),
    ]


def behind() -> list[Data]:
    """The backdrop: the nearer, the faster it follows."""
    by = {"Far hills": 40, "Middle hills": 100, "Near hills": 190, "Canopy": 120}
    parts = []
    for part in forest():
        middle = part["channels"]["x"]
        half = by[part["name"]] / 2
        part["channels"]["x"] = keys((0, middle + half, "slow-out-in"), (LENGTH - 1, middle - half))
        part["channels"]["scale.x"] = 1.2
        parts.append(part)
    return parts


def make() -> Data:
    slope = outline("Slope", f"M{TOP[0]:g} {TOP[1]:g} L{FOOT[0]:g} {FOOT[1]:g} V760 H{TOP[0]:g} Z", fill=PALETTE["canopy"])
    moss = outline("Slope moss", f"M{TOP[0]:g} {TOP[1]:g} L{FOOT[0]:g} {FOOT[1]:g}", fill="#00000000", stroke="#58A562", stroke_width=12)
    return scene(
        "Rolling nuts", LENGTH, [*behind(), slope, moss, *nut("Big nut", 72, 0, 92, "#A8713A"), *nut("Small nut", 36, 14, 84, "#C58B4B")], "#E2EEE4"
    )
