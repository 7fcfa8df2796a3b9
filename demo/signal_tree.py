"""Signal tree: flags, a lantern and an owl that wait for key presses. Each stretch of the timeline has a cue."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 96
FLAG = "M0 0 C26 -10 50 12 82 0 V54 C52 66 28 42 0 54 Z"


def flag(name: str, x: float, tint: str) -> list[Data]:
    """A mast with a flag that goes up from frame 0 to 20 and down from 24 to 40."""
    hoist = keys((0, 190, "overshoot"), (20, 0), (24, 0, "slow-out"), (40, 190))
    flutter = rule("oscillator", "skew", amplitude=7.0, frequency=1.5, phase=x)
    return [
        group(f"{name} mast", x=x, y=250),
        box(f"{name} pole", 10, 320, 0.5, parent=f"{name} mast", y=130, fill="#7A5230"),
        ellipse(f"{name} knob", 22, 22, parent=f"{name} mast", y=-34, fill="#D9A441"),
        ruled(outline(name, FLAG, parent=f"{name} mast", x=5, y=hoist, fill=tint), flutter),
    ]


def owl() -> list[Data]:
    """An owl that bobs and opens its wings when it is clicked."""
    bob = keys((0, 0, "slow-out"), (5, 16, "slow-in"), (10, -14, "slow-out-in"), (18, 0))
    return [
        group("Owl", x=640, y=388),
        *(
            outline(
                f"Owl wing {side}",
                "M0 -30 C30 -22 40 24 8 54 C-8 30 -10 -8 0 -30 Z",
                parent="Owl",
                x=s * 34,
                scale_x=s,
                rotation=keys((0, 0, "slow-out"), (7, -s * 46, "slow-out-in"), (18, 0)),
                fill="#6E5136",
            )
            for side, s in (("left", -1.0), ("right", 1.0))
        ),
        group("Owl body", parent="Owl", y=bob),
        ellipse("Owl coat", 92, 118, parent="Owl body", fill="#8A6844"),
        ellipse("Owl bib", 58, 74, parent="Owl body", y=18, fill="#E6D3AE"),
        *(
            ellipse(f"Owl eye {n}", 36, 36, parent="Owl body", x=s * 20, y=-26, fill="#F4E3C1", stroke="#5E442B", stroke_width=5)
            for n, s in ((1, -1), (2, 1))
        ),
        *(ellipse(f"Owl pupil {n}", 13, 13, parent="Owl body", x=s * 20, y=-26, fill="#26332C") for n, s in ((1, -1), (2, 1))),
        outline("Owl beak", "M-8 -16 H8 L0 2 Z", parent="Owl body", fill="#E8963A"),
        outline("Owl cap", "M-36 -50 C-28 -76 28 -76 36 -50 L52 -44 L-36 -44 Z", parent="Owl body", fill=PALETTE["hibiscus"]),
    ]


def make() -> Data:
    swing = keys((48, 0, "slow-in"), (53, 24, "slow-out-in"), (65, -24, "slow-out"), (71, 0))
    glow = keys((48, 0.35, "slow-out-in"), (59, 1.0, "slow-out-in"), (71, 0.35))
    objects = [
        *forest(),
        outline("Trunk", "M-70 330 C-50 120 -60 0 -44 -120 H44 C58 0 52 120 74 330 Z", x=640, y=420, fill="#6E4B2A"),
        outline(
            "Branches",
            "M-420 36 C-260 -10 -160 30 -40 60 V96 C-170 62 -280 40 -420 56 Z M420 36 C260 -10 160 30 40 60 V96 C170 62 280 40 420 56 Z",
            x=640,
            y=470,
            fill="#6E4B2A",
        ),
        outline("Hollow", "M-62 0 C-62 -92 62 -92 62 0 C62 66 -62 66 -62 0 Z", x=640, y=386, fill="#3A2A1C"),
        *flag("Red flag", 330, PALETTE["hibiscus"]),
        *flag("Green flag", 480, "#3F8F63"),
        *owl(),
        group("Lantern", x=900, y=500, rotation=swing),
        box("Lantern cord", 5, 66, parent="Lantern", y=32, fill="#4A3A2A"),
        ellipse("Lantern glow", 210, 210, parent="Lantern", y=100, fill="#FFD27A77", opacity=glow),
        ellipse("Lantern shade", 62, 78, parent="Lantern", y=100, fill="#E8B04A", stroke="#6E4B2A", stroke_width=4),
        ellipse("Lantern flame", 22, 36, parent="Lantern", y=104, fill="#FFF3C4"),
    ]

    def cue(name: str, first: int, last: int, who: str, key: str | None = None, **more: str) -> Data:
        return {"id": name.lower().replace(" ", "-"), "name": name, "first": first, "last": last, "objects": [who], "key": key} | more

    cues = [
        cue("Red up", 0, 20, "red-flag", "r"),
        cue("Red down", 24, 40, "red-flag", "e"),
        cue("Green up", 0, 20, "green-flag", "g"),
        cue("Green down", 24, 40, "green-flag", "f"),
        cue("Lantern swings", 48, 71, "lantern", "l", plays="held"),
        cue("Owl greets", 0, 18, "owl", "o", click="owl"),
    ]
    return scene("Signal tree", LENGTH, objects, "#DDEBE2") | {"cues": cues}
