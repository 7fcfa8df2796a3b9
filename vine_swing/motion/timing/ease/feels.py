"""The shipped feels: named eases, each with the one line that says what it is good for."""

from dataclasses import dataclass

from vine_swing.motion.timing.ease.spec import BezierEase, BounceEase, BounceSettings, Ease, FeelName, SpringEase, SpringSettings


@dataclass(frozen=True)
class Feel:
    """A named ease and what to say about it."""

    name: FeelName
    label: str
    ease: Ease
    about: str


_ALL = [
    Feel("even", "Even", "linear", "The same distance on every frame: machines, belts, drifting clouds."),
    Feel(
        "slow-out",
        "Slow out",
        BezierEase(bezier=(0.42, 0.0, 1.0, 1.0)),
        "Leaves its pose gently and is fast when it arrives: a fall, a leap off a branch.",
    ),
    Feel("slow-in", "Slow in", BezierEase(bezier=(0.0, 0.0, 0.58, 1.0)), "Starts at speed and settles gently: coming to rest."),
    Feel(
        "slow-out-in", "Slow out & in", BezierEase(bezier=(0.42, 0.0, 0.58, 1.0)), "Gentle at both ends: swings, turns of a head, most living things."
    ),
    Feel("snap", "Snap", BezierEase(bezier=(0.08, 0.82, 0.17, 1.0)), "Nearly all of the way at once, then a long settle: quick gestures."),
    Feel("heavy", "Heavy", BezierEase(bezier=(0.76, 0.0, 0.5, 1.0)), "Hard to get going and slow to stop: sacks, tapirs, big doors."),
    Feel("wind-up", "Wind-up", BezierEase(bezier=(0.45, -0.5, 0.75, 0.95)), "Dips back before it goes: a throw, a jump."),
    Feel("overshoot", "Overshoot", BezierEase(bezier=(0.3, 0.2, 0.4, 1.45)), "Goes past its mark and comes back to it."),
    Feel("spring", "Spring", SpringEase(spring=SpringSettings()), "Swings about its mark and settles: jelly, twigs, antennae."),
    Feel("bounce", "Bounce", BounceEase(bounce=BounceSettings()), "Lands, and lands again: dropped fruit."),
]
FEELS: dict[str, Feel] = {feel.name: feel for feel in _ALL}
