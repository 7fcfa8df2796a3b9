"""The paint list: all paint operations of every frame, as a small tree. docs/paint-list.md describes it as data.

`listing.py` makes it from a bake; the Skia painter and the page are two short interpreters of it that decide nothing themselves.

A step paints with its tracks at the frame it is painted at. Transforms nest: a step's matrix maps into the space of what it is in,
the outermost of which is the picture. All tracks of opacity of a step are multiplied, then clipped to 0…1.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.values import Blend
from vine_swing.motion.scene.shapes import Cap, Join
from vine_swing.picture.effects import Blur, Fringe, Glow, Mask, Recolour, Shadow
from vine_swing.picture.tracks import OutlineTrack, Track

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Gradient:
    """Colour stops, in the object's space, blended in sRGB without their alpha, as SVG does it.

    kind: along the line from the first end to the last, or from the first outward as far as the last lies.
    ends: x and y of the first, x and y of the last.
    stops: for each its place on the way, cut to 0…1 and to no less than that of the stop before, and its colour (w = 4).
    """

    kind: Literal["linear", "radial"]
    ends: tuple[Track, Track, Track, Track]
    stops: tuple[tuple[Track, Track], ...]

    @property
    def tracks(self) -> Iterator[Track]:
        """All that it changes with."""
        yield from self.ends
        for stop in self.stops:
            yield from stop


@dataclass(frozen=True, eq=False)
class Fill:
    """Fill an outline. `matrix`: a b c d e f (w = 6); `colour`: sRGB with alpha, 0…1 (w = 4); `rule`: what is inside where lines cross, as SVG
    calls it. `gradient`: colours it instead of `colour`."""

    id: str
    matrix: Track
    outline: OutlineTrack
    colour: Track
    rule: Literal["nonzero", "evenodd"] = "nonzero"
    gradient: Gradient | None = None
    opacity: tuple[Track, ...] = ()
    shown: bool = True


#: How far a mitered corner or a square end can lie from the line, as a share of half its width.
REACH = {"miter": 10.0, "square": 1.5}


@dataclass(frozen=True, eq=False)
class Stroke:
    """Draw the line of an outline, `width` px wide in the object's space.

    cap, join: how it ends and goes round corners, as SVG calls it, with a miter limit of 10. dash: the lengths of its dashes and gaps in turn, px, an
    even number of them; none for a whole line. offset: how far into them it begins, px; None for 0. gradient: colours it instead of `colour`.
    """

    id: str
    matrix: Track
    outline: OutlineTrack
    colour: Track
    width: Track
    cap: Cap = "round"
    join: Join = "round"
    dash: tuple[float, ...] = ()
    offset: Track | None = None
    gradient: Gradient | None = None
    opacity: tuple[Track, ...] = ()
    shown: bool = True

    @property
    def reach(self) -> float:
        """How far it can lie from its outline, as a share of half its width."""
        return max(REACH.get(self.cap, 1.0), REACH.get(self.join, 1.0))


@dataclass(frozen=True)
class KeptPages:
    """The pictures of a step as they are kept: whose they are called, and of each its id and its width in px."""

    owner: str
    pages: tuple[tuple[str, int], ...]


@dataclass(frozen=True, eq=False)
class Picture:
    """Paint one of some pictures, stretched over the box of `size` (width, height; w = 2) about the origin of the object's space.

    pictures: PNG, JPEG or WebP data. kept: the id and the width in px of each, by which a page asks for them, and whose they are called.
    page: which of them is shown: its whole part, modulo their number.
    smooth: sampled bilinearly between pixels, or each pixel as a square.
    fit: stretched, or with its own proportions and cropped equally at both sides.
    tile: repeated beside itself without end: across, down, or both ways.
    """

    id: str
    matrix: Track
    size: Track
    pictures: tuple[bytes, ...]
    page: Track
    smooth: bool = True
    fit: Literal["stretch", "cover"] = "stretch"
    tile: Literal["none", "across", "down", "both"] = "none"
    kept: "KeptPages" = field(default_factory=lambda: KeptPages("", ()))
    opacity: tuple[Track, ...] = ()
    shown: bool = True

    @property
    def endless(self) -> tuple[bool, bool]:
        """Whether it goes on without end across, and down."""
        return self.tile in ("across", "both"), self.tile in ("down", "both")


@dataclass(frozen=True, eq=False)
class Group:
    """Paint some steps, the first at the back, as one picture: with effects, an opacity below 1 or another blend mode than normal, they are painted
    on a layer of their own. The effects are applied to it in order, then it is composited onto what lies below."""

    id: str
    children: tuple["Step", ...]
    opacity: tuple[Track, ...] = ()
    blend: Blend = "normal"
    shown: bool = True
    effects: tuple["Effect", ...] = ()


@dataclass(frozen=True, eq=False)
class Instance:
    """Paint some steps again: moved by `matrix`, and as they are `delay` frames earlier; or, with `frames`, at the frame that says: the scene inside
    an inset has a time of its own."""

    id: str
    children: tuple["Step", ...]
    matrix: Track
    delay: float = 0.0
    frames: Track | None = None
    opacity: tuple[Track, ...] = ()
    shown: bool = True

    def own_frame(self, frame: float) -> float:
        """The frame its steps are at when it is at `frame`."""
        return frame - self.delay if self.frames is None else float(self.frames.at(frame))


@dataclass(frozen=True, eq=False)
class Copies:
    """Paint some steps n times, each moved and delayed: the instances of a parade.

    each: the steps of each copy, or once those of all.
    matrices: (rows, 6n), the matrix of each copy one after the other.
    delays: by how many frames each copy is earlier than this step is.
    fades: (rows, n), the opacity of each copy; None where all are opaque.
    order: (rows, n), the copies from the back to the front; None where they are painted as they are counted.
    """

    id: str
    each: tuple[tuple["Step", ...], ...]
    matrices: Track
    delays: tuple[float, ...]
    fades: Track | None = None
    order: Track | None = None
    opacity: tuple[Track, ...] = ()
    shown: bool = True

    @cached_property
    def instances(self) -> tuple[Instance, ...]:
        """Its copies, one by one, as they are counted."""
        return tuple(self._instance(k, delay) for k, delay in enumerate(self.delays))

    def in_order(self, frame: float) -> list[Instance]:
        """Its copies at a frame, from the back to the front."""
        if self.order is None:
            return list(self.instances)
        return [self.instances[int(k)] for k in self.order.at(frame)]

    def _instance(self, k: int, delay: float) -> Instance:
        matrices = self.matrices
        matrix = Track(matrices.owner, matrices.name, matrices.values[:, 6 * k : 6 * k + 6], matrices.first)
        fades = self.fades
        faded = () if fades is None else (Track(fades.owner, fades.name, fades.values[:, k], fades.first),)
        return Instance(self.id, self.each[k if len(self.each) > 1 else 0], matrix, delay, opacity=faded)


Step = Fill | Stroke | Picture | Group | Instance | Copies
#: What is done to the picture of a group.
Effect = Shadow | Glow | Blur | Fringe | Mask[Step] | Recolour


@dataclass(frozen=True, eq=False)
class PaintList:
    """All steps of a scene, the first at the back, on a background (sRGB with alpha, (4,)). `size`: width and height in px."""

    size: tuple[int, int]
    background: Array
    steps: tuple[Step, ...]


def copied_tracks(steps: tuple[Step, ...]) -> Iterator[Track | OutlineTrack | KeptPages]:
    """What the copies and the insides of insets among some steps are painted from."""
    for step in steps:
        if isinstance(step, Instance) and step.frames is not None:
            yield from _tracks((step,))
        elif isinstance(step, Copies):
            yield from (track for track in (step.matrices, step.fades, step.order) if track is not None)
            for one in step.each:
                yield from _tracks(one)
        elif isinstance(step, Group | Instance):
            yield from copied_tracks(step.children)
            for effect in step.effects if isinstance(step, Group) else ():
                yield from copied_tracks(effect.steps) if isinstance(effect, Mask) else ()


def _tracks(steps: tuple[Step, ...]) -> Iterator[Track | OutlineTrack | KeptPages]:
    """All that some steps and the steps in them are painted from."""
    for step in steps:
        yield from step.opacity
        if isinstance(step, Fill | Stroke | Picture | Instance):
            yield step.matrix
        match step:
            case Fill() | Stroke():
                yield from (step.outline, step.colour)
                yield from step.gradient.tracks if step.gradient is not None else ()
                if isinstance(step, Stroke):
                    yield from (step.width, *(() if step.offset is None else (step.offset,)))
            case Picture():
                yield from (step.size, step.page, step.kept)
            case Group() | Instance():
                if isinstance(step, Instance) and step.frames is not None:
                    yield step.frames
                yield from _tracks(step.children)
                for effect in step.effects if isinstance(step, Group) else ():
                    yield from effect.tracks
                    yield from _tracks(effect.steps) if isinstance(effect, Mask) else ()
            case Copies():
                yield from copied_tracks((step,))


def leaves(steps: tuple[Step, ...]) -> Iterator[Fill | Stroke | Picture]:
    """The steps that paint something themselves, in order."""
    for step in steps:
        if isinstance(step, Group | Instance):
            yield from leaves(step.children)
        elif isinstance(step, Copies):
            yield from leaves(tuple(one for steps in step.each for one in steps))
        else:
            yield step
