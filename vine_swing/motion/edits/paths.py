"""Edits of paths: their shape, and turning x and y into a path and back."""

import itertools
from collections.abc import Callable
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id
from vine_swing.motion.edits.base import Edit, check_traced, object_in, with_channel, with_object
from vine_swing.motion.edits.keys import Frames, pick
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel, Key, Way
from vine_swing.motion.timing.ease import Ease, PointsEase
from vine_swing.motion.timing.ends import HOLD
from vine_swing.motion.timing.evaluate import evaluate
from vine_swing.motion.timing.fit import fit_keys
from vine_swing.motion.timing.path import Curve, evaluate_path, points_of, way_of

Array = NDArray[np.float64]
#: How far, in pixels, joining and splitting may stray from the motion they copy, at any quarter of a frame.
TOLERANCE = 0.05
_PER_FRAME = 4
_FITTINGS = 200
_FINER = 16


class _PathEdit(Edit):
    object: Id

    def _keyed(self, scene: Scene) -> tuple[SceneObject, Channel]:
        thing = object_in(scene, self.object)
        if not thing.is_keyed("path"):
            raise EditError(f"'{thing.name}' has no path; join its x and y first, or key a path")
        return thing, thing.channels["path"]


class SetWay(_PathEdit):
    """Choose how the path goes on from some of its keys: straight, as a Bezier curve, or as a spline."""

    edit: Literal["set-way"]
    frames: Frames
    way: Way

    def apply(self, scene: Scene) -> Scene:
        thing, path = self._keyed(scene)
        picked = {key.frame for key in pick(path, self.frames, f"{thing.name} path")}
        keys = [key.copy_with(way=self.way) if key.frame in picked else key for key in path.keys]
        if self.way == "bezier":
            for n, (key, following) in enumerate(itertools.pairwise(keys)):
                if key.frame in picked:
                    # Handles one can pull at once, a third of the way along the line.
                    (x, y), (to_x, to_y) = points_of([key, following])
                    third = ((to_x - x) / 3, (to_y - y) / 3)
                    keys[n] = keys[n].copy_with(out=key.out or third)
                    keys[n + 1] = keys[n + 1].copy_with(into=following.into or (-third[0], -third[1]))
        return with_channel(scene, self.object, "path", lambda channel: channel.copy_with(keys=tuple(keys)))

    def label(self, scene: Scene) -> str:
        return f"path of {object_in(scene, self.object).name}"


class SetCorner(_PathEdit):
    """Let a path pass some of its keys sharply, or round them smoothly."""

    edit: Literal["set-corner"]
    frames: Frames
    corner: Literal["sharp", "smooth"]

    def apply(self, scene: Scene) -> Scene:
        thing, path = self._keyed(scene)
        picked = {key.frame for key in pick(path, self.frames, f"{thing.name} path")}
        keys = list(path.keys)
        for n, key in enumerate(path.keys):
            if key.frame in picked:
                self._shape(keys, n)
        return with_channel(scene, self.object, "path", lambda channel: channel.copy_with(keys=tuple(keys)))

    def _shape(self, keys: list[Key], n: int) -> None:
        ways = [way_of(key, following) for key, following in itertools.pairwise(keys)]
        sides = [m for m in (n - 1, n) if 0 <= m < len(ways)]
        if any(ways[m] == "spline" for m in sides):
            keys[n] = keys[n].copy_with(tension=1.0 if self.corner == "sharp" else 0.0, continuity=0.0)
        if self.corner == "sharp":
            if any(ways[m] == "bezier" for m in sides):
                keys[n] = keys[n].copy_with(out=(0.0, 0.0), into=(0.0, 0.0))
            return
        points = points_of(keys)
        before, after = points[max(n - 1, 0)], points[min(n + 1, len(keys) - 1)]
        along = after - before
        unit = along / (np.hypot(*along) or 1.0)
        for m in sides:
            if ways[m] == "spline":
                continue
            keys[m] = keys[m].copy_with(way="bezier")
            third = float(np.hypot(*(points[m + 1] - points[m]))) / 3
            arm = (float(unit[0]) * third, float(unit[1]) * third)
            keys[n] = keys[n].copy_with(out=arm) if m == n else keys[n].copy_with(into=(-arm[0], -arm[1]))

    def label(self, scene: Scene) -> str:
        return f"{self.corner} corner of {object_in(scene, self.object).name}"


class SplitPath(_PathEdit):
    """Turn a path into keys of x and y. Straight stretches keep their ease; curved ones get as many keys with handles as it
    takes to stay within 0.05 px of the motion."""

    edit: Literal["split-path"]

    def apply(self, scene: Scene) -> Scene:
        thing, path = self._keyed(scene)
        check_traced(path.keys[0].frame, path.keys[-1].frame)
        columns: list[list[Key]] = [[], []]
        for key, following in itertools.pairwise(path.keys):
            if way_of(key, following) == "straight" and key.ease not in ("handles", "spline"):
                found = [[Key(frame=one.frame, value=float(one.value[axis]), ease=key.ease) for one in (key, following)] for axis in (0, 1)]  # type: ignore[index]
            else:
                t = _between(key.frame, following.frame)
                way = evaluate_path(path.copy_with(before=HOLD, after=HOLD), t)
                # The stretch ends on its own key, whichever side of a jump the last sample fell on.
                way[-1] = points_of([following])[0]
                found = [fit_keys(t, way[:, axis], TOLERANCE) for axis in (0, 1)]
            for axis in (0, 1):
                _join(columns[axis], found[axis])
        if len(path.keys) == 1:
            columns = [[Key(frame=path.keys[0].frame, value=float(value))] for value in points_of(path.keys)[0]]
        channels = {name: channel for name, channel in thing.channels.items() if name != "path"}
        for name, keys in zip(("x", "y"), columns, strict=True):
            if not thing.is_keyed(name):
                channels[name] = thing.channels.get(name, Channel()).copy_with(keys=tuple(keys), before=path.before, after=path.after)
        return with_object(scene, thing.copy_with(channels=channels))

    def label(self, scene: Scene) -> str:
        return f"split the path of {object_in(scene, self.object).name} into x and y"


class JoinPath(_PathEdit):
    """Turn the keys of x and y into one path with the same motion: exactly where both go straight with one ease, and within
    0.05 px elsewhere."""

    edit: Literal["join-path"]

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.object)
        if thing.is_keyed("path"):
            raise EditError(f"'{thing.name}' has a path already; split it first")
        pair = [thing.channels.get(name, Channel()) for name in ("x", "y")]
        moving = [channel for channel in pair if channel.keys]
        if not moving:
            raise EditError(f"'{thing.name}' has no keys on x or y to make a path of; key its travel first")
        frames = {key.frame for channel in moving for key in channel.keys}
        ends = (HOLD, HOLD)
        if all(_turns_alike(moving[0], other) for other in moving):
            ends = (moving[0].before, moving[0].after)
            pair = [channel.copy_with(before=HOLD, after=HOLD) for channel in pair]
        elif any(channel.before != HOLD or channel.after != HOLD for channel in moving):
            # x and y go on differently past their keys, which one path cannot: the visible range is written as keys.
            frames |= {0.0, float(scene.length - 1)}
            for channel in moving:
                frames |= set(channel.turns(scene.length))
        check_traced(min(frames), max(frames))
        keys = _joined(pair, thing, sorted(frames))
        path = Channel(keys=tuple(keys), before=ends[0], after=ends[1])
        emptied = {name: channel.copy_with(keys=(), before=HOLD, after=HOLD) for name, channel in zip(("x", "y"), pair, strict=True)}
        return with_object(scene, thing.copy_with(channels=thing.channels | emptied | {"path": path}))

    def label(self, scene: Scene) -> str:
        return f"join x and y of {object_in(scene, self.object).name} to a path"


def _turns_alike(a: Channel, b: Channel) -> bool:
    """Whether two channels go on alike past their keys, over the same stretch."""
    return (a.before, a.after, a.keys[0].frame, a.keys[-1].frame) == (b.before, b.after, b.keys[0].frame, b.keys[-1].frame)


def _between(first: float, last: float) -> Array:
    return np.linspace(first, last, max(2, round((last - first) * _PER_FRAME) + 1))


def _join(keys: list[Key], more: list[Key]) -> None:
    """Put the keys of the next stretch behind those so far; the key they share takes the handles of both sides."""
    if keys:
        last = keys.pop()
        more = [more[0].copy_with(into=last.into), *more[1:]]
    keys += more


def _joined(pair: list[Channel], thing: SceneObject, frames: list[float]) -> list[Key]:
    def place(t: Array) -> Array:
        columns = []
        for name, channel in zip(("x", "y"), pair, strict=True):
            base = channel.base if channel.base is not None else thing.specs[name].default
            columns.append(evaluate([channel], t)[0] if channel.keys else np.full(len(t), float(base)))  # type: ignore[arg-type]
        return np.stack(columns, axis=1)

    keys: list[Key] = []
    stops = place(np.array(frames))
    for n, (first, last) in enumerate(itertools.pairwise(frames)):
        ease = _one_ease(pair, first, last)
        if ease is not None:
            _join(keys, [Key(frame=first, value=_point(stops[n]), ease=ease, way="straight"), Key(frame=last, value=_point(stops[n + 1]))])
        else:
            _join(keys, _traced(place, first, last))
    return keys or [Key(frame=frames[0], value=_point(stops[0]))]


def _one_ease(pair: list[Channel], first: float, last: float) -> Ease | None:
    """The ease that both channels have between two frames, if each has keys there and is not bent (or never changes)."""
    eases = []
    for channel in pair:
        here, there = channel.key_at(first), channel.key_at(last)
        if not channel.keys:
            continue
        if channel.keys[0].frame >= last or channel.keys[-1].frame <= first:
            if (channel.before if channel.keys[0].frame >= last else channel.after) == HOLD:
                continue
            return None
        if here is None or there is None:
            return None
        if here.value != there.value or here.ease in ("handles", "spline"):
            eases.append(here.ease)
    distinct = set(eases)
    if not distinct:
        return "linear"
    ease = distinct.pop()
    return None if distinct or ease in ("handles", "spline") else ease


def _traced(place: Callable[[Array], Array], first: float, last: float) -> list[Key]:
    """Keys for a stretch that bends: Bezier curves that are on the way, with a pace that is that of the motion."""
    t = _between(first, last)
    points = place(t)
    ends = [Key(frame=first, value=_point(points[0]), way="straight"), Key(frame=last, value=_point(points[-1]))]
    if len(t) <= 2:
        return ends
    # The way is measured on far finer steps than it is compared on: chords are shorter than what they span.
    fine = np.linspace(first, last, (len(t) - 1) * _FINER + 1)
    way = np.append(0, np.cumsum(np.hypot(*np.diff(place(fine), axis=0).T)))[::_FINER]
    if way[-1] == 0:
        return ends
    share = way / way[-1]
    curve = _fitted(points, share)
    if np.hypot(*(curve.at(share) - points).T).max() <= TOLERANCE:
        pace = PointsEase(points=tuple((float(u), float(p)) for u, p in zip((t - t[0]) / (last - first), share, strict=True)))
        out, into = curve.controls[1] - curve.controls[0], curve.controls[2] - curve.controls[3]
        return [ends[0].copy_with(way="bezier", out=_point(out), ease=pace), ends[1].copy_with(into=_point(into))]
    middle = float(t[len(t) // 2])
    keys = _traced(place, first, middle)
    _join(keys, _traced(place, middle, last))
    return keys


def _fitted(points: Array, share: Array) -> Curve:
    """The Bezier curve between the first and last of some points (n, 2) that passes the others most nearly: its inner control points
    by least squares, then each point's parameter by a Newton step towards the nearest place of the curve, repeatedly."""
    start, end = points[0], points[-1]
    s = share
    controls = np.array([start, start + (end - start) / 3, end - (end - start) / 3, end])
    for _ in range(_FITTINGS):
        first, second = 3 * (1 - s) ** 2 * s, 3 * (1 - s) * s**2
        rest = points - ((1 - s) ** 2 * (1 + 2 * s))[:, None] * start - (s**2 * (3 - 2 * s))[:, None] * end
        # Unknowns are the arms of both handles: B = … + first·(a − start) + second·(b − end).
        arms, *_ = np.linalg.lstsq(np.stack([first, second], axis=1), rest, rcond=None)
        controls = np.array([start, start + arms[0], end + arms[1], end])
        place, slope, bend = _bezier(controls, s)
        off = place - points
        down = (slope * slope).sum(axis=1) + (off * bend).sum(axis=1)
        step = np.divide((off * slope).sum(axis=1), down, out=np.zeros_like(s), where=down > 0)
        s = np.clip(s - step, 0, 1)
        if np.abs(step).max() < 1e-9:
            break
    return Curve(controls)


def _bezier(controls: Array, s: Array) -> tuple[Array, Array, Array]:
    """The points at parameters s (n,), and their first and second derivatives, each (n, 2)."""
    a, b, c, d = controls
    k3, k2, k1 = d - 3 * c + 3 * b - a, 3 * (c - 2 * b + a), 3 * (b - a)
    at = s[:, None]
    return ((k3 * at + k2) * at + k1) * at + a, (3 * k3 * at + 2 * k2) * at + k1, 6 * k3 * at + 2 * k2


def _point(pair: Array) -> tuple[float, float]:
    return float(pair[0]), float(pair[1])
