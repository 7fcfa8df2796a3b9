"""Bamboo chimes: a clapper swings in the wind and knocks on the tubes, which ring out; all with motion blur."""

from demo.build import PALETTE, Data, blended, box, ellipse, group, keys, look, outline, parade, rule, ruled, scene

LENGTH = 192
#: The frames at which the clapper knocks, and on which side: 1 on the right, -1 on the left.
KNOCKS = ((30, 1), (54, -1), (86, 1), (110, -1), (134, 1))
#: How far from the middle the tubes are attached to each side, how long they are, and how many frames after a knock they feel it.
TUBES = ((99.0, 216.0, 0, 12.0), (198.0, 258.0, 6, 7.0))
#: How far the clapper swings to reach the inner tubes, in degrees.
REACH = 11.0


def tube(side: int, number: int) -> list[Data]:
    """A tube on a string that swings a little by itself, and more when the clapper, or the tube beside it, knocks on it."""
    far, long, later, force = TUBES[number]
    name = f"{'Right' if side > 0 else 'Left'} {'outer' if number else 'inner'}"
    hung = group(f"{name} chime", parent="Chimes", x=side * far, y=14.0)
    swings = [rule("noise", "rotation", amplitude=1.2, frequency=0.5, seed=20 + number + 5 * side)]
    for n, (frame, struck) in enumerate(KNOCKS):
        if struck == side:
            ring = rule("oscillator", "rotation", amplitude=-force * side, frequency=1.35, start=frame + later, half_life=0.7)
            swings.append(ring | {"id": f"knock-{n}"})
    string = box(f"{name} string", 3, 110, parent=f"{name} chime", y=55.0, fill="#6E5A3C")
    cane = box(f"{name} tube", 42, long, 0.4, parent=f"{name} chime", y=110 + long / 2, fill="#C2B45A", stroke="#6F6A2E", stroke_width=2.5)
    shaded = blended(cane, "linear", (-21, 0, 21, 0), (0, "#8E8A3E"), (0.35, "#E4DA8E"), (1, "#8A7F38"))
    rings = [box(f"{name} ring {n}", 46, 7, 0.5, parent=f"{name} chime", y=110 + long * share, fill="#7D7734") for n, share in ((1, 0.3), (2, 0.72))]
    return [ruled(hung, *swings), string, shaded, *rings]


def clapper() -> list[Data]:
    """The disc in the middle, and the leaf below it that catches the wind."""
    # It turns to the right for an object that hangs to go to the left.
    knocks = [(float(frame), -side * REACH, "slow-out-in") for frame, side in KNOCKS]
    direction = keys((0, 0.0, "slow-out-in"), (16, 6.0, "slow-in"), *knocks, (164, 4.0, "slow-out-in"), (LENGTH - 1, 0.0))
    hung = group("Clapper", parent="Chimes", y=14.0, rotation=direction)
    string = box("Clapper string", 3, 430, parent="Clapper", y=215.0, fill="#6E5A3C")
    disc = ellipse("Clapper disc", 74, 60, parent="Clapper", y=214.0, fill="#8A5A2C", stroke="#5B3A1A", stroke_width=3)
    leaf = outline("Wind leaf", "M0 -70 C52 -40 46 40 0 86 C-46 40 -52 -40 0 -70 Z", parent="Clapper", y=468.0, fill=PALETTE["leaf"])
    flutters = ruled(
        leaf, rule("oscillator", "rotation", amplitude=14, frequency=2.2), rule("oscillator", "scale.x", amplitude=0.22, frequency=1.7, phase=60)
    )
    return [ruled(hung, rule("noise", "rotation", amplitude=0.6, frequency=0.7, seed=9)), string, disc, flutters]


def leaves() -> list[Data]:
    """Leaves on the wind, smeared by how fast they go."""
    swarm = parade(
        "Leaves on the wind",
        {"arrange": "grid", "columns": 5, "order": "chance", "seed": 8},
        x=-220.0,
        y=120.0,
        count=10,
        gap=120,
        gap_down=210,
        delay=13,
    )
    crosses = keys((0, 0.0, "linear"), (60, 1750.0), after="loop")
    blown = ruled(
        outline("Blown leaf", "M-20 0 C-8 -14 12 -12 22 0 C12 12 -8 14 -20 0 Z", parent="Leaves on the wind", x=crosses, fill="#D9A441"),
        rule("noise", "y", amplitude=60, frequency=0.6, seed=3),
        rule("oscillator", "rotation", amplitude=60, frequency=0.9),
    )
    return [swarm, blown]


def make() -> Data:
    sky = blended(
        box("Evening sky", 1280, 720, x=640, y=360, fill="#F6D9A8"), "linear", (0, -360, 0, 360), (0, "#F2B877"), (0.55, "#F7E0B4"), (1, "#CFE0C2")
    )
    sun = ruled(ellipse("Low sun", 150, 150, x=980, y=210, fill="#FFF1CF"), look("glow", size=60, strength=1.6, colour="#FFD089"))
    hills = outline("Soft hills", "M-700 40 C-520 -70 -380 -50 -200 10 S160 -90 340 0 S600 40 700 -40 V300 H-700 Z", x=640, y=560, fill="#8DB58F")
    hills = ruled(hills, look("blur", size=5))
    beam = blended(box("Beam", 720, 44, 0.4, parent="Chimes", y=0.0, fill="#8A5A2C"), "linear", (0, -22, 0, 22), (0, "#A8733E"), (1, "#6B4320"))
    whole = ruled(group("Chimes", x=640.0, y=110.0), look("shadow", dx=26, dy=34, blur=16, colour="#5B4A2A", opacity=0.28))
    parts = [part for side in (-1, 1) for number in (1, 0) for part in tube(side, number)]
    created = scene("Bamboo chimes", LENGTH, [sky, sun, hills, *leaves(), whole, *clapper(), *parts, beam], "#F6D9A8")
    return created | {"blur": {"samples": 12, "shutter": 180}}
