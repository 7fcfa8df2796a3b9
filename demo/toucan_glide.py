"""Toucan glide: the express courier. One group glides; wing, tail, head and satchel are attached to it and move by themselves."""

from demo.build import PALETTE, Data, box, ellipse, group, keys, outline, scene

HILLS = "M-1400 60 C-1250 -70 -1120 -30 -980 10 S-760 -90 -640 -10 S-440 70 -300 10 S-60 -80 80 0 S300 70 400 10 S640 -90 760 -10 S960 70 1100 10 S1250 -70 1400 60 V420 H-1400 Z"


def cloud(name: str, x: float, y: float, size: float, drift: float) -> Data:
    shape = "M-110 30 C-150 30 -150 -16 -104 -18 C-96 -60 -36 -64 -20 -34 C10 -66 70 -52 70 -16 C124 -22 132 30 88 30 Z"
    return outline(name, shape, x=keys((0, x), (119, x - drift)), y=y, scale_x=size, scale_y=size, fill="#FFFFFFC8")


def make() -> Data:
    t = "Toucan"
    flap = keys((0, -34, "slow-out-in"), (9, 30), after="ping-pong")
    bird = [
        group(
            t,
            x=keys((0, -180), (119, 1460)),
            y=keys((0, 400, "slow-out-in"), (30, 250), after="ping-pong"),
            rotation=keys((0, 7, "slow-out-in"), (30, -7), after="ping-pong"),
        ),
        outline("Far wing", "M0 0 C-30 -60 -110 -120 -190 -112 C-170 -60 -90 0 0 20 Z", parent=t, x=16, y=-20, rotation=flap, fill="#1B2723"),
        outline(
            "Tail",
            "M0 -14 C-60 -26 -120 -16 -164 12 C-120 30 -50 32 0 18 Z",
            parent=t,
            x=-104,
            y=6,
            rotation=keys((0, -9, "slow-out-in"), (15, 10), after="ping-pong"),
            fill="#1F2D28",
        ),
        outline("Tail tip", "M-104 -12 C-130 -8 -150 4 -164 12 C-150 20 -124 26 -104 26 Z", parent="Tail", fill="#E9E2CF"),
        outline("Body", "M-124 4 C-104 -52 20 -76 96 -40 C130 -22 130 22 92 42 C20 72 -92 56 -124 4 Z", parent=t, fill="#22312B"),
        outline("Bib", "M70 -46 C124 -34 134 20 92 42 C66 52 40 54 30 46 C64 24 76 -10 70 -46 Z", parent=t, fill="#FBE9A8"),
        group("Head", parent=t, x=96, y=-30, rotation=keys((0, -5, "slow-out-in"), (30, 6), after="ping-pong")),
        ellipse("Skull", 92, 84, parent="Head", x=18, y=-16, fill="#22312B"),
        outline("Beak", "M0 -34 C60 -62 146 -42 176 14 C120 -2 56 10 0 18 Z", parent="Head", x=46, y=-6, fill=PALETTE["mango"]),
        outline(
            "Beak tip", "M126 -30 C152 -20 168 -4 176 14 C160 10 142 8 126 8 C134 -4 134 -18 126 -30 Z", parent="Head", x=46, y=-6, fill="#2A2320"
        ),
        outline(
            "Lower beak",
            "M0 16 C50 14 96 10 130 18 C96 36 40 40 0 26 Z",
            parent="Head",
            x=46,
            y=-4,
            rotation=keys((0, 0, "hold"), (84, 0, "snap"), (90, 12, "snap"), (98, 0)),
            fill="#DB7A22",
        ),
        ellipse("Eye patch", 40, 38, parent="Head", x=26, y=-24, fill="#7CC6D6"),
        ellipse(
            "Eye",
            18,
            18,
            parent="Head",
            x=28,
            y=-24,
            scale_y=keys((0, 1, "hold"), (40, 1, "slow-out-in"), (42, 0.1, "slow-out-in"), (45, 1, "hold"), (72, 1), after="loop"),
            fill="#1A1512",
        ),
        outline(
            "Cap",
            "M-44 6 C-40 -36 34 -40 42 0 C62 2 72 8 76 14 C30 20 -18 20 -44 6 Z",
            parent="Head",
            x=10,
            y=-50,
            rotation=-6,
            fill=PALETTE["hibiscus"],
        ),
        outline("Strap", "M-10 -56 C10 -20 12 20 -4 60", parent=t, fill="#00000000", stroke="#8A5A32", stroke_width=7),
        group("Satchel", parent=t, x=-4, y=56, rotation=keys((0, 15, "slow-out-in"), (15, -13), after="ping-pong")),
        box("Bag", 78, 60, 0.3, parent="Satchel", y=30, fill="#A86E3C"),
        outline("Flap", "M-39 0 C-39 -8 39 -8 39 0 V18 C20 40 -20 40 -39 18 Z", parent="Satchel", y=4, fill="#8A5A32"),
        ellipse("Clasp", 12, 12, parent="Satchel", y=32, fill="#F3D27A"),
        box("Letter", 40, 30, 0.1, parent="Satchel", x=6, y=-8, rotation=-12, fill="#FFFDF4", stroke="#D8C9A6", stroke_width=2),
        outline(
            "Wing",
            "M0 0 C-14 -70 -96 -150 -200 -146 C-206 -120 -190 -100 -176 -92 C-178 -72 -160 -58 -144 -52 C-142 -34 -124 -22 -106 -18 C-84 8 -40 26 0 26 Z",
            parent=t,
            x=24,
            y=-14,
            rotation=flap,
            fill="#2C3F37",
        ),
        outline(
            "Wing bars",
            "M-40 -44 C-80 -76 -120 -96 -160 -104 M-36 -14 C-70 -36 -104 -50 -134 -56",
            parent="Wing",
            fill="#00000000",
            stroke="#45604F",
            stroke_width=6,
        ),
    ]
    back = [
        ellipse("Sun", 150, 150, x=980, y=150, fill="#F9E3A0"),
        cloud("High cloud", 1080, 120, 0.8, 90),
        cloud("Low cloud", 420, 190, 1.15, 160),
        outline("Far hills", HILLS, x=keys((0, 800), (119, 720)), y=500, fill=PALETTE["far"]),
        outline("Middle hills", HILLS, x=keys((0, 760), (119, 560)), y=570, scale_x=-1, fill=PALETTE["mid"]),
    ]
    front = [
        outline("Near hills", HILLS, x=keys((0, 900), (119, 480)), y=650, fill=PALETTE["deep"]),
        outline(
            "Near leaves",
            "M-60 200 C-110 60 -60 -60 20 -120 C40 -40 30 80 -10 200 Z M0 200 C20 80 90 0 170 -30 C160 70 90 150 20 200 Z M-60 200 C-140 150 -190 70 -200 0 C-130 30 -70 110 -40 200 Z",
            x=keys((0, 1240), (119, 420)),
            y=610,
            rotation=keys((0, -4, "slow-out-in"), (20, 4), after="ping-pong"),
            pivot_y=180,
            fill="#2F6B4F",
        ),
    ]
    return scene("Toucan glide", 120, [*back, *bird, *front], "#DCEBE4")
