"""Mist over the gorge: five layers in depth, a camera that wanders through them by hand, and fireflies that glow."""

from demo.build import PALETTE, Data, ellipse, group, keys, look, outline, parade, rule, ruled, scene, text

LENGTH = 240
DUSK = "#2C4A52"


def ridge(name: str, y: float, fill: str, depth: float, d: str) -> Data:
    """A row of hills, wide enough for the camera to go past."""
    return outline(name, d, x=640, y=y, fill=fill, depth=depth)


def mist(number: int, y: float, depth: float, speed: float) -> Data:
    """A bank of mist that drifts on by itself, lighter than what lies behind it."""
    bank = ellipse(f"Mist {number}", 1500, 120, x=500 + 90 * number, y=y, fill="#DCEBE4", opacity=0.34, depth=depth) | {"blend": "screen"}
    return ruled(
        bank, rule("drift", "x", speed=speed), rule("oscillator", "opacity", amplitude=0.08, frequency=0.12, phase=90 * number), look("blur", size=16)
    )


def fireflies() -> list[Data]:
    """One firefly that glows up and flits about, shown many times by a parade, each a little later and somewhere else."""
    flits = [rule("noise", "x", "y", amplitude=46, frequency=0.35, octaves=2, seed=11)]
    glows = keys((0, 0.0, "slow-out-in"), (14, 1.0, "slow-out-in"), (30, 0.0), after="loop")
    swarm = parade(
        "Fireflies",
        {"arrange": "grid", "columns": 6, "order": "chance", "seed": 4},
        x=190, y=330, count=18, gap=172, gap_down=92, delay=5, depth=-0.2,
    ) | {"blend": "screen"}  # fmt: skip
    return [
        swarm,
        ruled(group("Firefly", parent="Fireflies", opacity=glows), *flits),
        ruled(ellipse("Spark", 13, 13, parent="Firefly", fill="#FFE9A8"), look("glow", size=13, strength=2.4, colour="#F2C14E")),
    ]


def fern(number: int, x: float) -> Data:
    """A fern close to the camera, which it sweeps past."""
    leaf = outline(
        f"Fern {number}",
        "M0 260 C-18 120 -70 40 -150 -10 C-70 10 -30 70 -12 130 C-30 20 -40 -60 -24 -150 C0 -70 6 20 6 110 C30 40 80 -10 150 -34 C80 20 34 110 24 260 Z",
        x=x,
        y=560,
        fill="#12261F",
        depth=-0.55,
    )
    return ruled(leaf, rule("bend", "outline", angle=6 + 2 * number), rule("oscillator", "rotation", amplitude=2, frequency=0.3, phase=70 * number))


def make() -> Data:
    camera = {
        "id": "camera",
        "name": "Camera",
        "kind": "camera",
        "channels": {
            "x": keys((0, 560, "slow-out-in"), (LENGTH - 1, 790)),
            "y": keys((0, 350, "slow-out-in"), (LENGTH - 1, 372)),
            "zoom": keys((0, 1.0, "slow-out-in"), (LENGTH - 1, 1.18)),
        },
        "rules": [
            rule("noise", "x", "y", amplitude=4, frequency=0.5, octaves=2, seed=5),
            rule("noise", "rotation", amplitude=0.35, frequency=0.4, octaves=2, seed=6),
        ],
    }
    title = text("Title", "The mist mail leaves at dusk", 34, font="literata", weight=600, x=640, y=664, fill=PALETTE["cream"])
    faded = title | {"pinned": True}
    faded["channels"]["opacity"] = keys((12, 0.0, "slow-out-in"), (44, 1.0, "even"), (190, 1.0, "slow-in"), (222, 0.0))
    layers = [
        ruled(ellipse("Moon", 150, 150, x=930, y=150, fill="#F3E7BE", depth=30), look("glow", size=46, strength=1.3, colour="#EADFB4")),
        ridge(
            "Farthest ridge",
            330,
            "#5E8A8C",
            7,
            "M-1500 60 C-1200 -80 -900 -120 -640 -10 S-160 90 140 -60 S700 -140 960 0 S1300 60 1500 -40 V620 H-1500 Z",
        ),
        mist(1, 372, 6, 9),
        ridge(
            "Far ridge", 400, "#47767A", 3, "M-1500 0 C-1150 90 -900 -110 -560 -40 S-60 110 260 0 S760 -130 1040 20 S1380 40 1500 -30 V620 H-1500 Z"
        ),
        mist(2, 452, 2.4, 14),
        ridge(
            "Middle ridge", 490, "#315F62", 1, "M-1500 20 C-1240 -90 -980 60 -700 0 S-240 -120 60 10 S620 90 880 -20 S1300 -70 1500 20 V620 H-1500 Z"
        ),
        mist(3, 548, 0.6, 20),
        ridge("Near bank", 600, "#1D3F40", 0, "M-1500 0 C-1200 60 -900 -40 -620 10 S-80 70 220 0 S760 -60 1040 20 S1360 60 1500 0 V420 H-1500 Z"),
        *fireflies(),
        fern(1, 120),
        fern(2, 1180),
        faded,
        camera,
    ]
    return scene("Mist over the gorge", LENGTH, layers, DUSK)
