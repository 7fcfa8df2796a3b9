"""Breezy station: nothing travels, everything moves by rules. Wind in lianas and leaves, a signal flag that rocks, dies down and is started
again, two seed pods that knock, a rain gauge whose needle jumps, a jelly fruit. After 120 frames all is where it began."""

from demo.build import PALETTE, Data, box, ellipse, forest, group, keys, outline, rule, ruled, scene

LENGTH = 120
ROPE = "#8A6A3B"


def wind(amplitude: float, seed: float, cycles: int) -> Data:
    """Noise that closes over the scene: as many changes of mind as `cycles`."""
    return rule("noise", "rotation", amplitude=amplitude, frequency=cycles * 24 / LENGTH, octaves=2.0, seed=seed, loop=float(LENGTH))


def sway(amplitude: float, phase: float, cycles: int = 2) -> Data:
    return rule("oscillator", "rotation", amplitude=amplitude, phase=phase, cycles=float(cycles))


def lianas() -> list[Data]:
    parts = []
    for n, (x, length, bend) in enumerate([(150, 300, 24), (330, 220, -18), (1000, 260, 20), (1150, 340, -26)], start=1):
        name = f"Liana {n}"
        d = f"M0 0 C{bend} {length * 0.3:g} {-bend} {length * 0.7:g} 0 {length}"
        liana = outline(name, d, x=x, y=36, fill="#00000000", stroke=PALETTE["canopy"], stroke_width=9)
        # Out of phase, so that no two of them hang alike.
        parts.append(ruled(liana, sway(3.0, 80.0 * n), wind(4.0, float(n), 5)))
        for m, share in enumerate((0.45, 0.75, 1.0), start=1):
            side = 1 if m % 2 else -1
            leaf = outline(
                f"{name} leaf {m}",
                "M0 0 C12 -30 50 -40 80 -26 C70 6 32 20 0 0 Z",
                parent=name,
                x=bend * (0.5 - share),
                y=length * share - 8,
                scale_x=side,
                rotation=18 * side,
                fill=PALETTE["leaf"] if m % 2 else "#58A562",
            )
            parts.append(ruled(leaf, wind(13.0, float(10 * n + m), 9)))
    return parts


def signal() -> list[Data]:
    swing = keys((0, 0), (6, 24, "slow-in"), (54, 0), (60, 0), (66, 24, "slow-in"), (114, 0))
    flag = group("Signal flag", x=520, y=300)
    return [
        box("Signal post", 16, 330, 0.4, x=520, y=440, fill=PALETTE["bark"]),
        ruled(flag, rule("oscillator", "rotation", amplitude=swing, cycles=15.0)),
        outline("Flag cloth", "M0 -34 H116 L92 0 L116 34 H0 Z", parent="Signal flag", fill=PALETTE["hibiscus"]),
        outline("Flag letter", "M26 -14 H70 V14 H26 Z M26 -14 L48 2 L70 -14", parent="Signal flag", fill="#FFFDF4", stroke="#B02A48", stroke_width=4),
        ellipse("Flag knob", 26, 26, parent="Signal flag", fill=PALETTE["ink"]),
    ]


def pods() -> list[Data]:
    parts = [outline("Pod branch", "M-130 0 C-60 -16 60 -12 130 4 L128 16 C60 4 -60 2 -130 14 Z", x=760, y=236, fill=PALETTE["bark"])]
    for name, x, stop in (("Left pod", 734, {"low": 0.0}), ("Right pod", 786, {"high": 0.0})):
        pod = group(name, x=x, y=240)
        # Both swing alike; each is stopped where the other hangs, so that they knock.
        parts.append(ruled(pod, rule("oscillator", "rotation", amplitude=26.0, cycles=6.0), rule("limit", "rotation", **stop)))
        parts.append(outline(f"{name} string", "M0 0 V120", parent=name, fill="#00000000", stroke=ROPE, stroke_width=4))
        parts.append(ellipse(f"{name} shell", 50, 66, parent=name, y=150, fill="#B8862D"))
        parts.append(outline(f"{name} seam", "M-12 122 C-22 140 -20 166 -8 178", parent=name, fill="#00000000", stroke="#E2B95C", stroke_width=5))
    return parts


def gauge() -> list[Data]:
    turn = keys((0, -70), (60, 70), after="ping-pong")
    needle = outline("Needle", "M-5 8 L0 -56 L5 8 Z", parent="Rain gauge", rotation=turn, fill=PALETTE["hibiscus"])
    return [
        group("Rain gauge", x=960, y=520),
        box("Gauge post", 18, 130, 0.4, parent="Rain gauge", y=110, fill=PALETTE["bark"]),
        ellipse("Dial plate", 160, 160, parent="Rain gauge", fill=PALETTE["cream"], stroke=ROPE, stroke_width=7),
        outline(
            "Dial marks",
            "M-60 22 L-50 18 M-52 -38 L-43 -31 M0 -64 V-53 M52 -38 L43 -31 M60 22 L50 18",
            parent="Rain gauge",
            fill="#00000000",
            stroke=PALETTE["ink"],
            stroke_width=5,
        ),
        ruled(needle, rule("steps", "rotation", every=6.0)),
        ellipse("Needle cap", 20, 20, parent="Rain gauge", fill=PALETTE["ink"]),
    ]


def jelly() -> list[Data]:
    # Squeezed and released early on: by the end of the scene the spring has long come to rest.
    squeeze = keys((0, 1), (8, 1), (16, 0.72, "snap"), (20, 1))
    fruit = group("Jelly fruit", x=300, y=590, pivot_y=52, stretch=squeeze, stretch_angle=90)
    return [
        box("Counter", 300, 40, 0.3, x=300, y=612, fill=PALETTE["bark"]),
        ruled(fruit, rule("spring", "stretch", frequency=2.4, damping=0.16)),
        outline("Jelly body", "M-74 52 C-84 -12 -52 -62 0 -62 S84 -12 74 52 Z", parent="Jelly fruit", fill="#8A5FA8"),
        outline("Jelly shine", "M-44 10 C-42 -20 -26 -38 -6 -42", parent="Jelly fruit", fill="#00000000", stroke="#C9A9DC", stroke_width=10),
        outline("Jelly leaf", "M0 -58 C4 -84 26 -92 44 -88 C40 -68 22 -56 0 -58 Z", parent="Jelly fruit", fill=PALETTE["leaf"]),
    ]


def make() -> Data:
    return scene("Breezy station", LENGTH, [*forest(), *lianas(), *pods(), *gauge(), *signal(), *jelly()], "#DCEBE4")
