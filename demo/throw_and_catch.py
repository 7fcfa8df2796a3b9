"""Throw and catch: a parcel goes from one gecko to the other. Every move has two keys; wind-up, arc and overshoot are rules on top,
and exaggerate makes the throw bolder with one slider."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 96
FLY = (22, 50)


def gecko(name: str, x: float, side: int, arm: Data, *rules: Data) -> list[Data]:
    skin, belly = ("#6FB07A", "#DDEBC0") if side > 0 else ("#5A93B5", "#D3E6EA")
    return [
        group(name, x=x, y=600, scale_x=side),
        outline(f"{name} tail", "M-34 -20 C-90 0 -130 -30 -126 -70 C-150 -20 -100 34 -24 14 Z", parent=name, fill=skin),
        outline(f"{name} body", "M-44 0 C-56 -70 -36 -140 4 -150 C40 -146 52 -80 40 0 Z", parent=name, fill=skin),
        outline(f"{name} belly", "M-10 -10 C-18 -60 -8 -110 14 -124 C34 -100 36 -50 28 -10 Z", parent=name, fill=belly),
        ellipse(f"{name} head", 110, 80, parent=name, x=14, y=-172, fill=skin),
        ellipse(f"{name} eye", 32, 32, parent=name, x=34, y=-196, fill="#FFFDF4", stroke=PALETTE["ink"], stroke_width=3),
        ellipse(f"{name} pupil", 13, 20, parent=name, x=40, y=-196, fill=PALETTE["ink"]),
        outline(f"{name} smile", "M20 -154 C36 -144 52 -148 62 -160", parent=name, fill="#00000000", stroke=PALETTE["ink"], stroke_width=4),
        outline(f"{name} cap", "M-36 -196 C-32 -232 40 -234 46 -208 L76 -202 L-36 -190 Z", parent=name, fill=PALETTE["hibiscus"]),
        outline(f"{name} feet", "M-50 8 C-50 -8 -14 -8 -10 8 Z M10 8 C10 -8 48 -8 52 8 Z", parent=name, fill=skin),
        ruled(group(f"{name} arm", parent=name, x=6, y=-116, rotation=arm), *rules),
        outline(
            f"{name} sleeve",
            "M-14 -6 C10 -16 60 -14 92 -6 C104 0 104 14 92 16 C60 20 10 22 -12 12 Z",
            parent=f"{name} arm",
            fill=skin,
            stroke="#26332C55",
            stroke_width=3,
        ),
    ]


def make() -> Data:
    wind_up = rule("wind-up", "rotation", size=0.45, frames=12.0)
    past = rule("overshoot", "rotation", size=0.2, frames=16.0, settles=3.0)
    bold = rule("exaggerate", "rotation", amount=1.2)
    throw = keys((14, 20, "slow-in"), (22, -60), (60, -60, "slow-out-in"), (74, 20))
    catch = keys((44, 10, "snap"), (50, -30), (52, -30, "slow-out"), (60, 16))
    x = keys((8, 352), (14, 352, "slow-in"), (FLY[0], 330), (FLY[1], 950), (60, 938))
    y = keys((8, 508), (14, 508, "slow-in"), (FLY[0], 420), (FLY[1], 448), (60, 500))
    parcel = group("Parcel", x=x, y=y, rotation=keys((FLY[0], 0), (FLY[1], 360), (60, 364)))
    flight = rule("arc", "x", "y", bulge=keys((21, 0, "hold"), (22, 0.42, "hold"), (50, 0)))
    soft = rule("squash-stretch", "stretch", "stretch.angle", amount=0.3, full_speed=36.0, impact=0.3, recover=6.0)
    return scene(
        "Throw and catch",
        LENGTH,
        [
            *forest(),
            box("Left stump", 190, 130, 0.2, x=280, y=668, fill=PALETTE["bark"]),
            box("Right stump", 190, 130, 0.2, x=1000, y=668, fill=PALETTE["bark"]),
            *gecko("Gecko", 280, 1, throw, wind_up, past, bold),
            *gecko("Catcher", 1000, -1, catch, rule("overshoot", "rotation", size=0.3, frames=10.0, settles=2.0)),
            ruled(parcel, flight, soft),
            box("Parcel box", 74, 58, 0.14, parent="Parcel", fill="#D9A866", stroke="#7A4A1E", stroke_width=4),
            outline("Parcel string", "M0 -29 V29 M-37 0 H37", parent="Parcel", fill="#00000000", stroke=PALETTE["hibiscus"], stroke_width=5),
        ],
        "#E6EFE0",
    )
