"""Liana: the lemur postie swings on a liana. One pendulum moves it all; tail and satchel follow, each link a little later than the one before."""

from demo.build import PALETTE, Data, ellipse, forest, group, outline, rule, ruled, scene

#: Two swings, by the length and the gravity below.
LENGTH = 120
FUR, DARK, PALE = "#8C8C86", "#3E3A36", "#E9E3D6"
ROPE = 330


def follow(leader: str, **settings: object) -> Data:
    return rule("follow", "rotation", leader=leader, **settings)


def postie() -> list[Data]:
    """The lemur: it hangs by one hand from the end of the liana."""
    body = group("Postie", parent="Swing", y=ROPE, rotation=-6, stretch=1.04, stretch_angle=90)
    # It lags behind the liana it is attached to, and swings on when that turns.
    # It gives a little at the bottom of each swing, where it weighs most.
    give = rule("oscillator", "stretch", wave="cosine", amplitude=0.05, phase=180.0, cycles=4.0)
    body = ruled(body, follow("swing", delay=2.0, share=0.25, spring=1.6, damping=0.35), give)
    return [
        body,
        *tail(),
        outline("Postie arm", "M-8 -14 C-18 12 -14 40 -4 60 L16 54 C8 36 6 10 8 -14 Z", parent="Postie", fill=FUR),
        outline("Postie leg far", "M8 142 C26 162 30 186 18 206 L36 208 C50 184 44 152 28 130 Z", parent="Postie", fill="#74746F"),
        outline("Postie body", "M-22 62 C-38 96 -32 140 -6 156 C22 160 42 130 36 92 C32 66 6 46 -22 62 Z", parent="Postie", fill=FUR),
        outline("Postie belly", "M-12 84 C-20 108 -14 134 2 142 C18 138 22 110 14 88 C8 78 -6 76 -12 84 Z", parent="Postie", fill=PALE),
        outline("Postie leg", "M-6 140 C-26 160 -34 184 -24 208 L-4 206 C-10 186 -2 168 14 150 Z", parent="Postie", fill=FUR),
        *satchel(),
        group("Postie head", parent="Postie", x=14, y=52),
        outline(
            "Postie ears",
            "M-32 -40 C-46 -62 -28 -72 -14 -54 M18 -56 C32 -74 48 -60 36 -40",
            parent="Postie head",
            fill=FUR,
            stroke=DARK,
            stroke_width=5,
        ),
        ellipse("Postie face", 76, 66, parent="Postie head", y=-26, fill=FUR),
        ellipse("Postie muzzle", 40, 32, parent="Postie head", x=12, y=-14, fill=PALE),
        ellipse("Postie eye left", 17, 19, parent="Postie head", x=-8, y=-32, fill="#F0A93B", stroke=DARK, stroke_width=4),
        ellipse("Postie eye right", 17, 19, parent="Postie head", x=22, y=-32, fill="#F0A93B", stroke=DARK, stroke_width=4),
        ellipse("Postie nose", 13, 9, parent="Postie head", x=20, y=-16, fill=DARK),
        outline("Postie cap", "M-34 -46 C-30 -74 26 -76 34 -46 L48 -42 L-34 -40 Z", parent="Postie head", fill=PALETTE["hibiscus"]),
    ]


def tail() -> list[Data]:
    """Four rings of a tail, each attached to the one before and turning after it."""
    parts: list[Data] = []
    parent, leader = "Postie", "swing"
    for n in range(1, 5):
        name = f"Tail {n}"
        link = group(name, parent=parent, x=-8 if n == 1 else -26, y=146 if n == 1 else 13, rotation=-4 if n == 1 else -12)
        parts.append(ruled(link, follow(leader, delay=3.0, share=0.55, spring=2.0, damping=0.3)))
        parts.append(
            outline(f"{name} fur", "M8 -10 C-14 -12 -34 2 -42 12 L-32 30 C-22 18 -6 10 10 12 Z", parent=name, fill=DARK if n % 2 == 0 else PALE)
        )
        parent, leader = name, name.lower().replace(" ", "-")
    return parts


def satchel() -> list[Data]:
    bag = group("Satchel", parent="Postie", x=22, y=70)
    return [
        ruled(bag, follow("swing", delay=3.0, share=-0.5, spring=1.8, damping=0.2)),
        outline("Satchel strap", "M0 0 L10 58", parent="Satchel", fill="#00000000", stroke="#7A4A1E", stroke_width=7),
        outline("Satchel bag", "M-18 54 H42 L46 104 C30 112 -8 112 -22 104 Z", parent="Satchel", fill="#C97A2B"),
        outline("Satchel flap", "M-20 54 H44 L36 78 C24 84 2 84 -12 78 Z", parent="Satchel", fill="#A85F1C"),
    ]


def make() -> Data:
    swing = group("Swing", x=640, y=70)
    return scene(
        "Liana",
        LENGTH,
        [
            *forest(),
            ruled(swing, rule("pendulum", "rotation", length=float(ROPE), gravity=2263.6, angle=46.0, damping=0.0)),
            outline("Swing liana", f"M0 -20 C6 100 -6 220 0 {ROPE}", parent="Swing", fill="#00000000", stroke=PALETTE["canopy"], stroke_width=11),
            *postie(),
        ],
        "#DDEBE2",
    )
