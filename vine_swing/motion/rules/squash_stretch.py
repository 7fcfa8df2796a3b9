"""Squash and stretch: longer along the travel by its speed, flat at contacts and hard stops, the area always kept.

A stretch by s along the angle θ is the vector ln s·(cos 2θ, sin 2θ): stretches that act together are added as such vectors, and the sum is again
a stretch and an angle (the logarithm of a symmetric matrix of determinant 1). So nothing flickers where the direction turns or the speed is
near 0. Travel stretches by ln(1 + amount)·f(speed/full speed) with f(u) = u²(3 − 2u), and 1 from full speed on.

A hard stop or a contact is a frame at which the velocity jumps, found among the keys of x, y and path and what bounces report. It squashes
along the jump by `impact`, over the frame before it and `recover` frames after it, while the stretch by travel steps back.

With `breathe` b the area is let follow a share: what makes it longer makes it less thin, what flattens it less wide. A stretch by s is then
s^(1 − b/2), with both scales times s^(b/2) by travel and s^(−b/2) by impacts.
"""

from dataclasses import dataclass
from typing import cast

import numpy as np

from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of
from vine_swing.motion.rules.travel import Travel
from vine_swing.motion.timing.moves import key_frames

#: A squash comes on within this many frames.
_ONSET = 1.0
_HARDLY = 1e-9


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The stretch, or its angle, multiplied or added to what was there."""
    travel = Travel.of(source)

    def read(t: Array) -> Array:
        so_far = source.at(t)
        breathe = number_of(settings, "breathe", t)
        if source.channel in ("scale.x", "scale.y") and not breathe.any():
            return so_far
        pull = _pull(source, settings, travel, t)
        size = np.hypot(pull.along_x, pull.along_y)
        if source.channel == "stretch":
            return so_far * np.exp(size * (1 - breathe / 2))
        if source.channel in ("scale.x", "scale.y"):
            return so_far * np.exp(pull.grown * breathe / 2)
        if source.channel == "stretch.angle":
            # Straight up and straight down are one direction, 90°, whichever way the last digit falls.
            along_y = np.where(np.abs(pull.along_y) <= _HARDLY * size, 0.0, pull.along_y)
            return so_far + np.where(size > _HARDLY, np.degrees(np.arctan2(along_y, pull.along_x)) / 2, 0.0)
        return so_far

    return read


@dataclass(frozen=True)
class _Pull:
    """The stretch as vectors ln s·(cos 2θ, sin 2θ), and how much more of it travel makes than impacts; each (r, n)."""

    along_x: Array
    along_y: Array
    grown: Array


def _pull(source: Source, settings: Settings, travel: Travel, t: Array) -> _Pull:
    """The pull at frames t (1 or r, n); what was computed for the same frames for another channel is taken from there."""
    key = f"{settings.key} pull"
    known = cast(list[tuple[Array, _Pull]], source.memo.get(key, []))
    for frames, pull in known:
        if frames is t:
            return pull
    pull = _worked_out(source, settings, travel, t)
    source.memo[key] = [*known[-1:], (t, pull)]
    return pull


def _worked_out(source: Source, settings: Settings, travel: Travel, t: Array) -> _Pull:
    full = number_of(settings, "full_speed", t)
    vx, vy = travel.velocity(t)
    along = np.log1p(number_of(settings, "amount", t)) * _rising(np.hypot(vx, vy) / full)
    direction = _doubled(vx, vy)
    total_x, total_y = along * direction[0], along * direction[1]
    pressed = np.zeros_like(along)
    flat = np.log1p(number_of(settings, "impact", t))
    recover = np.maximum(number_of(settings, "recover", t), 1e-6)
    contacts = _contacts(source, travel, t)
    for n in range(contacts.frames.shape[1]):
        share = _rising(contacts.lost[:, n, None] / full) * _held(t - contacts.frames[:, n, None], recover)
        total_x = total_x * (1 - share) - flat * share * contacts.along_x[:, n, None]
        total_y = total_y * (1 - share) - flat * share * contacts.along_y[:, n, None]
        along, pressed = along * (1 - share), pressed + flat * share
    most = np.log(number_of(settings, "limit", t))
    size = np.hypot(total_x, total_y)
    within = np.divide(np.minimum(size, most), size, out=np.ones_like(size), where=size > 0)
    return _Pull(total_x * within, total_y * within, (along - pressed) * within)


@dataclass(frozen=True)
class _Contacts:
    """Frames at which the velocity of each row jumps, (r, k); rows with fewer are filled up with contacts that lose nothing.

    lost: what each takes from the speed there was, in px/frame. along_x, along_y: the direction of the jump, doubled as `_doubled` does.
    """

    frames: Array
    lost: Array
    along_x: Array
    along_y: Array


def _contacts(source: Source, travel: Travel, t: Array) -> _Contacts:
    """The contacts that may show at frames t (1 or r, n)."""
    low, reach = float(t.min()) - 1000, float(t.max()) + _ONSET
    keyed = [source.own_keyed(name).keys for name in ("x", "y")]
    found = []
    for row, met in enumerate(source.contacts()):
        frames = np.unique(np.concatenate([met, *(key_frames(keys[row], low, reach)[0] for keys in keyed)]))
        found.append(frames[frames <= reach])
    most = max(map(len, found), default=0)
    frames, known = np.zeros((len(found), most)), np.zeros((len(found), most), bool)
    for row, some in enumerate(found):
        frames[row, : len(some)], known[row, : len(some)] = some, True
    if not most:
        return _Contacts(frames, frames, frames, frames)
    (x0, y0), (x1, y1) = travel.sides(frames)
    jump_x, jump_y = x1 - x0, y1 - y0
    # Setting off is no collision: only what is taken from the speed it had counts.
    lost = -(jump_x * x0 + jump_y * y0) / np.maximum(np.hypot(x0, y0), _HARDLY)
    lost = np.where(known & (lost > _HARDLY * 1e3) & (np.hypot(jump_x, jump_y) > 0), lost, 0.0)
    some = np.flatnonzero(lost.any(axis=0))
    along_x, along_y = _doubled(jump_x[:, some], jump_y[:, some])
    return _Contacts(frames[:, some], lost[:, some], along_x, along_y)


def _doubled(x: Array, y: Array) -> tuple[Array, Array]:
    """(cos 2θ, sin 2θ) of some directions; nothing for none."""
    size = x**2 + y**2
    safe = np.where(size > 0, size, 1.0)
    return np.where(size > 0, (x**2 - y**2) / safe, 0.0), np.where(size > 0, 2 * x * y / safe, 0.0)


def _rising(u: Array) -> Array:
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
    example={"full_speed": 6.0, "amount": 1.0},
    for_channels=("stretch", "stretch.angle", "scale.x", "scale.y"),
    dependency_reads=3.0,
    own_keys_read=("x", "y", "path"),
    dependencies=lambda word, channel: (("", "x"), ("", "y")),
)
