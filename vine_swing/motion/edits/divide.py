"""Putting a key on a path without bending it."""

import itertools

import numpy as np

from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.path import Curve, curves, pace_of, way_of


def divided(path: Channel, frame: float) -> Channel | None:
    """A path with one more key, on it at a frame within it; None for frames outside its keys or with a key.

    A curved stretch becomes two Bezier curves that are on it exactly; both copy its ease.
    """
    keys = path.keys
    i = next((n for n in range(len(keys) - 1) if keys[n].frame < frame < keys[n + 1].frame), None)
    if i is None:
        return None
    before, after = keys[i], keys[i + 1]
    curve = curves(keys)[i]
    share = pace_of(before).at(np.array([(frame - before.frame) / (after.frame - before.frame)]))
    s = float(curve.parameter(np.clip(share, 0, 1))[0])
    point = tuple(float(v) for v in curve.point(np.array([s]))[0])
    directions = _ways(keys)
    here = Key(frame=frame, value=point, ease=before.ease, way=directions[i])
    changed = [key.copy_with(way=direction) for key, direction in zip(keys, [*directions, keys[-1].way], strict=True)]
    if directions[i] != "straight":
        # A spline through one key more would be another curve: its neighbours stay as they are drawn, as Bezier curves.
        all_curves = curves(keys)
        for n in {i - 1, i, i + 1} & set(range(len(directions))):
            if directions[n] == "spline":
                changed[n] = changed[n].copy_with(way="bezier", out=_out(all_curves[n]))
                changed[n + 1] = changed[n + 1].copy_with(into=_into(all_curves[n]))
        first, second = (Curve(controls) for controls in curve.divided(s))
        changed[i] = changed[i].copy_with(out=_out(first))
        changed[i + 1] = changed[i + 1].copy_with(into=_into(second))
        here = here.copy_with(way="bezier", out=_out(second), into=_into(first))
    return path.copy_with(keys=(*changed[: i + 1], here, *changed[i + 1 :]))


def _ways(keys: tuple[Key, ...]) -> list[str]:
    return [way_of(key, following) for key, following in itertools.pairwise(keys)]


def _out(curve: Curve) -> tuple[float, float]:
    x, y = curve.controls[1] - curve.controls[0]
    return float(x), float(y)


def _into(curve: Curve) -> tuple[float, float]:
    x, y = curve.controls[2] - curve.controls[3]
    return float(x), float(y)
