"""Ripple: a wave along an outline, or through it.

Going round, each place is moved along the outward normal by amplitude · w(waves·s + phase/360 + speed·seconds), with s the share of the outline's
length gone from its first point. Going through, each point is moved across `direction`, with s the share of the box passed in that direction, as
a flag is by the wind. `grow` lets the wave begin with nothing.
"""

import numpy as np

from vine_swing.motion.curves.contours import Contour
from vine_swing.motion.curves.places import spread
from vine_swing.motion.rules.bending import Across, Bending, like, no_numbers
from vine_swing.motion.rules.oscillator import WAVES
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name, number_of

#: Waves that go on without a corner, and so are drawn in curves.
_SMOOTH = ("sine", "cosine")
#: The most places that one contour has.
_MOST_PLACES = 4_000


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """The contours with the wave on them."""
    if how.settings.choice("goes") == "through":
        return _through(contours, how)
    outward = how.outward
    return [_round(one, rest, how, outward) for one, rest in zip(contours, how.rest, strict=True)]


def _round(contour: Contour, rest: Contour, how: Bending, outward: float) -> Contour:
    waves = how.number("waves")
    if contour.closed and how.settings.choice("whole") == "whole":
        waves = np.round(waves)
    places = spread(contour, rest, _count(how))
    turns = waves * places.share + how.number("phase") / 360 + how.run("speed")
    push = outward * how.number("amplitude") * _grown(how, places.share) * WAVES[how.settings.choice("wave")](turns)
    return places.pushed(push, smooth=how.settings.choice("wave") in _SMOOTH)


def _through(contours: list[Contour], how: Bending) -> list[Contour]:
    across = Across.of(how.box, how.number("direction"))
    wave = WAVES[how.settings.choice("wave")]

    def change(points: Array) -> Array:
        along, beside = across.split(points)
        share = across.share(along)
        turns = like(how.number("waves"), points) * share + like(how.number("phase") / 360 + how.run("speed"), points)
        # The crest is pushed to the left of the direction: up, where it goes to the right.
        push = like(how.number("amplitude"), points) * _grown(how, share) * wave(turns)
        return across.put(along, beside - push)

    longest = float(across.length.max()) / _count(how)
    return [one.mapped(change) for one in how.fine(contours, longest)]


def _count(how: Bending) -> int:
    return int(min(max(12.0, np.ceil(how.most("places") * max(1.0, how.most("waves")))), _MOST_PLACES))


def _grown(how: Bending, share: Array) -> Array:
    grow = how.number("grow").reshape(-1, *[1] * (share.ndim - 1))
    return 1 - grow + grow * share


SPEC = RuleSpec(
    kind="ripple",
    label="Ripple",
    about="A wave round an outline: petals, saw blades, jelly; or through it: a flag in the wind.",
    settings=by_name(
        SettingSpec("wave", "wave", "", "sine", choices=tuple(WAVES), about="The shape of one wave."),
        SettingSpec("amplitude", "amplitude", "px", 12.0, usual=(0.0, 100.0), step=1.0, about="How far it goes out and in."),
        SettingSpec("waves", "waves", "", 6.0, 0.0, 500.0, usual=(0.0, 24.0), step=1.0, about="Number of waves along the outline."),
        SettingSpec("phase", "phase", "°", 0.0, usual=(0.0, 360.0), step=1.0, about="Where in the wave the first point lies."),
        SettingSpec("speed", "speed", "/s", 0.0, -240.0, 240.0, usual=(-3.0, 3.0), about="Number of waves that pass in a second."),
        SettingSpec("goes", "goes", "", "round", choices=("round", "through"), about="Along the outline, or straight through all of it."),
        SettingSpec("direction", "direction", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Which way it goes through; 0° is to the right."),
        SettingSpec("grow", "grow", "", 0.0, 0.0, 1.0, usual=(0.0, 1.0), about="1 lets it begin with nothing, as a flag does at its pole."),
        SettingSpec(
            "places",
            "places",
            "a wave",
            48.0,
            2.0,
            400.0,
            usual=(8.0, 96.0),
            step=1.0,
            about="How many places of each wave are worked out; more is smoother.",
        ),
        SettingSpec(
            "whole", "seam", "", "whole", choices=("whole", "any"), about="Whole waves close round a closed outline; any number leaves a seam."
        ),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    still=lambda settings, t: settings.breaks("speed") is None and not number_of(settings, "speed", t).any(),
    value_kind="outline",
    for_channels=("outline",),
    example={"amplitude": 5.0},
    summary="± {amplitude} · {waves} waves · {speed}",
)
