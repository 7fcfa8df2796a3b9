"""Post report: a bar chart of the letters of a week, one bar animated and paraded; its numbers count with it, its title comes letter by letter."""

from demo.build import PALETTE, Data, box, keys, parade, rule, ruled, scene, text, thing

LENGTH = 120
#: Letters on each day of the week, at the Canopy Post.
LETTERS = {"Mon": 212, "Tue": 340, "Wed": 268, "Thu": 455, "Fri": 390, "Sat": 120, "Sun": 64}
#: How high a bar is that represents this many letters.
HIGH, MOST = 360.0, 500


def bar() -> list[Data]:
    """One bar with its number and its day; all is on y = 0."""
    grown = keys((0, 0.0, "overshoot"), (26, 1.0))
    value = rule("link", "number", formula=f"{{Bar.scale.y}} * {MOST}")
    above = rule("link", "y", formula=f"-{HIGH:g} * {{Bar.scale.y}} - 14")
    return [
        box("Bar", 84, HIGH, 0.12, parent="Week", fill=PALETTE["deep"], pivot_y=HIGH / 2, scale_y=grown),
        ruled(text("Count", "{number}", 34, parent="Week", font="atkinson-hyperlegible-mono", weight=700, fill=PALETTE["ink"]), value, above),
        text("Day", "Mon", 30, parent="Week", weight=600, y=44, fill=PALETTE["ink"], opacity=keys((0, 0.0), (12, 1.0))),
    ]


def make() -> Data:
    days, shares = list(LETTERS), [letters / MOST for letters in LETTERS.values()]
    week = parade(
        "Week",
        {
            "arrange": "row",
            "measured_at": 40,
            "lists": [
                {"object": "day", "channel": "text", "values": days},
                {"object": "bar", "channel": "scale.y", "values": shares, "mode": "multiply"},
            ],
            "overrules": [{"copy": 3, "object": "bar", "channel": "fill", "value": PALETTE["hibiscus"]}],
        },
        x=270,
        y=610,
        count=7,
        delay=6,
        gap=52,
    )
    scale = parade(
        "Scale",
        {"arrange": "free", "lists": [{"object": "hundred", "channel": "text", "values": [f"{hundred}" for hundred in range(0, 501, 100)]}]},
        x=170,
        y=610,
        count=6,
        delay=3,
        spread_x=0,
        spread_y=-HIGH / 5,
    )
    line = thing("Line", {"type": "line"}, parent="Scale", stroke="#26332C33", stroke_width=2, end_x=keys((0, 0.0, "slow-in"), (20, 980.0)))
    hundred = text(
        "Hundred",
        "0",
        22,
        parent="Scale",
        font="atkinson-hyperlegible-mono",
        align="right",
        x=-14,
        y=8,
        fill="#26332CAA",
        opacity=keys((0, 0.0), (10, 1.0)),
    )
    title = text(
        "Title words", "Letters this week", 84, parent="Title", font="bricolage-grotesque", weight=800, fill=PALETTE["canopy"],
        y=keys((0, -240.0, "bounce"), (30, 0.0)),
    )  # fmt: skip
    letters = parade("Title", {"arrange": "letters"}, x=640, y=150, delay=2)
    return scene("Post report", LENGTH, [line, hundred, scale, *bar(), week, title, letters], PALETTE["cream"])
