"""Edits that time motion to beats: keys on beats, and walks in step."""

from itertools import pairwise
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id, Number, Owner
from vine_swing.motion.edits.base import Edit, channel_label, channel_of, object_in, owner_in, spec_of, with_channel, with_rule
from vine_swing.motion.edits.figures import figure_in, gait_of
from vine_swing.motion.figure.stretches import PER_FRAME, Stretch
from vine_swing.motion.figure.walk import Walk
from vine_swing.motion.figure.walk_plan import WalkedStretch
from vine_swing.motion.scene.beats import TimedBy, beat_frames, whole_beats
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.timing.channel import MAX_KEYS, Channel, Key
from vine_swing.motion.timing.ease import BezierEase

Array = NDArray[np.float64]
#: An object thrown up and coming down: (1 − t)² and t² as cubic Bezier curves.
_RISING, _FALLING = BezierEase(bezier=(1 / 3, 2 / 3, 2 / 3, 1.0)), BezierEase(bezier=(1 / 3, 0.0, 2 / 3, 1 / 3))
#: Steps that would be shorter than this cannot be walked, px.
_SHORTEST = 2.0


class KeysOnBeats(Edit):
    """Put keys of a channel on beats, replacing its keys between the first beat and the last.

    way:
        `hit`: on every beat it is at `struck` and falls back to `rest` within `fall` frames; it rises from there within `rise` frames.
        `turn`: it is at `struck` and at `rest` in turn, a beat each, gently at both ends.
        `bounce`: it is at `rest` on every beat and flies towards `struck` in between, as high as the longest flight allows: like what is thrown.
        `poses`: the leaves it has, one on each beat, repeatedly; all other leaves of the channel go.

    by: what the beats are. every, skip: every this many of them, after some that are left out.
    """

    edit: Literal["keys-on-beats"]
    object: Owner
    channel: Annotated[str, Field(max_length=64)]
    by: TimedBy
    way: Literal["hit", "turn", "bounce", "poses"] = "hit"
    rest: Number = 0.0
    struck: Number = 1.0
    rise: Annotated[int, Field(strict=True, ge=0, le=1000)] = 2
    fall: Annotated[int, Field(strict=True, ge=1, le=1000)] = 8
    every: Annotated[int, Field(strict=True, ge=1, le=1000)] = 1
    skip: Annotated[int, Field(strict=True, ge=0, le=1000)] = 0

    def apply(self, scene: Scene) -> Scene:
        beats = whole_beats(scene, self.by, every=self.every, skip=self.skip)
        obj = owner_in(scene, self.object)
        before = channel_of(obj, self.channel)
        spec = spec_of(obj, self.channel)
        if self.way == "poses":
            keys = self._poses(before, beats, channel_label(obj, self.channel))
        elif spec.kind != "number":
            raise EditError(f"{channel_label(obj, self.channel)} holds no numbers; lay the leaves it has on the beats instead")
        else:
            placed = {"hit": self._hits, "turn": self._turns, "bounce": self._bounces}[self.way](beats)
            first, last = placed[0].frame, placed[-1].frame
            keys = sorted([*(key for key in before.keys if not first <= key.frame <= last), *placed], key=lambda key: key.frame)
        if len(keys) > MAX_KEYS:
            raise EditError(
                f"{channel_label(obj, self.channel)} would have {len(keys)} leaves; at most {MAX_KEYS} fit, so take only some of the beats"
            )
        return with_channel(scene, self.object, self.channel, lambda channel: channel.copy_with(keys=tuple(keys)))

    def _hits(self, beats: list[int]) -> list[Key]:
        rest, struck = float(self.rest), float(self.struck)
        keys = {beats[0] - self.rise: Key(frame=float(beats[0] - self.rise), value=rest, ease="slow-out")} if self.rise else {}
        for beat, following in zip(beats, [*beats[1:], None], strict=True):
            keys[beat] = Key(frame=float(beat), value=struck, ease="slow-in")
            back = beat + self.fall
            if following is None or back <= following - self.rise:
                keys[back] = Key(frame=float(back), value=rest, ease="hold" if not self.rise else "slow-out")
            if following is not None and self.rise and following - self.rise > beat:
                # Too quick to come to rest: it turns round on the way, where it would have begun to rise.
                reached = min(1.0, (following - self.rise - beat) / self.fall)
                keys[following - self.rise] = Key(frame=float(following - self.rise), value=struck + (rest - struck) * reached, ease="slow-out")
        return [keys[frame] for frame in sorted(keys)]

    def _turns(self, beats: list[int]) -> list[Key]:
        values = (float(self.struck), float(self.rest))
        return [Key(frame=float(beat), value=values[n % 2], ease="slow-out-in") for n, beat in enumerate(beats)]

    def _bounces(self, beats: list[int]) -> list[Key]:
        rest, height = float(self.rest), float(self.struck) - float(self.rest)
        longest = max((b - a for a, b in pairwise(beats)), default=1)
        keys: list[Key] = []
        for a, b in pairwise(beats):
            # What flies twice as long flies four times as high.
            high = rest + height * ((b - a) / longest) ** 2
            keys += [Key(frame=float(a), value=rest, ease=_RISING), Key(frame=(a + b) / 2, value=high, ease=_FALLING)]
        return [*keys, Key(frame=float(beats[-1]), value=rest)]

    @staticmethod
    def _poses(before: Channel, beats: list[int], name: str) -> list[Key]:
        if not before.keys:
            raise EditError(f"{name} has no keys to move to the beats; add a key for each pose first")
        return [before.keys[n % len(before.keys)].copy_with(frame=float(beat)) for n, beat in enumerate(beats)]

    def label(self, scene: Scene) -> str:
        return f"lay {channel_label(owner_in(scene, self.object), self.channel)} on beats"


class StepOnBeats(Edit):
    """Have a figure set a foot down on every beat, or on every this many of them.

    On the spot, its cycle gets as long as two beats. Where it goes somewhere, its stride is keyed from beat to beat: where it is does not change.
    """

    edit: Literal["step-on-beats"]
    id: Id
    by: TimedBy
    every: Annotated[int, Field(strict=True, ge=1, le=64)] = 1

    def apply(self, scene: Scene) -> Scene:
        obj = figure_in(scene, self.id)
        gait = gait_of(obj)
        if gait is None or not gait.on:
            raise EditError(f"'{obj.name}' has no gait; add one, then fit its steps to the beats")
        beats = beat_frames(scene, self.by)[:: self.every]
        if len(beats) < 2:
            raise EditError(f"there are {len(beats)} beats within the scene; two at least are needed to keep step with")
        walk = bake(scene.copy_with(objects=tuple(obj for obj in scene.objects if not obj.copying))).reader.walk(self.id)
        assert walk is not None
        if walk.plan.inputs.treadmill is not None:
            cycle = 2 * float(np.mean(np.diff(beats)))
            if cycle < 2:
                raise EditError("these beats are less than a frame apart; keep step with every second or fourth of them")
            phase = -360 * beats[0] / cycle % 360
            settings = {"treadmill": Channel(base=round(cycle, 6)), "phase": Channel(base=round(phase, 6))}
        else:
            settings = self._strides(obj.name, walk, np.round(beats * PER_FRAME) / PER_FRAME)
        stored = {name: Channel() if (item := gait.settings.get(name)) is None or isinstance(item, str) else item for name in settings}
        new = {name: channel.copy_with(before=stored[name].before, after=stored[name].after) for name, channel in settings.items()}
        return with_rule(scene, object_in(scene, self.id), gait.copy_with(settings={**gait.settings, **new}))

    def _strides(self, name: str, walk: Walk, beats: Array) -> dict[str, Channel]:
        """The stride from beat to beat, and the phase that puts a foot down on the first."""
        lands = walk.plan.landing
        keys: dict[float, Key] = {}
        settings: dict[str, Channel] = {}
        for walked in walk.plan.walked:
            stretch = walked.stretch
            inside = beats[(beats > stretch.frames[0]) & (beats < stretch.frames[-1])]
            if len(inside) < 2:
                continue
            travelled = _gone(walked)
            at = [round((beat - float(stretch.frames[0])) * PER_FRAME) for beat in inside.tolist()]
            directions = np.diff(travelled[at])
            if directions.min() < _SHORTEST:
                slow = int(directions.argmin())
                raise EditError(
                    f"'{name}' goes {directions[slow]:.1f} px from frame {inside[slow]:g} to {inside[slow + 1]:g}, too little for a"
                    " step; move it farther there, or use fewer beats"
                )
            strides, first = _fitted(travelled, at, stretch, lands)
            if not stretch.begins:
                settings["phase"] = Channel(base=round(360 * (first - walk.plan.starting), 6))
            keys |= {(frame := float(stretch.frames[row])): Key(frame=frame, value=max(1.0, stride), ease="hold") for row, stride in strides}
        if not keys:
            raise EditError(f"'{name}' does not travel between the beats; move it during the beats, or make it walk in place")
        return settings | {"stride": Channel(keys=tuple(keys[frame] for frame in sorted(keys)))}

    def label(self, scene: Scene) -> str:
        return f"keep step: {object_in(scene, self.id).name}"


def _gone(walked: WalkedStretch) -> Array:
    """The way gone at each place of a stretch, (m,), without swaying back, in px of the setting `stride`."""
    dx, dy = np.diff(walked.x), np.diff(walked.y)
    direction = np.concatenate([[0.0], np.cumsum(np.sign(dx) * np.hypot(dx, dy))])
    forward = np.maximum.accumulate(direction * walked.stretch.sign)
    return np.concatenate([[0.0], np.cumsum(np.diff(forward) * 2 / (walked.stride_scale[1:] + walked.stride_scale[:-1]))])


def _fitted(travelled: Array, at: list[int], stretch: Stretch, lands: float) -> tuple[list[tuple[int, float]], float]:
    """Return strides of a walk segment for which half a cycle takes one beat, with a footstep on each beat.

    Args:
        travelled: the distance travelled at the samples of the segment, (m,), as `_gone` gives it.
        at: the rows of the beats.
        lands: the phase at which a foot lands, and every half cycle from there.

    Returns:
        rows and the strides from there on; and the phase at frame 0, for a stretch that comes from beyond the frames looked at.
    """
    stride = 2 * float(travelled[at[1]] - travelled[at[0]])
    before = float(travelled[at[0]])
    if stretch.begins:
        # As many half cycles as come nearest to the stride after it.
        halves = max(0.0 if lands > 0.05 else 1.0, round(2 * (before / stride - lands)))
        stride = before / (lands + halves / 2)
    strides = [(0, stride)]
    for a, b in pairwise(at):
        # A stride begins to change half a frame after its key, and is the mean of both on the way there.
        direction, step = float(travelled[b] - travelled[a + 1]), float(travelled[a + 1] - travelled[a])
        last, stride = stride, 2 * (direction + step)
        for _ in range(30):
            stride = direction / max(0.5 - 2 * step / (last + stride), 1e-6)
        strides.append((a + 1, stride))
    left = float(travelled[-1] - travelled[at[-1]])
    if stretch.ends:
        phase = before / strides[0][1] + 0.5 * (len(at) - 1)
        whole = max(1.0, round(2 * (phase + left / stride))) / 2
        if whole - phase > 0.05:
            strides.append((at[-1] + 1, left / (whole - phase)))
    zero = float(np.interp(0.0, stretch.frames, travelled))
    return strides, lands - (before - zero) / strides[0][1]
