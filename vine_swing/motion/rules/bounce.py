"""Bounce: dropped from rest, in exact parabolas, until it lies still.

From `start` on, y is that of an object released at the height it has there, H above the floor. It first meets the floor after `fall` frames and
keeps the share `keep` of its height at every contact: bounce k rises H·keepᵏ and lasts 2·fall·√keepᵏ frames, so all of them take
fall·(1 + 2r/(1 − r)) frames with r = √keep. With `gravity` given, in px/s², the fall follows from the height: √(2H/g) seconds.

The way along x is free. With `across` given it drifts at that speed from `start` on, halved every `friction` seconds: by
across·(1 − 2^(−s/friction))·friction/ln 2 after s seconds.
"""

import numpy as np

from vine_swing.motion.rules.spec import AT_START, Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless

#: Bounces lower than this, in pixels, are not reported as contacts.
_SEEN = 0.05
_MOST_CONTACTS = 1_000
#: Whoever keeps less than this of its height lies still at once.
_LEAST_KEEP = 1e-6


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The heights while it falls, bounces and lies, and its drift along x; before `start` they are as they were."""
    if source.channel == "x":
        return source.at(t) + _drift(source, settings, t)
    start, floor, height, fall, r = _numbers(source, settings)
    after = t - start
    falling = floor - height * (1 - (np.clip(after, 0, fall) / fall) ** 2)
    # Bounce k ≥ 1 begins 2·fall·(r + … + rᵏ⁻¹) after the first contact.
    passed = np.maximum(after - fall, 0.0)
    left = 1 - passed * (1 - r) / (2 * fall * np.maximum(r, _TINY))
    with np.errstate(divide="ignore", invalid="ignore"):
        k = np.floor(np.log(np.maximum(left, _TINY)) / np.log(np.maximum(r, _TINY))) + 1
        begun = 2 * fall * r * (1 - r ** (k - 1)) / (1 - r)
        u = np.clip((passed - begun) / (2 * fall * r**k), 0, 1)
    rise = np.where((r > 0) & (left > _TINY), height * r ** (2 * k) * 4 * u * (1 - u), 0.0)
    bounced = np.where(after < fall, falling, floor - rise)
    return np.where(after < 0, source.at(t), bounced)


def _drift(source: Source, settings: Settings, t: Array) -> Array:
    """How far it has drifted, in px."""
    across = settings.number("across", AT_START)
    if across is None:
        return np.zeros((1, 1))
    seconds = np.maximum(t - number_of(settings, "start", AT_START), 0.0) / source.timing.fps
    friction = settings.number("friction", AT_START)
    run = seconds if friction is None else -np.expm1(-seconds * np.log(2) / friction) * friction / np.log(2)
    return np.asarray(across * run)


def contacts(source: Source, settings: Settings) -> Array:
    """The frames at which it meets the floor, for one channel."""
    if source.channel != "y":
        return np.empty(0)
    start, _, height, fall, r = (float(one[0, 0]) for one in _numbers(source, settings))
    if height == 0:
        return np.empty(0)
    many = _MOST_CONTACTS if r >= 1 else int(np.clip(np.ceil(np.log(_SEEN / abs(height)) / (2 * np.log(r))) if r > 0 else 0, 0, _MOST_CONTACTS))
    return start + fall + np.append(0.0, np.cumsum(2 * fall * r ** np.arange(1, many + 1)))


_TINY = 1e-12


def _numbers(source: Source, settings: Settings) -> tuple[Array, Array, Array, Array, Array]:
    """Start, floor, height above it, frames to the first contact, and the share of a bounce's time the next one lasts; (r, 1)."""
    start = number_of(settings, "start", AT_START)
    floor = number_of(settings, "floor", AT_START)
    begin = source.at(start)
    height = floor - begin
    fall = number_of(settings, "fall", AT_START)
    gravity = settings.number("gravity", AT_START)
    if gravity is not None:
        fall = np.maximum(source.timing.fps * np.sqrt(2 * np.abs(height) / gravity), 1e-3)
    keep = number_of(settings, "keep", AT_START)
    return start, floor, height, fall, np.where(keep > _LEAST_KEEP, np.sqrt(keep), 0.0)


SPEC = RuleSpec(
    kind="bounce",
    label="Bounce",
    about="Drops, bounces ever lower and lies still: fruit, balls, anything let go.",
    settings=by_name(
        SettingSpec("floor", "floor", "px", 600.0, usual=(0.0, 720.0), step=1.0, about="The y at which it meets the floor."),
        SettingSpec("fall", "fall", "frames", 12.0, 0.1, 1e5, usual=(2.0, 48.0), step=1.0, about="Frames from letting go to the first contact."),
        SettingSpec(
            "keep", "keep", "", 0.5, 0.0, 0.98, usual=(0.0, 0.95), about="The share of its height it keeps at each contact: more is lighter."
        ),
        SettingSpec("start", "start", "frames", 0.0, -1e6, 1e6, usual=(0.0, 240.0), step=1.0, about="The frame it is let go at."),
        SettingSpec(
            "gravity",
            "gravity",
            "px/s²",
            None,
            1.0,
            1e7,
            usual=(200.0, 8000.0),
            step=10.0,
            about="By physics: the fall then follows from the height.",
        ),
        SettingSpec("across", "across", "px/s", None, -1e6, 1e6, usual=(-800.0, 800.0), step=1.0, about="On: it drifts along x at this speed."),
        SettingSpec("friction", "friction", "s", None, 1e-3, 1e4, usual=(0.1, 5.0), about="On: the seconds in which its drift is halved."),
    ),
    modes=(),
    prepare=stateless(apply),
    summary="floor {floor} · {gravity|fall} · keeps {keep}",
    example={"floor": 100.0, "fall": 12.0, "start": 4.0},
    for_channels=("y", "x"),
    contacts=contacts,
)
