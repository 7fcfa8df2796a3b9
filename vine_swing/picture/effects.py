"""Effects of look rules on a layer. A group of the paint list may have several, applied in order. docs/paint-list.md defines each exactly.

Lengths are in px and directions in degrees of the space that `matrix` maps from (the scene, which a camera may turn and enlarge); without one, of the
space the group is in. A length is as many times longer in pixels as the root of the area that the whole transform makes of 1.
"""

from collections.abc import Iterator
from dataclasses import dataclass, fields
from typing import Any, Generic, Literal, TypeVar

from vine_swing.picture.tracks import Track

#: A step of the paint list, which is on what is said here.
S = TypeVar("S")


@dataclass(frozen=True, eq=False, kw_only=True)
class _Effect:
    """`rule`: the id of the rule that asks for it. `matrix`: from the space it is measured in to that of the group; None for the same."""

    rule: str
    matrix: Track | None = None

    @property
    def tracks(self) -> Iterator[Track]:
        """All that it changes with."""
        yield from (one for part in fields(self) if isinstance(one := getattr(self, part.name), Track))


@dataclass(frozen=True, eq=False, kw_only=True)
class Shadow(_Effect):
    """The picture's silhouette in `colour` (w = 4, its alpha times `opacity`), moved by dx and dy and blurred by `blur`, beneath the picture."""

    dx: Track
    dy: Track
    blur: Track
    colour: Track
    opacity: Track


@dataclass(frozen=True, eq=False, kw_only=True)
class Glow(_Effect):
    """The silhouette in `colour`, blurred by `size` and added up `strength` times: beneath the picture, or added to it as light."""

    size: Track
    colour: Track
    strength: Track
    lies: Literal["behind", "over"]


@dataclass(frozen=True, eq=False, kw_only=True)
class Blur(_Effect):
    """A Gaussian of the standard deviation `size`: all round, or with an `angle` in that direction alone."""

    size: Track
    angle: Track | None = None


@dataclass(frozen=True, eq=False, kw_only=True)
class Fringe(_Effect):
    """Red moved by `distance` in the direction `angle` and blue the other way; or, with a `middle` (w = 2), red made larger about it by a share of
    distance / 100 and blue smaller. The alpha is the mean of the three, but no less than any of the colours."""

    distance: Track
    angle: Track
    middle: Track | None = None


@dataclass(frozen=True, eq=False, kw_only=True)
class Mask(_Effect, Generic[S]):
    """What is inside the picture of some steps, which are in the space of the group, or outside it: their alpha, or their alpha times their
    lightness, blurred by `feather`, times the alpha of the picture."""

    steps: tuple[S, ...]
    side: Literal["inside", "outside"]
    reads: Literal["opacity", "lightness"]
    feather: Track


@dataclass(frozen=True, eq=False, kw_only=True)
class Recolour(_Effect):
    """Each colour (r, g, b, each 0…1 and not multiplied by alpha) replaced by what a matrix of three rows of four makes of (r, g, b, 1), cut to 0…1;
    `colours`: w = 12."""

    colours: Track


#: By their names in data.
EFFECTS: dict[str, type[Shadow | Glow | Blur | Fringe | Mask[Any] | Recolour]] = {
    "shadow": Shadow,
    "glow": Glow,
    "blur": Blur,
    "fringe": Fringe,
    "mask": Mask,
    "recolour": Recolour,
}
