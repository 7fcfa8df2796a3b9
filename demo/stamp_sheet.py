"""Stamp sheet: one stamp that turns over, in a row, in a column of such rows: the delays of both make a wave run from corner to corner."""

from demo.build import PALETTE, Data, box, ellipse, group, keys, outline, parade, rule, ruled, scene, text

LENGTH = 144
COLUMNS, LINES = 8, 4


def stamp() -> list[Data]:
    """A stamp with a front and a back; which of them is seen follows which way it is turned."""
    turned = keys((10, 1.0, "slow-out-in"), (26, -1.0, "hold"), (70, -1.0, "slow-out-in"), (86, 1.0))
    front, back = (rule("link", "opacity", formula=f"{a} if {{Stamp.scale.x}} > 0 else {b}") for a, b in ((1, 0), (0, 1)))
    return [
        group("Stamp", parent="Row", scale_x=turned),
        box("Edge", 112, 140, 0.1, parent="Stamp", fill="#FFFDF6"),
        ruled(group("Back", parent="Stamp"), back),
        box("Gum", 96, 124, 0.08, parent="Back", fill=PALETTE["far"]),
        outline(
            "Mark",
            "M0 -40 C34 -34 34 22 0 42 C-34 22 -34 -34 0 -40 Z M0 -30 L0 36",
            parent="Back",
            fill=PALETTE["deep"],
            stroke="#FFFDF6",
            stroke_width=3,
        ),
        ruled(group("Front", parent="Stamp"), front),
        box("Ground", 96, 124, 0.08, parent="Front", fill=PALETTE["sky"]),
        ellipse("Fruit", 58, 50, parent="Front", y=10, fill=PALETTE["mango"]),
        outline("Leaf", "M0 -10 C12 -30 34 -28 40 -22 C32 -10 14 -4 0 -10 Z", parent="Front", y=-6, fill=PALETTE["leaf"]),
        text("Price", "1", 26, parent="Front", weight=800, align="left", x=-40, y=-34, fill=PALETTE["ink"]),
    ]


def make() -> Data:
    grounds = [PALETTE["sky"], "#F7D9B0", "#E8C7D0", "#CFE0F0"]
    row = parade(
        "Row",
        {"arrange": "row", "measured_at": 0, "lists": [{"object": "price", "channel": "text", "values": [f"{n}" for n in range(1, COLUMNS + 1)]}]},
        parent="Sheet",
        count=COLUMNS,
        delay=3,
        gap=18,
    )
    sheet = parade(
        "Sheet",
        {"arrange": "column", "lists": [{"object": "ground", "channel": "fill", "values": grounds}]},
        x=640 - (COLUMNS - 1) * 130 / 2,
        y=360 - (LINES - 1) * 158 / 2,
        count=LINES,
        delay=4,
        gap=18,
    )
    return scene("Stamp sheet", LENGTH, [*stamp(), row, sheet], PALETTE["canopy"])
