"""Fingerprints of pictures: numbers that are the same for two frames only if what some steps paint there is the same."""

from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from vine_swing.picture.effects import Mask
from vine_swing.picture.paint_list import Copies, Fill, Group, Instance, Picture, Step, Stroke
from vine_swing.picture.tracks import OutlineTrack, Track


@dataclass
class Fingerprints:
    """Tells steps apart by what they are painted from, frame by frame. It lives as long as the list whose tracks it knows."""

    _runs: dict[tuple[int, tuple[int, ...], tuple[int, ...]], NDArray[np.intp]] = field(default_factory=dict)

    def of(self, group: Group, frame: float) -> tuple[int, ...]:
        """Of a group at a frame: equal for two frames only if its picture, with its effects, is the same."""
        return (*self._steps(group.children, frame), *self._effects(group, frame))

    def _steps(self, steps: tuple[Step, ...], frame: float) -> Iterator[int]:
        for step in steps:
            for track in step.opacity:
                yield self._row(track, frame)
            match step:
                case Fill() | Stroke() | Picture():
                    for part in vars(step).values():
                        if isinstance(part, Track):
                            yield self._row(part, frame)
                        elif isinstance(part, OutlineTrack):
                            yield part.index_at(frame)
                    if not isinstance(step, Picture) and step.gradient is not None:
                        for track in step.gradient.tracks:
                            yield self._row(track, frame)
                case Group():
                    yield from self._steps(step.children, frame)
                    yield from self._effects(step, frame)
                case Instance():
                    yield self._row(step.matrix, frame)
                    yield from self._steps(step.children, step.own_frame(frame))
                case Copies():
                    for instance in step.in_order(frame):
                        yield from self._steps((instance,), frame)

    def _effects(self, group: Group, frame: float) -> Iterator[int]:
        for effect in group.effects:
            for track in effect.tracks:
                yield self._row(track, frame)
            if isinstance(effect, Mask):
                yield from self._steps(effect.steps, frame)

    def _row(self, track: Track, frame: float) -> int:
        """The first of the rows before a frame's that are all the same as it."""
        values = track.values
        if len(values) < 2:
            return 0
        # Views of the same part of an array may be different objects, so they are identified by their memory address.
        key = values.__array_interface__["data"][0], values.shape, values.strides
        runs = self._runs.get(key)
        if runs is None:
            rows = np.arange(len(values))
            changed = (values[1:] != values[:-1]).reshape(len(values) - 1, -1).any(axis=1)
            runs = self._runs[key] = np.maximum.accumulate(np.where(np.append(True, changed), rows, 0))
        return int(runs[track.row(frame)])
