"""The ready elements: each a small scene whose objects are attached to one object in the middle."""

import json
from pathlib import Path
from typing import Any

from demo.build import PALETTE, Data, box, ellipse, group, keys, outline, parade, rule, ruled, scene, text, thing
from demo.hypnotic_hibiscus import blossom

FOLDER = Path(__file__).resolve().parents[1] / "vine_swing" / "elements"
WIDTH, HEIGHT, LENGTH = 400, 260, 72
MIDDLE: Data = {"x": WIDTH / 2, "y": HEIGHT / 2}


def small(name: str, *parts: Data) -> Data:
    return scene(name, LENGTH, list(parts), PALETTE["cream"]) | {"size": [WIDTH, HEIGHT]}


def seal() -> list[Data]:
    landed = keys((0, 2.4, "slow-in"), (10, 0.88), (14, 1.04), (18, 1.0))
    return [
        group("Wax seal", **MIDDLE, scale_x=landed, scale_y=landed, opacity=keys((0, 0.0), (6, 1.0))),
        thing("Wax", {"type": "star"}, parent="Wax seal", width=130, height=130, points=14, inner=0.86, fill=PALETTE["hibiscus"]),
        ellipse("Rim", 92, 92, parent="Wax seal", fill="#00000000", stroke="#FFFFFF55", stroke_width=4),
        text("Seal number", "1", 64, parent="Wax seal", font="bricolage-grotesque", weight=800, y=22, fill="#FFF6E6"),
    ]


def bar() -> list[Data]:
    grown = keys((0, 0.0, "overshoot"), (24, 1.0))
    return [
        group("Bar", x=WIDTH / 2, y=220),
        box("Bar column", 70, 160, 0.12, parent="Bar", fill=PALETTE["deep"], pivot_y=80, scale_y=grown),
        ruled(
            text("Bar value", "{number}", 26, parent="Bar", font="atkinson-hyperlegible-mono", weight=700, fill=PALETTE["ink"]),
            rule("link", "number", formula="{Bar column.scale.y} * 100"),
            rule("link", "y", formula="-160 * {Bar column.scale.y} - 10"),
        ),
        text("Bar label", "Mon", 24, parent="Bar", y=28, fill=PALETTE["ink"], opacity=keys((0, 0.0), (12, 1.0))),
    ]


def bullet() -> list[Data]:
    popped = keys((0, 0.0, "overshoot"), (12, 1.0))
    return [
        group("List line", x=90, y=HEIGHT / 2, opacity=keys((0, 0.0), (6, 1.0))),
        outline(
            "Bullet", "M-14 0 C-14 -20 8 -20 18 -14 C18 8 0 18 -14 0 Z", parent="List line", fill=PALETTE["leaf"], scale_x=popped, scale_y=popped
        ),
        text(
            "Line words",
            "Sort the letters",
            34,
            parent="List line",
            align="left",
            weight=600,
            y=12,
            fill=PALETTE["ink"],
            x=keys((4, 90, "slow-in"), (20, 34)),
        ),
    ]


def stamp() -> list[Data]:
    down = keys((0, -150, "slow-out"), (10, 0, "hold"), (18, 0, "slow-in"), (34, -170))
    return [
        group("Stamping", x=WIDTH / 2, y=170),
        ruled(group("Print", parent="Stamping", rotation=-8), rule("link", "opacity", formula="1 if f >= 10 else 0")),
        box("Print edge", 150, 64, 0.2, parent="Print", fill="#00000000", stroke=PALETTE["hibiscus"], stroke_width=5),
        text("Print words", "PAID", 44, parent="Print", weight=800, y=15, fill=PALETTE["hibiscus"]),
        group("Stamper", parent="Stamping", y=down),
        box("Foot", 168, 26, 0.3, parent="Stamper", y=-14, fill=PALETTE["bark"]),
        outline("Handle", "M-16 -26 C-12 -60 -34 -80 0 -104 C34 -80 12 -60 16 -26 Z", parent="Stamper", fill="#8A6238"),
    ]


def postcard() -> list[Data]:
    turned = keys((8, 1.0, "slow-out-in"), (24, -1.0, "hold"), (48, -1.0, "slow-out-in"), (64, 1.0))
    front, back = (rule("link", "opacity", formula=f"{a} if {{Postcard.scale.x}} > 0 else {b}") for a, b in ((1, 0), (0, 1)))
    return [
        group("Postcard", **MIDDLE, scale_x=turned),
        box("Card", 230, 150, 0.06, parent="Postcard", fill="#FFFDF6"),
        ruled(group("Card front", parent="Postcard"), front),
        box("View", 210, 130, 0.04, parent="Card front", fill=PALETTE["sky"]),
        outline("Hills", "M-105 65 V10 C-60 -40 -20 0 10 -10 C50 -50 80 -10 105 0 V65 Z", parent="Card front", fill=PALETTE["mid"]),
        ruled(group("Card back", parent="Postcard", scale_x=-1), back),
        text("Greeting", "Greetings from\nthe canopy", 28, parent="Card back", font="caveat", weight=600, y=-8, fill=PALETTE["ink"]),
    ]


def underline() -> list[Data]:
    return [
        group("Underlined", **MIDDLE),
        text(
            "Underlined word",
            "Today",
            72,
            parent="Underlined",
            font="bricolage-grotesque",
            weight=800,
            fill=PALETTE["canopy"],
            opacity=keys((0, 0.0), (8, 1.0)),
        ),
        thing(
            "Underline",
            {"type": "line"},
            parent="Underlined",
            x=-105,
            y=24,
            stroke=PALETTE["mango"],
            stroke_width=9,
            end_x=keys((8, 0, "slow-out-in"), (26, 210)),
        ),
    ]


def counter() -> list[Data]:
    return [
        group("Counter", **MIDDLE),
        box("Counter plate", 220, 110, 0.25, parent="Counter", fill=PALETTE["canopy"]),
        text(
            "Counter number",
            "{number:,d}",
            60,
            parent="Counter",
            font="atkinson-hyperlegible-mono",
            weight=700,
            y=12,
            fill="#FFF6E6",
            number=keys((4, 0, "slow-in"), (52, 1250)),
        ),
        text("Counter label", "letters today", 20, parent="Counter", y=40, fill=PALETTE["far"]),
    ]


def chart() -> list[Data]:
    parts = [part | {"channels": dict(part["channels"])} for part in bar()]
    parts[0]["channels"] |= {"x": 0, "y": 0, "scale.x": 0.75, "scale.y": 0.85}
    parts[0]["parent"] = "bars"
    lists = [
        {"object": "bar-label", "channel": "text", "values": ["Mon", "Tue", "Wed", "Thu"]},
        {"object": "bar-column", "channel": "scale.y", "values": [0.4, 0.8, 0.55, 1.0], "mode": "multiply"},
    ]
    axis = thing(
        "Axis", {"type": "line"}, parent="Bar chart", x=-36, y=1, stroke=PALETTE["ink"], stroke_width=3, end_x=keys((0, 0, "slow-in"), (16, 308))
    )
    marks = parade(
        "Marks",
        {"arrange": "free", "lists": [{"object": "mark-words", "channel": "text", "values": ["0", "50", "100"]}]},
        parent="Bar chart",
        x=-44,
        count=3,
        delay=3,
        spread_x=0,
        spread_y=-68,
    )
    mark = text(
        "Mark words",
        "0",
        18,
        parent="Marks",
        font="atkinson-hyperlegible-mono",
        align="right",
        y=6,
        fill="#26332CAA",
        opacity=keys((4, 0.0), (12, 1.0)),
    )
    bars = parade("Bars", {"measured_at": 30, "lists": lists}, parent="Bar chart", count=4, delay=5, gap=26)
    return [group("Bar chart", x=92, y=215), mark, marks, axis, *parts, bars]


def lines_of(name: str, settings: Data, *parts: Data) -> list[Data]:
    return [*parts, parade(name, {"arrange": "column", "measured_at": 30} | settings, x=100, y=70, count=3, delay=10, gap=26)]


def texts_list() -> list[Data]:
    parts = [part | {"channels": dict(part["channels"])} for part in bullet()]
    parts[0]["channels"] |= {"x": 0, "y": 0}
    parts[0]["parent"] = "list-of-texts"
    return lines_of(
        "List of texts",
        {"lists": [{"object": "line-words", "channel": "text", "values": ["Sort the letters", "Feed the frogs", "Fly at noon"]}]},
        *parts,
    )


def numbered() -> list[Data]:
    parts = [part | {"channels": dict(part["channels"])} for part in seal()]
    parts[0]["channels"] |= {"x": 0, "y": 0}
    shrunk = group("Numbered line", parent="Numbered list", scale_x=0.42, scale_y=0.42)
    parts[0]["parent"] = "numbered-line"
    words = text(
        "Numbered words",
        "Collect",
        76,
        parent="Numbered line",
        align="left",
        weight=600,
        y=26,
        fill=PALETTE["ink"],
        x=keys((6, 220, "slow-in"), (24, 96)),
        opacity=keys((6, 0.0), (12, 1.0)),
    )
    lists = [
        {"object": "seal-number", "channel": "text", "values": ["1", "2", "3"]},
        {"object": "numbered-words", "channel": "text", "values": ["Collect", "Sort", "Deliver"]},
    ]
    return lines_of("Numbered list", {"lists": lists}, shrunk, *parts, words)


def rings() -> list[Data]:
    colours = {"object": "ring-blossom", "channel": "fill", "values": [PALETTE["hibiscus"], PALETTE["cream"]]}
    settings = {"arrange": "nest", "geometric": True, "wraps": True, "front": "smallest", "lists": [colours]}
    moved = keys((0, 0.0), (LENGTH, 2.0), after="climb")
    return [
        outline("Ring blossom", blossom(), parent="Endless rings", fill=PALETTE["hibiscus"]),
        parade("Endless rings", settings, **MIDDLE, count=16, delay=0, from_scale=0.03, to_scale=0.8, to_rotation=108, shift=moved),
    ]


WORDS: tuple[tuple[str, str, Any], ...] = (
    ("Wax seal", "A numbered seal that lands; its number is a text.", seal),
    ("Bar with value", "Grows, and its number counts along; set its share by the size of the column.", bar),
    ("List line", "A bullet pops and words slide in beside it.", bullet),
    ("Stamp", "Pressed on, and lifted again.", stamp),
    ("Postcard", "Turns over to show its greeting, and back.", postcard),
    ("Underlined word", "A line draws itself under a word.", underline),
    ("Counter", "Counts up to a number, on a plate.", counter),
    ("Bar chart", "Four bars from a table, with an axis: change rows and shares under the Lists of Bars.", chart),
    ("List of texts", "Lines that come in one after the other.", texts_list),
    ("Numbered list", "Seals with numbers, and words beside them.", numbered),
    ("Endless rings", "Blossoms in one another that grow for ever, without a seam.", rings),
)


def texts() -> dict[str, str]:
    """File name → text of every element."""
    result = {}
    for n, (label, about, make) in enumerate(WORDS, start=1):
        name = label.lower().replace(" ", "-")
        data = {"name": name, "label": label, "about": about, "scene": small(label, *make())}
        result[f"{n:02}-{name}.json"] = json.dumps(data, ensure_ascii=False, indent=1) + "\n"
    return result
