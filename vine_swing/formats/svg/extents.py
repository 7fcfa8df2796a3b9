"""Bounds of paint operations over all samples, as filters and masks require them."""

import numpy as np

from vine_swing.formats.svg.moving import Array
from vine_swing.formats.svg.series import Rows, read
from vine_swing.motion.basics import matrix as matrices
from vine_swing.picture.paint_list import Copies, Fill, Group, Instance, Picture, Step, Stroke

#: left, top, right, bottom; None where nothing is painted.
Box = tuple[float, float, float, float]
#: Half of what goes on without end, px.
ENDLESS = 20_000.0


def extent(steps: tuple[Step, ...], rows: Rows) -> Box | None:
    """The box of some steps, in the space they are in, without what effects add."""
    boxes = [box for step in steps if (box := _of(step, rows)) is not None]
    if not boxes:
        return None
    table = np.array(boxes)
    low, high = table[:, :2].min(axis=0), table[:, 2:].max(axis=0)
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])


def _of(step: Step, rows: Rows) -> Box | None:
    match step:
        case Group():
            return extent(step.children, rows)
        case Instance():
            inner = extent(step.children, own_rows(step, rows))
            return None if inner is None else _mapped(inner, read(step.matrix, rows))
        case Copies():
            return extent(step.instances, rows)
        case Picture():
            half = read(step.size, rows).max(axis=0) / 2
            across, down = step.endless
            wide, high = ENDLESS if across else float(half[0]), ENDLESS if down else float(half[1])
            return _mapped((-wide, -high, wide, high), read(step.matrix, rows))
        case Fill() | Stroke():
            bounds = np.array([outline.bounds() for outline in step.outline.outlines])
            room = float(max(0.0, read(step.width, rows).max())) / 2 * step.reach if isinstance(step, Stroke) else 0.0
            low, high = bounds[:, :2].min(axis=0) - room, bounds[:, 2:].max(axis=0) + room
            return _mapped((float(low[0]), float(low[1]), float(high[0]), float(high[1])), read(step.matrix, rows))


def reach_of(step: Step, rows: Rows) -> float:
    """How far from the origin of its own space something is painted at most, px."""
    match step:
        case Picture():
            return float(np.hypot(*read(step.size, rows).max(axis=0))) / 2
        case Fill() | Stroke():
            room = float(max(0.0, read(step.width, rows).max())) / 2 if isinstance(step, Stroke) else 0.0
            return max((float(np.hypot(*outline.points.T).max()) for outline in step.outline.outlines if len(outline.points)), default=0.0) + room
        case Instance():
            box = extent(step.children, own_rows(step, rows))
            return 0.0 if box is None else float(np.hypot(max(abs(box[0]), abs(box[2])), max(abs(box[1]), abs(box[3]))))
    return 0.0


def own_rows(step: Instance, rows: Rows) -> Rows:
    """The rows its steps are at when it is at others."""
    return rows - step.delay if step.frames is None else read(step.frames, rows)


def _mapped(box: Box, many: Array) -> Box:
    left, top, right, bottom = box
    corners = [matrices.apply(many, np.array(x), np.array(y)) for x in (left, right) for y in (top, bottom)]
    points = np.concatenate([corner.reshape(-1, 2) for corner in corners])
    low, high = points.min(axis=0), points.max(axis=0)
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])
