"""Sorting mill: a water wheel drives three gears, a cam, a stamp, its shadow and a belt of parcels. Only the wheel is keyed; all else is linked."""

import math

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene
from vine_swing.motion.formula.by_hand import number, shifted

LENGTH = 192
#: Pixels of pitch diameter for one tooth: gears of one module mesh.
MODULE = 9.5
WHEEL = (192.0, 424.0)
TEETH = {"Great gear": 24, "Middle gear": 16, "Small gear": 12}
#: The belt runs on rollers of this radius; its pulley on the small gear moves one parcel's place for every turn.
ROLLER, PULLEY = 26, 30
PLACE = 2 * math.pi * PULLEY
PARCELS = 4
BELT_Y, ENTRY = 586, 430.0
#: The cam: how far off its axle, how large; and how far below the middle of its yoke the stamp ends.
OFF, ROUND = 26, 36
CAM_X = 640.0


def link(formula: str, *channels: str) -> Data:
    return rule("link", *channels, formula=formula) | {"mode": "replace"}


def gear_path(teeth: int) -> str:
    """A gear's outline about its middle, with a tooth to the right."""
    pitch = MODULE * teeth / 2
    inner, outer = pitch - 0.62 * MODULE, pitch + 0.52 * MODULE
    step = 2 * math.pi / teeth
    points: list[str] = []
    for n in range(teeth):
        for share, radius in ((-0.31, inner), (-0.15, outer), (0.15, outer), (0.31, inner)):
            at = (n + share) * step
            points.append(f"{radius * math.cos(at):.1f} {radius * math.sin(at):.1f}")
    return f"M{' L'.join(points)} Z"


def meshed(driver: tuple[float, float, float, int], direction: float, teeth: int) -> tuple[float, float, float]:
    """Return the position and rotation (x, y, degrees) of a gear that meshes with another one.

    A tooth of the one comes upon a gap of the other where they touch, so their shares of a tooth there add up to a half.
    """
    x, y, turned, others = driver
    reach = MODULE * (others + teeth) / 2
    way = math.radians(direction)
    share = 0.5 - (direction - turned) * others / 360
    return x + reach * math.cos(way), y + reach * math.sin(way), (direction + 180 - share * 360 / teeth) % (360 / teeth)


def wheel() -> list[Data]:
    x, y = WHEEL
    paddles = [
        box(f"Paddle {n + 1}", 34, 66, 0.2, parent="Water wheel", x=132 * math.cos(a), y=132 * math.sin(a), rotation=math.degrees(a), fill="#8A5E34")
        for n, a in enumerate(2 * math.pi * k / 10 for k in range(10))
    ]
    spokes = [box(f"Spoke {n + 1}", 240, 12, 0.5, parent="Water wheel", rotation=n * 36.0, fill="#7A5230") for n in range(5)]
    return [
        group("Water wheel", x=x, y=y, rotation=keys((0, 0, "slow-out-in"), (LENGTH, 720))),
        *paddles,
        *spokes,
        ellipse("Rim", 240, 240, parent="Water wheel", fill="#00000000", stroke="#6E4B2A", stroke_width=14),
    ]


def gear(name: str, at: tuple[float, float, float], formula: str, tint: str) -> list[Data]:
    x, y, turned = at
    teeth = TEETH[name]
    pitch = MODULE * teeth / 2
    holes = 5 if teeth > 20 else 4 if teeth > 14 else 3
    parts = [
        ellipse(
            f"{name} hole {n + 1}",
            pitch * 0.42,
            pitch * 0.42,
            parent=name,
            x=0.56 * pitch * math.cos(2 * math.pi * n / holes),
            y=0.56 * pitch * math.sin(2 * math.pi * n / holes),
            fill="#2C4636",
        )
        for n in range(holes)
    ]
    return [
        ruled(outline(name, gear_path(teeth), x=round(x, 3), y=round(y, 3), rotation=turned, fill=tint), link(formula, "rotation")),
        *parts,
        ellipse(f"{name} hub", pitch * 0.4, pitch * 0.4, parent=name, fill="#F4E3C1", stroke="#6E4B2A", stroke_width=4),
    ]


def parcel(n: int, tint: str) -> list[Data]:
    name = f"Parcel {n + 1}"
    direction = f"{{Left roller.rotation}} * {number(math.pi * ROLLER / 180)}"
    travels = link(f"{number(ENTRY)} + ({number(n * PLACE)} + {direction}) % {number(PARCELS * PLACE)}", "x")
    stamped = link(f"step({CAM_X + 2:g}, {{{name}.x}})", "opacity")
    return [
        ruled(group(name, y=BELT_Y), travels),
        box(f"{name} box", 78, 58, 0.1, parent=name, y=-30, fill=tint, stroke="#6E4B2A", stroke_width=3),
        box(f"{name} string", 78, 6, parent=name, y=-26, fill="#F4E3C1"),
        box(f"{name} label", 32, 20, 0.1, parent=name, x=-16, y=-44, fill="#FCF9F2"),
        ruled(ellipse(f"{name} mark", 22, 22, parent=name, x=18, y=-44, fill="#00000000", stroke=PALETTE["hibiscus"], stroke_width=4), stamped),
    ]


def make() -> Data:
    great = (*WHEEL, 0.0)
    middle = meshed((*great, TEETH["Great gear"]), -25, TEETH["Middle gear"])
    small = meshed((*middle, TEETH["Middle gear"]), 20, TEETH["Small gear"])
    x, y, turned = small
    # A parcel is under the stamp when the small gear has turned this far; then the cam points down.
    under = (CAM_X - ENTRY) / PLACE * 360
    low, high = y + OFF, y - OFF
    # The stamp's head just reaches the top of a parcel.
    below = BELT_Y - 60 - low
    left, right = (330.0, 612.0), (1150.0, 612.0)
    meshing = [middle[2], turned]
    return scene(
        "Sorting mill",
        LENGTH,
        [
            *forest(),
            outline("Mill wall", "M-190 -250 H380 L410 -220 V330 H-190 Z", x=170, y=360, fill="#C9A46B"),
            outline("Mill roof", "M-230 20 L90 -110 L470 20 Z", x=170, y=110, fill="#9A4B32"),
            *(box(f"Beam {n + 1}", 12, 470, x=90 + n * 210, y=350, fill="#A98450") for n in range(3)),
            outline("Chute", "M-120 -18 H150 V6 C170 10 176 30 172 44 L150 40 C152 26 146 16 130 14 H-120 Z", x=10, y=262, fill="#7A5230"),
            outline("Stream", "M-120 -12 H126 C150 -8 160 10 156 60 L152 300 H136 L138 60 C140 14 130 2 112 2 H-120 Z", x=10, y=262, fill="#6FB7CE"),
            box("Pond", 330, 44, 0.5, x=130, y=578, fill="#5FA6C2"),
            *wheel(),
            outline("Drive belt", f"M{x:.1f} {y - PULLEY:.1f} L{left[0]} {left[1] - ROLLER} M{x:.1f} {y + PULLEY:.1f} L{left[0]} {left[1] + ROLLER}")
            | {"channels": {"fill": "#00000000", "stroke": "#4A3A2A", "stroke.width": 4.0}},
            outline("Cam belt", f"M{x:.1f} {y - 22:.1f} H{CAM_X} M{x:.1f} {y + 22:.1f} H{CAM_X}")
            | {"channels": {"fill": "#00000000", "stroke": "#4A3A2A", "stroke.width": 4.0}},
            *gear("Great gear", great, "{Water wheel.rotation}", "#D9A441"),
            *gear("Middle gear", middle, shifted("{Great gear.rotation} * -24 / 16", meshing[0]), "#B8763A"),
            *gear("Small gear", small, shifted(f"({{Middle gear.rotation}} - {number(meshing[0])}) * -16 / 12", meshing[1]), "#D9A441"),
            ruled(
                ellipse("Cam", 2 * ROUND, 2 * ROUND, x=CAM_X, y=round(y, 3), pivot_x=-OFF, fill="#8C3B4A", stroke="#5E2230", stroke_width=3),
                link(shifted("{Small gear.rotation}", 90 - under - turned), "rotation"),
            ),
            ruled(group("Stamp", x=CAM_X), link(f"{number(y)} + {OFF} * sin({{Cam.rotation}})", "y")),
            box("Stamp yoke", 124, 2 * ROUND + 14, 0.3, parent="Stamp", fill="#00000000", stroke="#4A3A2A", stroke_width=12),
            box("Stamp rod", 16, below - ROUND, parent="Stamp", y=(below + ROUND) / 2 - 4, fill="#4A3A2A"),
            box("Stamp head", 58, 20, 0.4, parent="Stamp", y=below - 10, fill=PALETTE["hibiscus"]),
            box("Belt", 860, 14, 0.9, x=740, y=BELT_Y + 7, fill="#3E352C"),
            box("Belt below", 860, 8, 0.9, x=740, y=left[1] + ROLLER - 2, fill="#3E352C"),
            *(
                ruled(
                    group(name, x=at[0], y=at[1]),
                    link(f"({{Small gear.rotation}} - {number(meshing[1])}) * {PULLEY} / {ROLLER}", "rotation"),
                )
                for name, at in (("Left roller", left), ("Right roller", right))
            ),
            *(
                part
                for name in ("Left roller", "Right roller")
                for part in (
                    ellipse(f"{name} disc", 2 * ROLLER, 2 * ROLLER, parent=name, fill="#B8763A", stroke="#6E4B2A", stroke_width=4),
                    box(f"{name} spoke", 40, 7, 0.5, parent=name, fill="#6E4B2A"),
                )
            ),
            ruled(
                ellipse("Stamp shadow", 74, 12, x=CAM_X, y=BELT_Y, fill="#1F2A25"),
                link(f"mix(0.55, 1, clamp(({{Stamp.y}} - {number(high)}) / {number(low - high)}, 0, 1))", "scale.x"),
                link(f"mix(0.12, 0.45, clamp(({{Stamp.y}} - {number(high)}) / {number(low - high)}, 0, 1))", "opacity"),
            ),
            *(part for n, tint in enumerate(("#C98B4E", "#B5763C", "#D9A066", "#A9793F")) for part in parcel(n, tint)),
            outline("Post hut", "M-70 -150 L20 -190 L110 -150 V80 H-70 Z", x=1190, y=560, fill="#9A6B3E"),
            outline("Post hut roof", "M-96 -140 L20 -204 L130 -140 L118 -122 L20 -176 L-84 -122 Z", x=1190, y=560, fill="#9A4B32"),
            box("Post hut window", 62, 54, 0.1, x=1210, y=470, fill="#2C4636"),
            *clerk(),
        ],
        "#DDEBE2",
    )


def clerk() -> list[Data]:
    """A tree frog who watches the stamp and nods a little after it."""
    nod = link("value + ({Stamp.y @ -5f} - 400) * 0.45", "rotation")
    return [
        group("Clerk", x=880, y=664),
        outline("Clerk body", "M-46 60 C-60 0 -30 -34 0 -34 S60 0 46 60 Z", parent="Clerk", fill="#4E9A57"),
        outline("Clerk bib", "M-26 60 C-34 14 -18 -8 0 -8 S34 14 26 60 Z", parent="Clerk", fill="#DDEBC0"),
        ruled(group("Clerk head", parent="Clerk", y=-36), nod),
        ellipse("Clerk face", 112, 72, parent="Clerk head", y=-22, fill="#4E9A57"),
        *(
            ellipse(f"Clerk eye {n}", 34, 34, parent="Clerk head", x=s * 32, y=-56, fill="#F4E3C1", stroke="#4E9A57", stroke_width=7)
            for n, s in ((1, -1), (2, 1))
        ),
        *(ellipse(f"Clerk pupil {n}", 10, 18, parent="Clerk head", x=s * 32 - 5, y=-56, fill="#26332C") for n, s in ((1, -1), (2, 1))),
        outline("Clerk mouth", "M-34 -10 C-16 6 16 6 34 -10", parent="Clerk head", fill="#00000000", stroke="#26332C", stroke_width=4),
        outline("Clerk cap", "M-40 -62 C-30 -92 30 -92 40 -62 L58 -56 L-40 -54 Z", parent="Clerk head", y=-12, fill=PALETTE["hibiscus"]),
    ]
