"""Weather: twelve leaves and four lianas in one wind, and one light for everything. Three dials are keyed; the rest reads them."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 240
#: The light that changes nothing: what it was painted in.
DAY = "#FFF3D6"


def tinted(obj: Data, share: float = 0.7) -> Data:
    """The object with its fill taking the dial Light."""
    tint = rule("tint", "fill", dial="light", share=share, neutral=DAY)
    return obj | {"rules": [*obj.get("rules", []), tint]}


def blown(base: float) -> Data:
    """A setting that the wind makes as large as this at full strength."""
    return {"base": base, "formula": "value * {Wind}"}


def liana(n: int, x: float, length: float) -> list[Data]:
    name = f"Liana {n}"
    lean = rule("link", "rotation", formula="value - {Wind} * 9 - {Wind @ -10f} * 5") | {"mode": "replace"}
    sway = rule("oscillator", "rotation", amplitude=blown(5.0), frequency=0.45, phase=n * 67.0)
    parts: list[Data] = [
        ruled(group(name, x=x, y=56), lean, sway),
        tinted(
            outline(
                f"{name} stem",
                f"M-5 -20 C10 {length * 0.3:.0f} -14 {length * 0.6:.0f} 0 {length} L6 {length} C-6 {length * 0.6:.0f} 18 {length * 0.3:.0f} 5 -20 Z",
                parent=name,
                fill=PALETTE["canopy"],
            )
        ),
    ]
    for k in range(3):
        leaf = f"Leaf {n * 3 + k - 2}"
        side = 1 if (n + k) % 2 else -1
        shape = outline(
            leaf,
            "M0 0 C26 -24 70 -24 100 0 C70 20 26 22 0 0 Z",
            parent=name,
            x=2 * side,
            y=length * (0.42 + 0.28 * k),
            rotation=30.0 if side > 0 else 150.0,
            fill=PALETTE["leaf"] if k % 2 else "#5BA862",
        )
        flutter = rule("noise", "rotation", amplitude=blown(34.0), frequency=1.7, octaves=2.0, seed=float(n * 3 + k), loop=float(LENGTH))
        parts.append(tinted(ruled(shape, flutter)))
    return parts


def lantern(n: int, x: float, y: float) -> list[Data]:
    name = f"Lantern {n}"
    glow = rule("link", "opacity", formula="smoothstep(0.35, 0.8, {Dusk}) * (0.75 + 0.12 * noise(t * 3, " + str(n) + "))") | {"mode": "replace"}
    swing = rule("oscillator", "rotation", amplitude=blown(14.0), frequency=0.7, phase=n * 110.0)
    return [
        ruled(group(name, x=x, y=y), swing),
        box(f"{name} cord", 4, 60, parent=name, y=30, fill="#4A3A2A"),
        ruled(ellipse(f"{name} glow", 190, 190, parent=name, y=92, fill="#FFD27A66"), glow),
        tinted(ellipse(f"{name} shade", 56, 70, parent=name, y=92, fill="#E8B04A"), 0.3),
        ruled(ellipse(f"{name} flame", 22, 34, parent=name, y=94, fill="#FFF3C4"), glow),
    ]


def make() -> Data:
    wind = keys((0, 0.2, "slow-out-in"), (60, 0.25, "slow-out"), (92, 1.0, "slow-in"), (150, 0.3, "slow-out-in"), (239, 0.2))
    dusk = keys((48, 0.0, "slow-out-in"), (190, 1.0))
    light = keys((48, DAY, "slow-out-in"), (120, "#F7C08A", "slow-out-in"), (190, "#7C86C4"))
    created = scene(
        "Weather",
        LENGTH,
        [
            tinted(box("Sky", 1400, 800, x=640, y=360, fill="#CFE6D8")),
            ellipse("Moon", 90, 90, x=1010, y=190, fill="#F7F2DC")
            | {"rules": [rule("link", "opacity", formula="smoothstep(0.5, 1, {Dusk})") | {"mode": "replace"}]},
            *(tinted(part) for part in forest()),
            *(part for n, (x, length) in enumerate(((180, 330), (420, 250), (830, 300), (1090, 380)), 1) for part in liana(n, x, length)),
            *lantern(1, 310, 66),
            *lantern(2, 640, 58),
            *lantern(3, 960, 66),
        ],
        "#CFE6D8",
    )
    return created | {
        "dials": [
            {"id": "wind", "name": "Wind", "low": 0.0, "high": 1.0, "channel": wind},
            {"id": "dusk", "name": "Dusk", "unit": "%", "low": 0.0, "high": 1.0, "channel": dusk},
            {"id": "light", "name": "Light", "channel": light},
        ]
    }
