"""Departures: the post's board drops in, its title fades up, destinations crawl and go behind it softly, and a ferry token throws a shadow
only while it rests."""

from demo.build import PALETTE, Data, blended, box, ellipse, group, keys, look, outline, rule, ruled, scene, text

LENGTH = 216
#: When the token comes to rest on the rail, and when it goes on.
RESTS, GOES = 104, 168
PLATE_X, PLATE_Y = 350, 300


def plate() -> list[Data]:
    """A plate of planks on two ropes that falls from above, and hangs still after two hops."""
    falls = keys((6, -420.0), (7, -420.0))
    hung = group("Board", x=PLATE_X, y=falls)
    planks = [box(f"Plank {n}", 460, 84, 0.12, parent="Board", y=(n - 2) * 88.0, fill="#7A5330") for n in (1, 2, 3)]
    shaded = [blended(plank, "linear", (0, -42, 0, 42), (0, "#94683D"), (0.5, "#7D5530"), (1, "#694424")) for plank in planks]
    ropes = [box(f"Rope {side}", 9, 700, parent="Board", x=x, y=-440.0, fill="#C9B187") for side, x in (("left", -170.0), ("right", 170.0))]
    nails = [
        ellipse(f"Nail {n}", 13, 13, parent="Board", x=x, y=y, fill="#3B2A18")
        for n, (x, y) in enumerate(((-204, -88), (204, -88), (-204, 88), (204, 88)), 1)
    ]
    title = text("Departures", "Departures", 64, font="literata", weight=700, parent="Board", y=-62.0, fill=PALETTE["cream"])
    title["channels"]["opacity"] = keys((44, 0.0, "slow-out-in"), (68, 1.0))
    rules = text("Small print", "on the ferry rail, by the tide", 27, parent="Board", y=10.0, fill="#E7D2A6")
    rules["channels"]["opacity"] = keys((58, 0.0, "slow-out-in"), (82, 0.9))
    dropped = ruled(hung, rule("bounce", "y", floor=PLATE_Y, fall=11, keep=0.2, start=8), look("shadow", dx=10, dy=16, blur=12, opacity=0.35))
    return [dropped, *ropes, *shaded, *nails, title, rules]


def line(number: int, words: str, y: float, start: float, fill: str) -> Data:
    """A line of destinations that crawls to the left and goes behind the plate with a soft edge."""
    crawls = keys((start, 1740.0, "linear"), (start + 300, -1300.0))
    written = text(f"Line {number}", words, 40, font="rubik", weight=500, x=crawls, y=y, fill=fill)
    return ruled(written, look("mask", by="board", side="outside", feather=16))


def token() -> list[Data]:
    """A ferry token that rolls along the rail, rests, and rolls on. Its shadow is keyed on while it rests, and falls the same way however it is
    turned."""
    travels = keys((70, 1428.85, "slow-in"), (RESTS, 700.0, "hold"), (GOES, 700.0, "slow-out"), (LENGTH - 12, -160.0))
    strength = keys((RESTS - 8, 0.0, "slow-out-in"), (RESTS + 4, 0.45, "even"), (GOES - 4, 0.45, "slow-out-in"), (GOES + 8, 0.0))
    shadow = look("shadow", dx=14, dy=20, blur=9, colour="#14261D", opacity=strength)
    whole = ruled(group("Ferry token", x=travels, y=568.0), rule("roll", "rotation", radius=58), shadow)
    disc = blended(
        ellipse("Token disc", 116, 116, parent="Ferry token", stroke_width=7, stroke="#8A5A1E"),
        "radial",
        (-18, -22, 60, 46),
        (0, "#FFD98A"),
        (0.6, PALETTE["mango"]),
        (1, "#C9701A"),
    )
    boat = outline("Token boat", "M-34 4 H34 L22 24 H-22 Z M-3 0 V-34 L26 -6 H-3 Z", parent="Ferry token", y=2.0, fill="#5B3413")
    return [whole, disc, boat]


def make() -> Data:
    wall = blended(
        box("Wall", 1280, 720, x=640, y=360, fill="#3F6B52"), "linear", (0, -360, 0, 360), (0, "#2C5140"), (0.7, "#4D7C5F"), (1, "#3D644D")
    )
    rail = blended(box("Ferry rail", 1280, 26, x=640, y=640, fill="#8A6236"), "linear", (0, -13, 0, 13), (0, "#A77A48"), (1, "#6E4B2A"))
    far = "Fern Landing 7.20   ·   Mossy Bend 7.45   ·   Heron Steps 8.10   ·   Old Kapok 8.30"
    near = "Lower Falls 9.00   ·   Orchid Quay 9.25   ·   Toucan Point 9.40"
    objects = [wall, line(1, far, 268, 30, PALETTE["cream"]), line(2, near, 346, 62, "#BFD8C4"), *plate(), rail, *token()]
    return scene("Departures", LENGTH, objects, "#2C5140")
