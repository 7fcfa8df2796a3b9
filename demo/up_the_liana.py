"""Up the liana: a parcel is hauled to the canopy. One heave is keyed; `climb` repeats it from where it got to."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, scene

HEAVE = 24


def make() -> Data:
    parcel = [
        group(
            "Parcel",
            x=640,
            y=keys((0, 664, "slow-out-in"), (13, 596, "slow-in"), (18, 602), (HEAVE, 602), after="climb"),
            rotation=keys((0, -5, "slow-out-in"), (HEAVE, 6), after="ping-pong"),
            pivot_y=-120,
            stretch=keys((0, 1, "slow-out-in"), (6, 1.07, "slow-out-in"), (14, 0.965, "slow-out-in"), (19, 1), (HEAVE, 1), after="loop"),
            stretch_angle=90,
        ),
        outline("Sling", "M0 -132 L-64 -40 M0 -132 L64 -40", parent="Parcel", fill="#00000000", stroke="#8A6A3B", stroke_width=6),
        ellipse("Knot", 26, 22, parent="Parcel", y=-128, fill="#A37F49"),
        box("Wrapping", 148, 112, 0.12, parent="Parcel", y=8, fill="#D9A25F"),
        outline("Wrapping shade", "M74 -30 V56 C74 62 70 64 64 64 H-60 C20 58 64 30 74 -30 Z", parent="Parcel", fill="#C58A47"),
        box("Ribbon", 20, 112, parent="Parcel", x=-24, y=8, fill=PALETTE["hibiscus"]),
        box("Ribbon across", 148, 18, parent="Parcel", y=4, fill=PALETTE["hibiscus"]),
        outline(
            "Bow", "M0 0 C-26 -30 -52 -16 -36 4 C-26 14 -8 8 0 0 C26 -30 52 -16 36 4 C26 14 8 8 0 0 Z", parent="Parcel", x=-24, y=-46, fill="#B02A48"
        ),
        box("Stamp", 34, 40, parent="Parcel", x=46, y=-18, rotation=4, fill=PALETTE["cream"]),
        outline("Stamp leaf", "M-8 10 C-10 -6 0 -12 10 -12 C10 2 2 10 -8 10 Z", parent="Parcel", x=46, y=-18, rotation=4, fill=PALETTE["leaf"]),
        outline("Address", "M-18 0 H18 M-18 11 H6", parent="Parcel", x=40, y=32, fill="#00000000", stroke="#7A5326", stroke_width=4),
    ]
    rope = [
        outline("Haul rope", "M-3 0 C5 200 -8 420 0 760", x=640, y=0, fill="#00000000", stroke="#8A6A3B", stroke_width=8),
        outline("Side liana", "M0 0 C40 180 -30 330 20 560", x=250, y=20, fill="#00000000", stroke=PALETTE["canopy"], stroke_width=10),
        outline("Other liana", "M0 0 C-50 150 30 300 -24 470", x=1060, y=20, fill="#00000000", stroke=PALETTE["canopy"], stroke_width=10),
    ]
    leaves = [
        outline(
            f"Liana leaf {n}",
            "M0 0 C12 -34 52 -44 88 -30 C78 4 34 20 0 0 Z",
            x=x,
            y=y,
            scale_x=side,
            rotation=keys((0, -7, "slow-out-in"), (24 + n * 6, 8), after="ping-pong"),
            fill=PALETTE["leaf"] if n % 2 else "#58A562",
        )
        for n, (x, y, side) in enumerate([(262, 150, 1), (256, 300, -1), (246, 420, 1), (1052, 130, -1), (1040, 270, 1), (1050, 400, -1)])
    ]
    ledge = [
        outline("Branch", "M-330 10 C-200 -14 120 -18 330 -4 C340 10 330 26 318 26 C120 22 -180 30 -330 34 Z", x=640, y=116, fill=PALETTE["bark"]),
        box("Post sign", 170, 54, 0.4, x=820, y=164, fill=PALETTE["cream"], stroke="#8A6A3B", stroke_width=5),
        outline("Sign strings", "M-60 0 V-34 M60 0 V-34", x=820, y=140, fill="#00000000", stroke="#8A6A3B", stroke_width=4),
        outline(
            "Sign letter", "M-30 -16 H30 V16 H-30 Z M-30 -16 L0 6 L30 -16", x=820, y=164, fill="#FFFDF4", stroke=PALETTE["hibiscus"], stroke_width=4
        ),
    ]
    return scene("Up the liana", 168, [*forest(), *rope, *leaves, *parcel, *ledge], "#D9E9D2")
