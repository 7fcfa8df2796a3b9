"""Figures to begin with: joints, and parts drawn on their bones so that they overlap well where they bend.

Each is drawn some 100 to 200 px high, standing at y = 0 and facing right. The order of parts is the drawing order, the first at the back.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from vine_swing.motion.basics.values import Point
from vine_swing.motion.figure.model import Base, Chain, Figure, Limb

#: Colours of a part: the figure's own, its shade for what is behind, a light one, and ink.
TINTS = {"main": "#9A6A3E", "shade": "#744D2B", "light": "#EAD3A6", "ink": "#2A211A", "accent": "#D0365B"}


@dataclass(frozen=True)
class Part:
    """Something drawn on a bone: an outline (SVG path data) about the place `at` of the figure's space."""

    name: str
    bone: str
    at: Point
    d: str
    tint: str


@dataclass(frozen=True)
class Starter:
    """A figure to begin with, with the way its legs take turns."""

    name: str
    label: str
    about: str
    figure: Figure
    parts: tuple[Part, ...]
    order: str
    preset: str


def capsule(a: Point, b: Point, wide: float, narrow: float) -> str:
    """A limb from the joint a to b, as an outline about a: round at both ends, `wide` px thick at a and `narrow` at b."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    length = float(np.hypot(dx, dy))
    r, s = wide / 2, narrow / 2
    # The sides touch both circles: they lean by the difference of the radii.
    lean = np.arccos(np.clip((r - s) / length, -1, 1))
    along = np.arctan2(dy, dx)

    def on(x: float, y: float, radius: float, turn: float) -> str:
        return f"{x + radius * np.cos(along + turn):.2f} {y + radius * np.sin(along + turn):.2f}"

    large, small = (1, 0) if r >= s else (0, 1)
    return (
        f"M{on(0, 0, r, lean)} A{r:.2f} {r:.2f} 0 {large} 1 {on(0, 0, r, -lean)} "
        f"L{on(dx, dy, s, -lean)} A{s:.2f} {s:.2f} 0 {small} 1 {on(dx, dy, s, lean)} Z"
    )


def round_part(width: float, height: float, x: float = 0.0, y: float = 0.0) -> str:
    """An ellipse about (x, y), as an outline."""
    w, h = width / 2, height / 2
    return f"M{x - w:.2f} {y:.2f} A{w:.2f} {h:.2f} 0 1 1 {x + w:.2f} {y:.2f} A{w:.2f} {h:.2f} 0 1 1 {x - w:.2f} {y:.2f} Z"


def leg(name: str, side: str, joints: list[Point], *, at: Base = "hips", bend: int = 1, kind: str = "leg") -> Limb:
    """A limb with an id made from its name."""
    one = name.lower().replace(" ", "-")
    return Limb.model_validate({"id": one, "name": name, "kind": kind, "at": at, "side": side, "bend": bend, "joints": joints})


def drawn_limb(limb: Limb, widths: tuple[float, float, float], sole: Callable[[Point, Point], str]) -> list[Part]:
    """The three parts of a limb, the foot or hand first so that the shin lies over it."""
    a, b, c, d = limb.joints
    tint = "main" if limb.side == "near" else "shade"
    words = ("thigh", "shin", "foot") if limb.kind == "leg" else ("upper arm", "forearm", "hand")
    w1, w2, w3 = widths
    return [
        Part(f"{limb.name} {words[2]}", f"{limb.id}.end", c, sole(c, d), tint),
        Part(f"{limb.name} {words[1]}", f"{limb.id}.lower", b, capsule(b, c, w2, w3), tint),
        Part(f"{limb.name} {words[0]}", f"{limb.id}.upper", a, capsule(a, b, w1, w2), tint),
    ]


def drawn_chain(chain: Chain, wide: float, narrow: float, tint: str) -> list[Part]:
    """The links of a chain, getting thinner."""
    joints, links = chain.joints, len(chain.joints) - 1
    w = np.linspace(wide, narrow, links + 1)
    return [
        Part(
            chain.name if links == 1 else f"{chain.name} {n + 1}",
            f"{chain.id}.{n + 1}",
            joints[n],
            capsule(joints[n], joints[n + 1], w[n], w[n + 1]),
            tint,
        )
        for n in reversed(range(links))
    ]


def flat_foot(c: Point, d: Point) -> str:
    """A foot from the ankle c to the tip d that lies flat on y = 0."""
    length, down = d[0] - c[0], -c[1]
    back, front = -0.28 * length, 1.04 * length
    instep = f"C{back - 2:.2f} {down * 0.2:.2f} {back:.2f} {-down * 0.55:.2f} {length * 0.18:.2f} {-down * 0.5:.2f}"
    toes = f"C{length * 0.6:.2f} {-down * 0.2:.2f} {front:.2f} {down * 0.3:.2f} {front:.2f} {down:.2f}"
    return f"M{back:.2f} {down:.2f} {instep} {toes} Z"


def paw(c: Point, d: Point) -> str:
    """A hand about the wrist c, towards its tip d."""
    return capsule((0.0, 0.0), (d[0] - c[0], d[1] - c[1]), 12, 10)


def hoof(c: Point, d: Point) -> str:
    """A short foot that is on y = 0."""
    length, down = d[0] - c[0], -c[1]
    return f"M{-length * 0.5:.2f} {-2:.2f} L{length * 0.55:.2f} {-2:.2f} L{length:.2f} {down:.2f} L{-length * 0.45:.2f} {down:.2f} Z"


def point_foot(c: Point, d: Point) -> str:
    """A thin foot."""
    return capsule((0.0, 0.0), (d[0] - c[0], d[1] - c[1]), 4.5, 3)


def _upright() -> Starter:
    near, far = [(1, -92), (12, -51), (-1, -10), (23, -2)], [(-3, -92), (8, -51), (-5, -10), (19, -2)]
    arm_near, arm_far = [(3, -148), (-3, -112), (8, -80), (14, -70)], [(0, -148), (-2, -112), (10, -81), (16, -71)]
    tail = Chain(id="tail", name="Tail", at="hips", joints=((-8, -94), (-30, -86), (-54, -92), (-72, -112), (-78, -138)))
    figure = Figure(
        spine=((0, -94), (1, -124), (3, -152)),
        head=((6, -186),),
        limbs=(
            leg("Near leg", "near", near),  # type: ignore[arg-type]
            leg("Far leg", "far", far),  # type: ignore[arg-type]
            leg("Near arm", "near", arm_near, at="chest", bend=-1, kind="arm"),  # type: ignore[arg-type]
            leg("Far arm", "far", arm_far, at="chest", bend=-1, kind="arm"),  # type: ignore[arg-type]
        ),
        chains=(tail,),
    )
    near_leg, far_leg, near_arm, far_arm = figure.limbs
    parts = [
        *drawn_limb(far_arm, (16, 13, 10), paw),
        *drawn_limb(far_leg, (26, 18, 12), flat_foot),
        *drawn_chain(tail, 13, 8, "shade"),
        Part("Hips", "hips", (0, -94), round_part(46, 44, 0, 0), "main"),
        Part("Belly", "spine.1", (0, -94), capsule((0, -94), (2, -128), 46, 44), "main"),
        Part("Chest", "spine.2", (1, -124), capsule((1, -124), (3, -150), 44, 36), "main"),
        Part("Bib", "spine.2", (1, -124), round_part(20, 44, 10, -6), "light"),
        *drawn_limb(near_leg, (28, 19, 13), flat_foot),
        Part("Far ear", "head.1", (6, -186), round_part(18, 22, -6, -20), "shade"),
        Part("Head", "head.1", (3, -152), round_part(50, 46, 5, -32), "main"),
        Part("Near ear", "head.1", (6, -186), round_part(20, 24, -16, -14), "main"),
        Part("Muzzle", "head.1", (6, -186), round_part(28, 20, 16, 8), "light"),
        Part("Nose", "head.1", (6, -186), round_part(9, 7, 28, 4), "ink"),
        Part("Eye", "head.1", (6, -186), round_part(8, 10, 10, -4), "ink"),
        *drawn_limb(near_arm, (17, 14, 11), paw),
    ]
    return Starter("two-legs", "Upright, two legs", "Walks on two legs, with two arms and a tail.", figure, tuple(parts), "alternate", "stroll")


def _four() -> Starter:
    def fore(dx: float) -> list[Point]:
        return [(56 + dx, -74), (46 + dx, -40), (57 + dx, -9), (67 + dx, -3)]

    def hind(dx: float) -> list[Point]:
        return [(-50 + dx, -76), (-42 + dx, -41), (-53 + dx, -9), (-43 + dx, -3)]

    tail = Chain(id="tail", name="Tail", at="hips", joints=((-74, -96), (-86, -88), (-94, -76)))
    figure = Figure(
        spine=((-50, -88), (4, -92), (56, -90)),
        head=((84, -106), (120, -96)),
        limbs=(
            leg("Near hind leg", "near", hind(0)),
            leg("Far hind leg", "far", hind(9)),
            leg("Near foreleg", "near", fore(0), at="chest", bend=-1),
            leg("Far foreleg", "far", fore(9), at="chest", bend=-1),
        ),
        chains=(tail,),
    )
    near_hind, far_hind, near_fore, far_fore = figure.limbs
    parts = [
        *drawn_limb(far_hind, (30, 18, 13), hoof),
        *drawn_limb(far_fore, (26, 17, 13), hoof),
        *drawn_chain(tail, 8, 5, "shade"),
        Part("Rump", "hips", (-50, -88), round_part(70, 74, 4, 0), "main"),
        Part("Belly", "spine.1", (-50, -88), capsule((-50, -86), (4, -88), 72, 78), "light"),
        Part("Shoulders", "spine.2", (4, -92), capsule((4, -92), (56, -90), 76, 66), "main"),
        Part("Neck", "head.1", (56, -90), capsule((56, -92), (86, -106), 56, 42), "main"),
        Part("Head", "head.2", (84, -106), capsule((84, -106), (118, -96), 44, 26), "main"),
        Part("Snout", "head.2", (120, -96), capsule((112, -96), (124, -84), 22, 14), "shade"),
        Part("Ear", "head.2", (84, -106), round_part(15, 22, -6, -22), "shade"),
        Part("Eye", "head.2", (84, -106), round_part(7, 8, 16, -6), "ink"),
        *drawn_limb(near_hind, (34, 20, 14), hoof),
        *drawn_limb(near_fore, (28, 18, 14), hoof),
    ]
    return Starter("four-legs", "Four legs", "Walks, trots, paces and bounds.", figure, tuple(parts), "wave", "amble")


def _six() -> Starter:
    def at(x: float, out: float) -> list[Point]:
        # Both bones alike, the knee outwards of the straight way and above it.
        length = float(np.hypot(out, 21))
        side = -1 if out < 0 else 1
        knee = (round(x + out / 2 + side * 13 * 21 / length, 2), round(-15.5 - 13 * abs(out) / length, 2))
        return [(x, -26), knee, (x + out, -5), (x + out + 7, -1)]

    places = (("hind", -9.0, -25.0, -1), ("middle", 1.0, -6.0, -1), ("front", 12.0, 17.0, 1))
    limbs = tuple(
        leg(f"{side.capitalize()} {word} leg", side, at(x + shift, out), at="hips", bend=bend)
        for side, shift in (("near", 0.0), ("far", 5.0))
        for word, x, out, bend in places
    )
    feeler = Chain(id="feeler", name="Feeler", at="chest", joints=((38, -38), (48, -54), (62, -52)))
    figure = Figure(spine=((0, -28), (22, -30)), head=((40, -32),), limbs=limbs, chains=(feeler,))
    far, near = (tuple(one for one in limbs if one.side == side) for side in ("far", "near"))
    parts = [
        *(part for one in far for part in drawn_limb(one, (5, 4, 3), point_foot)),
        Part("Abdomen", "hips", (0, -28), round_part(46, 30, -30, -3), "main"),
        Part("Thorax", "spine.1", (0, -28), capsule((-8, -28), (22, -30), 15, 17), "main"),
        Part("Head", "head.1", (22, -30), round_part(30, 26, 16, -2), "main"),
        Part("Jaw", "head.1", (40, -32), capsule((6, 6), (15, 11), 5, 3), "shade"),
        Part("Eye", "head.1", (40, -32), round_part(6, 7, 3, -4), "ink"),
        *drawn_chain(feeler, 3.5, 2.5, "shade"),
        *(part for one in near for part in drawn_limb(one, (6, 5, 3.5), point_foot)),
    ]
    return Starter("six-legs", "Six legs", "Walks by tripods, or leg after leg.", figure, tuple(parts), "alternate", "tripod")


def _bird() -> Starter:
    near, far = [(0, -62), (-9, -36), (2, -6), (20, -2)], [(-4, -62), (-13, -36), (-2, -6), (16, -2)]
    tail = Chain(id="tail", name="Tail", at="hips", joints=((-28, -72), (-58, -64)))
    wing = Chain(id="wing", name="Wing", at="chest", joints=((14, -92), (-22, -78)))
    figure = Figure(
        spine=((-6, -72), (16, -86)),
        head=((22, -112), (36, -120)),
        limbs=(leg("Near leg", "near", near, bend=-1), leg("Far leg", "far", far, bend=-1)),  # type: ignore[arg-type]
        chains=(tail, wing),
    )
    near_leg, far_leg = figure.limbs
    parts = [
        *drawn_limb(far_leg, (12, 6, 5), point_foot),
        *drawn_chain(tail, 18, 10, "shade"),
        Part("Rump", "hips", (-6, -72), round_part(54, 40, -4, 0), "main"),
        Part("Breast", "spine.1", (-6, -72), capsule((-2, -74), (16, -84), 44, 40), "main"),
        Part("Bib", "spine.1", (16, -86), round_part(22, 30, 8, 8), "light"),
        Part("Neck", "head.1", (16, -86), capsule((16, -88), (22, -112), 28, 26), "main"),
        Part("Head", "head.2", (22, -112), round_part(36, 34, 6, -6), "main"),
        Part("Bill", "head.2", (36, -120), "M2 -6 C18 -12 36 -4 40 12 C28 6 14 8 2 8 Z", "accent"),
        Part("Eye", "head.2", (22, -112), round_part(7, 8, 12, -10), "ink"),
        *drawn_chain(wing, 26, 10, "shade"),
        *drawn_limb(near_leg, (13, 7, 5), point_foot),
    ]
    return Starter("bird", "Bird", "Two legs that bend the other way, a neck, a tail and a wing.", figure, tuple(parts), "alternate", "stroll")


STARTERS: dict[str, Starter] = {one.name: one for one in (_upright(), _four(), _six(), _bird())}


def scaled(figure: Figure, factor: float) -> Figure:
    """The figure with all its joints this many times as far from its origin."""

    def points(joints: tuple[Point, ...]) -> tuple[Point, ...]:
        return tuple((round(x * factor, 3), round(y * factor, 3)) for x, y in joints)

    return Figure(
        spine=points(figure.spine),
        head=points(figure.head),
        limbs=tuple(one.copy_with(joints=points(one.joints)) for one in figure.limbs),
        chains=tuple(one.copy_with(joints=points(one.joints)) for one in figure.chains),
    )


def height(figure: Figure) -> float:
    """How high the highest joint is above the ground, in px."""
    return max(-y for bone in figure.bones.values() for _, y in (bone.start, bone.end))
