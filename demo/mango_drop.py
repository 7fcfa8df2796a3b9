"""Mango drop: the same fall twice. On the left plain keys, on the right a bounce that was released, with squash and stretch."""

from demo.build import PALETTE, Data, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 96
FLOOR, TOP = 610, 150
#: The plain one hops as someone would key it: straight up and down, at even speed.
PLAIN = keys((8, TOP), (20, FLOOR), (30, 380), (40, FLOOR), (47, 510), (54, FLOOR))


def mango(name: str, x: float, colour: str, **channels: object) -> list[Data]:
    """A mango that is on its own lowest point, so that it flattens against the ground."""
    fruit = group(name, x=x, pivot_y=62, **channels)
    return [
        fruit,
        outline(
            f"{name} body", "M-46 4 C-46 -42 -14 -62 14 -60 C48 -58 62 -20 52 16 C42 50 12 64 -14 62 C-38 60 -46 34 -46 4 Z", parent=name, fill=colour
        ),
        outline(f"{name} blush", "M2 -48 C30 -46 44 -18 38 10 C28 -6 12 -22 -14 -30 C-12 -40 -6 -48 2 -48 Z", parent=name, fill="#E2643A"),
        outline(f"{name} stalk", "M10 -58 C10 -70 16 -78 24 -82", parent=name, fill="#00000000", stroke=PALETTE["bark"], stroke_width=6),
        outline(f"{name} leaf", "M20 -74 C36 -96 62 -96 78 -84 C66 -66 42 -60 20 -74 Z", parent=name, fill=PALETTE["leaf"]),
    ]


def bench(x: float, name: str) -> list[Data]:
    return [
        outline(name, "M-150 0 C-150 -14 150 -14 150 0 L140 30 H-140 Z", x=x, y=FLOOR + 9, fill=PALETTE["bark"]),
        ellipse(f"{name} shadow", 260, 22, x=x, y=FLOOR + 60, fill="#26332C33"),
    ]


def make() -> Data:
    plain = mango("Plain mango", 400, "#E8A24A", y=PLAIN)
    soft = mango("Mango", 880, PALETTE["mango"], y=TOP)
    soft[0] = ruled(
        soft[0],
        rule("bounce", "y", floor=float(FLOOR), fall=12.0, keep=0.5, start=8.0),
        rule("squash-stretch", "stretch", "stretch.angle", amount=0.35, full_speed=60.0, impact=0.55, recover=7.0),
    )
    return scene("Mango drop", LENGTH, [*forest(), *bench(400, "Left bench"), *bench(880, "Right bench"), *plain, *soft], "#E4EFE3")
