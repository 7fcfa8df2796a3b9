"""The scene model, which is also the scene file format (design section 9).

Every part is frozen: an edit makes a new scene that shares all unchanged parts with the old one, so "what changed" is
answered by identity.
"""

from functools import cached_property
from typing import Annotated, Any, Literal, Self

from pydantic import Field, field_validator, model_validator

from vine_swing.motion.channel import Channel
from vine_swing.motion.rule import SETTING, Rule
from vine_swing.motion.specs import GROUP_CHANNELS, SHAPE_CHANNELS, ChannelSpec
from vine_swing.motion.values import MAX_FRAME, MAX_LENGTH, Colour, Frozen, Id, Name

MAX_OBJECTS = 5_000
WholeFrame = Annotated[int, Field(strict=True, ge=-MAX_FRAME, le=MAX_FRAME)]


class PlainShape(Frozen):
    """A shape drawn from its channels alone, about its own middle."""

    type: Literal["ellipse", "rectangle", "polygon", "star", "line"]


class OutlineShape(Frozen):
    """Any outline, as SVG path data (SVG 2, section 9.3)."""

    type: Literal["outline"]
    d: Annotated[str, Field(min_length=1, max_length=200_000)]


Shape = Annotated[PlainShape | OutlineShape, Field(discriminator="type")]


class Dial(Frozen):
    """A shared value of the scene that channels can read."""

    id: Id
    name: Name
    channel: Channel = Channel()

    @model_validator(mode="after")
    def _one_kind(self) -> Self:
        values = [key.value for key in self.channel.keys] + ([self.channel.base] if self.channel.base is not None else [])
        if any(isinstance(value, tuple) for value in values):
            raise ValueError(f"dial '{self.name}' has a point; a dial holds a number or a colour")
        if len({isinstance(value, str) for value in values}) > 1:
            raise ValueError(f"dial '{self.name}' has both numbers and colours; let all its values be of one kind")
        return self


class Span(Frozen):
    """The first and the last frame an object is shown at; None where that is the scene's own."""

    first: WholeFrame | None = None
    last: WholeFrame | None = None

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.first is not None and self.last is not None and self.last < self.first:
            raise ValueError(f"the last frame, {self.last}, lies before the first, {self.first}; swap them")
        return self

    def within(self, length: int) -> tuple[int, int]:
        """Both frames, for a scene of `length` frames."""
        return 0 if self.first is None else self.first, length - 1 if self.last is None else self.last


WHOLE = Span()


class _Object(Frozen):
    id: Id
    name: Name
    parent: Id | None = None
    shown: bool = True
    span: Span = WHOLE
    channels: dict[str, Channel] = Field(default_factory=dict)
    rules: Annotated[tuple[Rule, ...], Field(max_length=100)] = ()

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        """What each of this object's channels is, by name."""
        raise NotImplementedError

    def is_keyed(self, channel: str) -> bool:
        """Whether a channel has keys."""
        return channel in self.channels and bool(self.channels[channel].keys)

    @cached_property
    def keyed_settings(self) -> dict[str, Channel]:
        """The settings of rules that have keys, named `rule:setting`."""
        settings = ((f"{rule.id}{SETTING}{name}", one) for rule in self.rules for name, one in rule.settings.items())
        return {name: one for name, one in settings if isinstance(one, Channel) and one.keys}

    def rules_for(self, channel: str) -> list[Rule]:
        """The rules that act on a channel, in order, switched off or on. They act on numbers; on a path by its x and y."""
        if not self.rules or self.specs[channel].kind != "number":
            return []
        keyed = self.is_keyed(channel) or (channel in ("x", "y") and self.is_keyed("path"))
        return [rule for rule in self.rules if rule.acts_on(channel, keyed=keyed)]

    def rules_on(self, channel: str) -> list[Rule]:
        """The rules at work on a channel: those switched on."""
        return [rule for rule in self.rules_for(channel) if rule.on]

    @cached_property
    def looks(self) -> dict[str, tuple[tuple[str, str], ...]]:
        """The channels whose rules look at other channels, and at which: pairs of an object's id and a channel."""
        if not self.rules:
            return {}
        found = {name: tuple(ref for rule in self.rules_on(name) for ref in rule.looks(self.id, name)) for name in self.specs}
        return {name: tuple(dict.fromkeys(refs)) for name, refs in found.items() if refs}

    @model_validator(mode="after")
    def _channels_fit(self) -> Self:
        for name, channel in self.channels.items():
            spec = self.specs.get(name)
            if spec is None:
                raise ValueError(f"'{self.name}' has no channel '{name}'; it has {', '.join(self.specs)}")
            check_values(channel, spec, f"'{self.name}', {name}")
        for rule in self.rules:
            for name in () if rule.channels == "keyed" else rule.channels:
                if name not in self.specs or self.specs[name].kind != "number":
                    numbers = ", ".join(spec.name for spec in self.specs.values() if spec.kind == "number")
                    raise ValueError(f"rule '{rule.id}' of '{self.name}' acts on '{name}'; it can act on {numbers}")
        return self


class ShapeObject(_Object):
    """Something drawn: a shape with fill and stroke."""

    kind: Literal["shape"]
    shape: Shape

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return SHAPE_CHANNELS[self.shape.type]


class GroupObject(_Object):
    """Nothing to see itself: its children move, turn, grow and fade with it."""

    kind: Literal["group"]

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return GROUP_CHANNELS


SceneObject = Annotated[ShapeObject | GroupObject, Field(discriminator="kind")]


class Scene(Frozen):
    """One timeline with a picture size, fps and length; objects in drawing order, the first at the back."""

    format: Literal["vine-swing-scene"] = "vine-swing-scene"
    version: Literal[1] = 1
    name: Name = "Untitled scene"
    fps: Annotated[float, Field(strict=True, ge=1, le=240)] = 24.0
    length: Annotated[int, Field(strict=True, ge=1, le=MAX_LENGTH)] = 120
    size: tuple[Annotated[int, Field(strict=True, ge=1, le=8192)], Annotated[int, Field(strict=True, ge=1, le=8192)]] = (1280, 720)
    background: Colour = "#F7F2E7"
    dials: Annotated[tuple[Dial, ...], Field(max_length=500)] = ()
    objects: Annotated[tuple[SceneObject, ...], Field(max_length=MAX_OBJECTS)] = ()

    @field_validator("size", mode="before")
    @classmethod
    def _size_from_json(cls, size: Any) -> Any:
        return tuple(size) if isinstance(size, list) else size

    @model_validator(mode="after")
    def _objects_fit(self) -> Self:
        names: dict[str, str] = {}
        for thing in self.objects:
            if thing.id in names:
                raise ValueError(f"two objects have the id '{thing.id}'; every id must be its own")
            if thing.name in names.values():
                raise ValueError(f"two objects are called '{thing.name}'; give each its own name")
            names[thing.id] = thing.name
        for thing in self.objects:
            if thing.parent is not None and thing.parent not in names:
                raise ValueError(f"'{thing.name}' has the parent '{thing.parent}', which is no object of this scene")
        check_parents(self.objects)
        if len({dial.id for dial in self.dials}) < len(self.dials) or len({dial.name for dial in self.dials}) < len(self.dials):
            raise ValueError("two dials share an id or a name; give each its own")
        return self

    @cached_property
    def by_name(self) -> dict[str, SceneObject]:
        """The objects by name, in drawing order."""
        return {thing.name: thing for thing in self.objects}

    @cached_property
    def by_id(self) -> dict[str, SceneObject]:
        """The objects by id, in drawing order."""
        return {thing.id: thing for thing in self.objects}


_KINDS: dict[str, tuple[str, Any]] = {
    "number": ("a number", int | float),
    "colour": ("a colour such as '#F2932B'", str),
    "point": ("a point such as [640, 360]", tuple),
}


def check_values(channel: Channel, spec: ChannelSpec, where: str) -> None:
    """Refuse a number where a colour belongs, a point where a number belongs, and so on.

    Raises:
        ValueError: naming `where`, the value and what would fit.
    """
    wanted, kind = _KINDS[spec.kind]
    values = [(f"key at frame {key.frame:g}", key.value) for key in channel.keys]
    if channel.base is not None:
        if spec.kind == "point":
            raise ValueError(f"{where}: a path has no base; without keys, x and y say where the object is")
        values.append(("base", channel.base))
    for key in channel.keys:
        if spec.kind == "colour" and (key.out is not None or key.into is not None):
            raise ValueError(f"{where}: the key at frame {key.frame:g} has handles, which colours cannot have; use spline or an ease")
        if spec.kind != "point" and key.way is not None:
            raise ValueError(f"{where}: the key at frame {key.frame:g} has a way, which only keys of a path can have; take it out")
    for what, value in values:
        if not isinstance(value, kind):
            raise ValueError(f"{where}: the {what} is {value!r}; it must be {wanted}")


def check_parents(objects: tuple[SceneObject, ...]) -> None:
    """Refuse parents that form a ring.

    Raises:
        ValueError: naming every object of the ring.
    """
    parents = {thing.id: thing.parent for thing in objects}
    names = {thing.id: thing.name for thing in objects}
    safe: set[str] = set()
    for start in parents:
        chain: list[str] = []
        at: str | None = start
        while at is not None and at not in safe:
            if at in chain:
                ring = [*chain[chain.index(at) :], at]
                raise ValueError(f"parents form a ring: {' → '.join(names[i] for i in ring)}; let one of them go")
            chain.append(at)
            at = parents[at]
        safe.update(chain)
