"""The skeleton of a figure: joints in their rest positions, in the figure's own space.

Its origin is the point on the ground below the hips; x points where it faces, y down. Lengths are the distances between joints, so a joint
that is dragged makes a limb longer or shorter, and nothing else has to be said.
"""

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from vine_swing.motion.basics.values import Frozen, Name, Point

#: Bones every figure has besides those of its limbs and chains; no limb or chain may be named so.
HIPS, SPINE, HEAD = "hips", "spine", "head"
_TAKEN = {HIPS, SPINE, HEAD}
MAX_LIMBS = 24
MAX_CHAINS = 12
#: Shorter bones than this, in px, have no direction.
_SHORTEST = 0.01
Base = Literal["hips", "chest"]
#: The id of a limb or chain: channels and bones are called by it, a dot and a word.
PartId = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")]


class Limb(Frozen):
    """A leg or an arm: two bones and a foot or hand. `joints` are the root (hip or shoulder), the knee or elbow, the ankle or wrist, and the tip.

    `bend` says to which side the middle joint bends: 1 forward as a knee does, -1 back as an elbow does. `side` is the one nearer to us
    or the one behind.
    """

    id: PartId
    name: Name
    kind: Literal["leg", "arm"] = "leg"
    at: Base = "hips"
    side: Literal["near", "far"] = "near"
    bend: Literal[1, -1] = 1
    joints: tuple[Point, Point, Point, Point]

    @property
    def bone_lengths(self) -> tuple[float, float]:
        """How long its two bones are, px."""
        root, middle, end, _ = self.joints
        return distance(root, middle), distance(middle, end)


class Chain(Frozen):
    """Links that hang one on the other: a tail, an ear, a trunk. `joints` are the root and the end of every link."""

    id: PartId
    name: Name
    at: Base = "hips"
    joints: Annotated[tuple[Point, ...], Field(min_length=2, max_length=25)]


@dataclass(frozen=True)
class Bone:
    """A bone where it rests: from one joint to the next, and its parent."""

    name: str
    label: str
    start: Point
    end: Point


class Figure(Frozen):
    """A jointed character. `spine` are the joints from the hips up to the chest; `head` those after the chest (a neck's end, the crown)."""

    spine: Annotated[tuple[Point, ...], Field(min_length=2, max_length=9)]
    head: Annotated[tuple[Point, ...], Field(max_length=4)] = ()
    limbs: Annotated[tuple[Limb, ...], Field(max_length=MAX_LIMBS)] = ()
    chains: Annotated[tuple[Chain, ...], Field(max_length=MAX_CHAINS)] = ()

    @cached_property
    def bones(self) -> dict[str, Bone]:
        """Every bone by the name parts are attached to it by, in drawing order of nothing in particular: hips, spine, head, limbs, chains."""
        hips = self.spine[0]
        found = [Bone(HIPS, "Hips", hips, hips)]
        found += _row(SPINE, "Spine", self.spine)
        found += _row(HEAD, "Head" if len(self.head) < 2 else "Neck and head", (self.spine[-1], *self.head))
        for limb in self.limbs:
            words = ("upper", "lower", "end")
            said = ("thigh", "shin", "foot") if limb.kind == "leg" else ("upper arm", "forearm", "hand")
            ends = pairwise(limb.joints)
            found += [Bone(f"{limb.id}.{w}", f"{limb.name}: {s}", a, b) for w, s, (a, b) in zip(words, said, ends, strict=True)]
        for chain in self.chains:
            found += _row(chain.id, chain.name, chain.joints)
        return {bone.name: bone for bone in found}

    @property
    def legs(self) -> tuple[Limb, ...]:
        """Its legs, in its own order."""
        return tuple(limb for limb in self.limbs if limb.kind == "leg")

    @cached_property
    def leg_length(self) -> float:
        """The mean length of its legs from hip to ankle, in px; of its spine where it has none."""
        lengths = [sum(leg.bone_lengths) for leg in self.legs]
        return sum(lengths) / len(lengths) if lengths else max(distance(self.spine[0], self.spine[-1]), 1.0)

    @model_validator(mode="after")
    def _fits_together(self) -> Self:
        parts: list[Limb | Chain] = [*self.limbs, *self.chains]
        ids = [part.id for part in parts]
        for one in ids:
            if one in _TAKEN:
                raise ValueError(f"a limb or chain cannot have the id '{one}', which is a part of every figure; give it another")
            if ids.count(one) > 1:
                raise ValueError(f"two parts of the figure have the id '{one}'; give each its own")
        names = [part.name for part in parts]
        for name in names:
            if names.count(name) > 1:
                raise ValueError(f"two parts of the figure are called '{name}'; give each its own name")
        for bone in self.bones.values():
            if bone.name != HIPS and distance(bone.start, bone.end) < _SHORTEST:
                raise ValueError(f"the bone '{bone.label}' has no length; pull its joints apart")
        return self


def _row(word: str, label: str, joints: tuple[Point, ...]) -> list[Bone]:
    several = len(joints) > 2
    return [Bone(f"{word}.{n}", f"{label} {n}" if several else label, a, b) for n, (a, b) in enumerate(pairwise(joints), start=1)]


def distance(a: Point, b: Point) -> float:
    """How far two points lie apart, in px."""
    return float(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5)
