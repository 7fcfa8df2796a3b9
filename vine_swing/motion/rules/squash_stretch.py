"""Squash and stretch: longer along the travel by its speed, flat at contacts and hard stops, the area always kept.

A stretch by s along the angle θ is the vector ln s·(cos 2θ, sin 2θ): stretches that act together are added as such vectors, and the sum is again
a stretch and an angle (the logarithm of a symmetric matrix of determinant 1). So nothing flickers where the direction turns or the speed is
near 0. Travel stretches by ln(1 + amount)·f(speed/full speed) with f(u) = u²(3 − 2u), and 1 from full speed on.

A hard stop or a contact is a frame at which the velocity jumps, found among the keys of x, y and path and what bounces report. It squashes
along the jump by `impact`, over the frame before it and `recover` frames after it, while the stretch by travel steps back.

With `breathe` b the area is let go by a share: what makes it longer makes it less thin, what flattens it less wide. A stretch by s is then
s^(1 − b/2), with both scales times s^(b/2) by travel and s^(−b/2) by impacts.
"""

import numpy as np

from vine_swing.motion.moves import key_frames
from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_or
from vine_swing.motion.rules.travel import Travel

#: A squash comes on within this many frames.
_ONSET = 1.0
_HARDLY = 1e-9


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The stretch, or its angle, multiplied or added to what was there."""
    travel = Travel.of(source)

    def read(t: Array) -> Array:
        so_far = source.at(t)
        breathe = number_or(settings, "breathe", t)
        if source.channel in ("scale.x", "scale.y") and not breathe.any():
            return so_far
        pull, grown = _pull(source, settings, travel, t[0])
        size = np.hypot(pull[:, 0], pull[:, 1])
        if source.channel == "stretch":
            return so_far * np.exp(size * (1 - breathe / 2))
        if source.channel in ("scale.x", "scale.y"):
            return so_far * np.exp(grown * breathe / 2)
        if source.channel == "stretch.angle":
            return so_far + np.where(size > _HARDLY, np.degrees(np.arctan2(pull[:, 1], pull[:, 0])) / 2, 0.0)
        return so_far

    return read


def _pull(source: Source, settings: Settings, travel: Travel, t: Array) -> tuple[Array, Array]:
    """The stretch at frames t (n,) as vectors ln s·(cos 2θ, sin 2θ), shape (n, 2); and how much more of it travel makes than impacts, (n,)."""
    at = t[None, :]
    full = number_or(settings, "full_speed", at, 40.0)[0]
    velocity = travel.velocity(t)
    along = np.log1p(number_or(settings, "amount", at)[0]) * _rising(np.hypot(velocity[:, 0], velocity[:, 1]) / full)
    total = along[:, None] * _doubled(velocity)
    pressed = np.zeros_like(along)
    flat = np.log1p(number_or(settings, "impact", at)[0])
    recover = np.maximum(number_or(settings, "recover", at, 6.0)[0], 1e-6)
    for frame, jump, strength in _contacts(source, travel, t, full):
        share = strength * _held((t - frame), recover)
        total = total * (1 - share)[:, None] - (flat * share)[:, None] * _doubled(jump[None, :])
        along, pressed = along * (1 - share), pressed + flat * share
    most = np.log(number_or(settings, "limit", at, 2.0)[0])
    size = np.hypot(total[:, 0], total[:, 1])
    within = np.divide(np.minimum(size, most), size, out=np.ones_like(size), where=size > 0)
    return total * within[:, None], (along - pressed) * within


def _contacts(source: Source, travel: Travel, t: Array, full: Array) -> list[tuple[float, Array, Array]]:
    """Frames at which the velocity jumps, by what, and how strong that is at frames t, 0…1."""
    reach = float(t.max()) + _ONSET
    candidates = [source.contacts()]
    for name in ("x", "y"):
        candidates.append(key_frames(source.beside(name).keys[0], float(t.min()) - 1000, reach)[0])
    frames = np.unique(np.concatenate(candidates))
    frames = frames[frames <= reach]
    if not len(frames):
        return []
    before, after = travel.sides(frames)
    found = []
    for frame, one, other in zip(frames, before, after, strict=True):
        jump = other - one
        speed = float(np.hypot(*jump))
        # Setting off is no collision: only what is taken from the speed it had counts.
        lost = -float(jump @ one) / max(float(np.hypot(*one)), _HARDLY)
        if lost > _HARDLY * 1e3 and speed > 0:
            found.append((float(frame), jump, _rising(lost / full)))
    return found


def _doubled(direction: Array) -> Array:
    """(cos 2θ, sin 2θ) of some directions (n, 2); nothing for none."""
    x, y = direction[:, 0], direction[:, 1]
    size = x**2 + y**2
    safe = np.where(size > 0, size, 1.0)
    return np.stack([np.where(size > 0, (x**2 - y**2) / safe, 0.0), np.where(size > 0, 2 * x * y / safe, 0.0)], axis=-1)


def _rising(u: Array | float) -> Array:
    """0 at 0, 1 from 1 on, without a corner."""
    u = np.clip(u, 0, 1)
    return np.asarray(u * u * (3 - 2 * u))


def _held(since: Array, recover: Array) -> Array:
    """How much of a squash there is some frames since its contact: all at it, none one frame before and `recover` frames after."""
    return np.where(since < 0, _rising(1 + since / _ONSET), 1 - _rising(since / recover))


SPEC = RuleSpec(
    kind="squash-stretch",
    label="Squash & stretch",
    about="Longer when fast, flat when it hits: weight and softness, the area kept.",
    settings=by_name(
        SettingSpec("amount", "amount", "more", 0.35, 0.0, 20.0, usual=(0.0, 1.5), about="How much longer it is at full speed; 0.35 is 35 % longer."),
        SettingSpec(
            "full_speed", "full speed", "px/frame", 40.0, 0.01, 1e6, usual=(5.0, 120.0), step=1.0, about="The speed at which it is stretched fully."
        ),
        SettingSpec("impact", "impact", "flatter", 0.4, 0.0, 20.0, usual=(0.0, 1.5), about="How much flatter it is when it hits hard."),
        SettingSpec("recover", "recover", "frames", 6.0, 0.1, 1e4, usual=(1.0, 24.0), step=1.0, about="How long it takes to be round again."),
        SettingSpec("limit", "limit", "×", 2.0, 1.0, 100.0, usual=(1.0, 4.0), about="The most it is ever drawn out or pressed flat."),
        SettingSpec(
            "breathe", "breathe", "", 0.0, 0.0, 1.0, usual=(0.0, 1.0), about="0 keeps the area exactly, 1 lets go of it: longer but not thinner."
        ),
    ),
    modes=(),
    prepare=prepare,
    summary="{amount} · at {full_speed} · {impact}",
    telling={"full_speed": 6.0, "amount": 1.0},
    acts=("stretch", "stretch.angle", "scale.x", "scale.y"),
    alone=True,
    besides=("x", "y", "path"),
    looks=lambda word, channel: (("", "x"), ("", "y")),
)
