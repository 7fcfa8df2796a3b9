"""The objects of a scene: a class for each kind, with its channels and rules."""

from collections.abc import Collection
from functools import cached_property
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from vine_swing.motion.basics.gradients import shape_channels
from vine_swing.motion.basics.specs import (
    CAMERA_CHANNELS,
    GROUP_CHANNELS,
    INNER,
    INSET_CHANNELS,
    LOOK,
    OUTLINE,
    PICTURE_CHANNELS,
    WORDS,
    ChannelSpec,
)
from vine_swing.motion.basics.values import MAX_FRAME, Blend, Colour, Frozen, Id, Name, Text
from vine_swing.motion.figure.channels import joint_channels
from vine_swing.motion.figure.model import Figure
from vine_swing.motion.parade.channels import PARADE_CHANNELS
from vine_swing.motion.parade.model import Parade
from vine_swing.motion.rules.rule import SETTING, Rule
from vine_swing.motion.scene.channel_values import check_values
from vine_swing.motion.scene.dial import DIAL, DIAL_CHANNEL, Dial
from vine_swing.motion.scene.kept import PictureBook
from vine_swing.motion.scene.shapes import LineStyle, OutlineShape, Paints, SaidText, Shape, TextShape
from vine_swing.motion.timing.channel import Channel

WholeFrame = Annotated[int, Field(strict=True, ge=-MAX_FRAME, le=MAX_FRAME)]


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


class InsetUse(Frozen):
    """Which inner scene an object shows, and what it shows before the first and after the last frame of it.

    past: the first or last frame (`hold`), the frames again (`loop`), to and fro (`ping-pong`), or nothing (`gone`).
    """

    scene: Id
    past: Literal["hold", "loop", "ping-pong", "gone"] = "hold"


class _Object(Frozen):
    id: Id
    name: Name
    parent: Id | None = None
    #: The bone of its parent it is attached to, where that is a figure; none for the figure as a whole.
    bone: Annotated[Text, Field(max_length=80)] | None = None
    shown: bool = True
    #: Whether it, with its descendants, cannot be picked or moved in the picture.
    locked: bool = False
    #: The colour that marks it in lists, if any does.
    tag: Colour | None = None
    #: Whether it is fixed to the frame; only for objects without a parent.
    pinned: bool = False
    #: Whether its motion is blurred, where the scene's is.
    blurred: bool = True
    #: How it, with its descendants, is composited onto what lies below.
    blend: Blend = "normal"
    span: Span = WHOLE
    channels: dict[str, Channel] = Field(default_factory=dict)
    rules: Annotated[tuple[Rule, ...], Field(max_length=100)] = ()

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        """What each of this object's channels is, by name."""
        raise NotImplementedError

    @property
    def content(self) -> Shape | Figure | Parade | PictureBook | InsetUse | None:
        """What only an object of its kind has, such as its shape or its joints; None for a kind that has nothing of the sort."""
        return None

    @property
    def drawn_shape(self) -> Shape | None:
        """Its shape, if it is drawn as one."""
        return None

    @property
    def line_style(self) -> LineStyle:
        """How its line is drawn, if it has one."""
        return LineStyle()

    @property
    def painted_with(self) -> Paints:
        """What colours its fill and stroke, if it has any."""
        return Paints()

    @property
    def skeleton(self) -> Figure | None:
        """Its joints, if it is a figure."""
        return None

    @property
    def copying(self) -> Parade | None:
        """How it shows copies of its children, if it is a parade."""
        return None

    @property
    def pictured(self) -> PictureBook | None:
        """The pictures it shows, if it shows any."""
        return None

    @property
    def inset_of(self) -> InsetUse | None:
        """Which inner scene it shows, if it shows one."""
        return None

    def joints_of(self, rule: Rule) -> Collection[str]:
        """The channels that a rule for joints acts on unless told otherwise; only figures have any."""
        return ()

    def is_keyed(self, channel: str) -> bool:
        """Whether a channel has keys."""
        return channel in self.channels and bool(self.channels[channel].keys)

    def is_running(self, channel: str) -> bool:
        """Whether a channel goes on by itself where nothing keys it, as the inner frame of an inset does."""
        return channel == INNER and self.inset_of is not None and not self.is_keyed(channel)

    @cached_property
    def moving_settings(self) -> dict[str, Channel]:
        """The settings of rules that have keys or a formula, named `rule:setting`."""
        settings = ((f"{rule.id}{SETTING}{name}", one) for rule in self.rules for name, one in rule.settings.items())
        return {name: one for name, one in settings if isinstance(one, Channel) and (one.keys or one.formula is not None)}

    def rules_for(self, channel: str) -> list[Rule]:
        """The rules that act on a channel, in order, switched off or on. They act on numbers, colours or outlines; on a path by its
        x and y. A channel it does not have has none."""
        return self._acting.get(channel, []) if self.rules else []

    def rules_on(self, channel: str) -> list[Rule]:
        """The rules at work on a channel: those switched on."""
        return self._working.get(channel, []) if self.rules else []

    @cached_property
    def ruled(self) -> frozenset[str]:
        """The channels of numbers and colours on which rules are at work."""
        return frozenset(name for name, rules in self._working.items() if rules and name not in (OUTLINE, LOOK)) if self.rules else frozenset()

    @cached_property
    def _acting(self) -> dict[str, list[Rule]]:
        # Asked of the figure once, not for each of its many channels.
        joints = {rule.id: frozenset(self.joints_of(rule)) for rule in self.rules if rule.spec.joints and rule.channels == "keyed"}

        def acting(name: str, kind: str) -> list[Rule]:
            keyed = self.is_keyed(name) or (name in ("x", "y") and self.is_keyed("path"))

            def acts(rule: Rule) -> bool:
                return name in joints[rule.id] if rule.id in joints else rule.acts_on(name, keyed=keyed)

            return [rule for rule in self.rules if rule.spec.fits(kind) and acts(rule)]

        return {name: acting(name, spec.kind) for name, spec in self.specs.items()}

    @cached_property
    def _working(self) -> dict[str, list[Rule]]:
        return {name: [rule for rule in rules if rule.on] for name, rules in self._acting.items()}

    @cached_property
    def dependencies(self) -> dict[str, tuple[tuple[str, str], ...]]:
        """The channels and settings made from other channels, and from which: pairs of an object's id and a channel."""
        if not self.rules:
            return {}
        found = {f"{rule.id}{SETTING}{name}": refs for rule in self.rules for name, refs in rule.linked.items()}
        # An outline or a look is read by no other channel, so it needs no place in their order; the settings of its rules have theirs.
        names = [name for name in self.specs if name not in (OUTLINE, LOOK)]
        found |= {name: tuple(ref for rule in self.rules_on(name) for ref in rule.dependencies(self.id, name)) for name in names}
        return {name: tuple(dict.fromkeys(refs)) for name, refs in found.items() if refs}

    @model_validator(mode="after")
    def _parts_fit(self) -> Self:
        """Models are asked again for each scene that they become part of; what never changes is checked once."""
        assert self._fit
        return self

    @cached_property
    def _fit(self) -> Literal[True]:
        """That channels, keys and rules are such as this kind of object can have.

        Raises:
            ValueError: if they are not, saying what would fit.
        """
        for name, channel in self.channels.items():
            spec = self.specs.get(name)
            if spec is None:
                raise ValueError(f"'{self.name}' has no channel '{name}'; it has {', '.join(self.specs)}")
            check_values(channel, spec, f"'{self.name}', {name}")
        outline = self.channels.get(OUTLINE)
        if outline is not None and outline.keys and not isinstance(self.drawn_shape, OutlineShape):
            raise ValueError(f"the outline of '{self.name}' has keys, which only an outline can have; make an outline of it first")
        ids = [rule.id for rule in self.rules]
        if len(set(ids)) < len(ids):
            twice = next(one for one in ids if ids.count(one) > 1)
            raise ValueError(f"two rules of '{self.name}' have the id '{twice}'; give each its own")
        for rule in self.rules:
            if rule.spec.joints and self.skeleton is None:
                raise ValueError(f"rule '{rule.id}' of '{self.name}' moves joints, which only figures have; put it on a figure")
            for name in () if rule.channels == "keyed" else rule.channels:
                if name not in self.specs or not rule.spec.fits(self.specs[name].kind):
                    raise ValueError(f"rule '{rule.id}' of '{self.name}' acts on '{name}'; it can act on {self.fitting(rule)}")
        return True

    def fitting(self, rule: Rule) -> str:
        """The channels a rule can act on, as words."""
        return ", ".join(spec.name for spec in self.specs.values() if rule.spec.fits(spec.kind)) or "nothing here"


class ShapeObject(_Object):
    """Something drawn: a shape with fill and stroke."""

    kind: Literal["shape"]
    shape: Shape
    line: LineStyle = LineStyle()
    paints: Paints = Paints()

    @property
    def content(self) -> Shape:
        return self.shape

    @property
    def line_style(self) -> LineStyle:
        return self.line

    @property
    def painted_with(self) -> Paints:
        return self.paints

    @cached_property
    def drawn_shape(self) -> Shape:
        words = self.channels.get(WORDS)
        # A copy of a parade may have a text of its own, which says nothing else.
        if words is None or not words.keys or not isinstance(self.shape, TextShape) or isinstance(self.shape, SaidText):
            return self.shape
        return SaidText.of(self.shape, words.said)

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        fill, stroke = self.paints.fill, self.paints.stroke
        return shape_channels(self.shape.type, fill.stops if fill else 0, stroke.stops if stroke else 0)


class GroupObject(_Object):
    """Nothing to see itself: its children move, turn, grow and fade with it."""

    kind: Literal["group"]

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return GROUP_CHANNELS


class FigureObject(_Object):
    """A jointed character. It is drawn by the children of its bones."""

    kind: Literal["figure"]
    figure: Figure

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return GROUP_CHANNELS | joint_channels(self.figure)

    @property
    def content(self) -> Figure:
        return self.figure

    @property
    def skeleton(self) -> Figure:
        return self.figure

    def joints_of(self, rule: Rule) -> Collection[str]:
        return rule.spec.joints(self.figure, rule.word) if rule.spec.joints else ()


class ParadeObject(_Object):
    """Its children are the element, which it shows several times, spaced and delayed."""

    kind: Literal["parade"]
    parade: Parade = Parade()

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return PARADE_CHANNELS

    @property
    def content(self) -> Parade:
        return self.parade

    @property
    def copying(self) -> Parade:
        return self.parade


class PictureObject(_Object):
    """A picture, or a flipbook of several of which the channel `page` shows one."""

    kind: Literal["picture"]
    picture: PictureBook

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return PICTURE_CHANNELS

    @property
    def content(self) -> PictureBook:
        return self.picture

    @property
    def pictured(self) -> PictureBook:
        return self.picture


class InsetObject(_Object):
    """A scene inside the scene, which lies with its middle on the object's origin."""

    kind: Literal["inset"]
    inset: InsetUse

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return INSET_CHANNELS

    @property
    def content(self) -> InsetUse:
        return self.inset

    @property
    def inset_of(self) -> InsetUse:
        return self.inset


class CameraObject(_Object):
    """The camera: x and y are the centre of the view. A scene has at most one, which has no parent."""

    kind: Literal["camera"]

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return CAMERA_CHANNELS


class DialObject(_Object):
    """A dial as edits of channels see it: something with one channel. It is never part of a troupe."""

    kind: Literal["dial"] = "dial"
    dial: Dial

    @classmethod
    def of(cls, dial: Dial) -> "DialObject":
        """Return the dial with this id as an owner of channels. Nothing is checked again."""
        return cls.model_construct(id=f"{DIAL}{dial.id}", name=dial.name, channels={DIAL_CHANNEL: dial.channel}, dial=dial)

    @property
    def turned(self) -> Dial:
        """The dial with the channel this has now, checked."""
        return self.dial.checked(channel=self.channels[DIAL_CHANNEL])

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return {DIAL_CHANNEL: self.dial.spec}


SceneObject = Annotated[
    ShapeObject | GroupObject | FigureObject | ParadeObject | PictureObject | InsetObject | CameraObject, Field(discriminator="kind")
]
