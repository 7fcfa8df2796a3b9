"""The scene model, which is also the scene file format (design section 9).

Every part is frozen: an edit makes a new scene that shares all unchanged parts with the old one, so "what changed" is
answered by identity.
"""

import base64
from collections.abc import Collection, Iterator, Mapping
from functools import cached_property
from typing import Annotated, Any, Literal, Self, TypeVar

from pydantic import Field, field_validator, model_validator

from vine_swing.motion.basics.contents import FONT_FILES, PICTURE_FILES
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.specs import (
    CAMERA_CHANNELS,
    GROUP_CHANNELS,
    INNER,
    INSET_CHANNELS,
    OUTLINE,
    PICTURE_CHANNELS,
    SHAPE_CHANNELS,
    ChannelSpec,
    Unit,
)
from vine_swing.motion.basics.values import MAX_FRAME, MAX_LENGTH, MAX_PATH_DATA, Blend, Colour, Frozen, Id, Name, Number, Point, Text
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.figure.channels import joint_channels
from vine_swing.motion.figure.model import Figure
from vine_swing.motion.parade.channels import PARADE_CHANNELS
from vine_swing.motion.parade.model import ITEM, Parade, fault_of
from vine_swing.motion.rules.rule import SETTING, Rule
from vine_swing.motion.timing.channel import Channel

MAX_OBJECTS = 5_000
#: Places that a hand went, kept with what was drawn through them.
MAX_HAND = 5_000
#: Pictures kept with one scene, and the characters that one takes as base64: sixty megabytes.
MAX_PICTURES, MAX_PICTURE_DATA = 2_000, 80_000_000
#: Inner scenes of one scene, and how many insets may stand in one another.
MAX_INSETS, MAX_NESTED = 200, 8
#: Keys of one outline.
MAX_OUTLINE_KEYS = 2_000
#: Colours of the palette of a scene.
MAX_PALETTE = 64
#: Font files kept with one scene, and the characters that one takes as base64: six megabytes.
MAX_FONTS, MAX_FONT_DATA = 20, 8_000_000
#: Characters of one text.
MAX_TEXT = 2_000
WholeFrame = Annotated[int, Field(strict=True, ge=-MAX_FRAME, le=MAX_FRAME)]


class PlainShape(Frozen):
    """A shape drawn from its channels alone, about its own middle."""

    type: Literal["ellipse", "rectangle", "polygon", "star", "line"]


class Hand(Frozen):
    """The places a hand went that an outline was fitted through, in px, and how far from them the outline may stray."""

    places: Annotated[tuple[Point, ...], Field(min_length=2, max_length=MAX_HAND)]
    tolerance: Annotated[float, Field(strict=True, ge=0.01, le=200)] = 2.0
    closed: bool = False

    @field_validator("places", mode="before")
    @classmethod
    def _places_from_json(cls, places: Any) -> Any:
        return tuple(tuple(one) if isinstance(one, list) else one for one in places) if isinstance(places, list) else places


class OutlineShape(Frozen):
    """Any outline, as SVG path data (SVG 2, section 9.3).

    fill_rule: what is inside where lines cross, as SVG and CSS call it. hand: of one that was drawn freely and not changed since, where the hand
    went.
    """

    type: Literal["outline"]
    d: Annotated[Text, Field(min_length=1, max_length=MAX_PATH_DATA)]
    fill_rule: Literal["nonzero", "evenodd"] = "nonzero"
    hand: Hand | None = None


class TextShape(Frozen):
    """A text set in a font. `{number}` in it shows the channel `number`.

    font: the name of a family. weight: 400 for regular, 700 for bold, as CSS counts. wrap: how wide lines may be, in px; None for any width.
    """

    type: Literal["text"]
    text: Annotated[Text, Field(max_length=MAX_TEXT)]
    font: Id = "figtree"
    weight: Annotated[int, Field(strict=True, ge=1, le=1000)] = 400
    align: Literal["left", "middle", "right"] = "middle"
    wrap: Annotated[float, Field(strict=True, ge=1, le=100_000)] | None = None


#: How lines end and go round corners, as SVG 2 calls it (stroke-linecap, stroke-linejoin).
Cap = Literal["round", "butt", "square"]
Join = Literal["round", "miter", "bevel"]


class LineStyle(Frozen):
    """How the line of a shape is drawn. dash: the lengths of dashes and gaps in turn, px; none for a whole line."""

    cap: Cap = "round"
    join: Join = "round"
    dash: Annotated[tuple[Annotated[float, Field(strict=True, ge=0, le=10_000)], ...], Field(max_length=8)] = ()

    @field_validator("dash", mode="before")
    @classmethod
    def _dash_from_json(cls, dash: Any) -> Any:
        return tuple(dash) if isinstance(dash, list) else dash

    @model_validator(mode="after")
    def _some_length(self) -> Self:
        if self.dash and sum(self.dash) < 0.1:
            raise ValueError("dashes and gaps of no length cannot be drawn; give one of them some px, or take them out")
        return self


Shape = Annotated[PlainShape | OutlineShape | TextShape, Field(discriminator="type")]


class OwnFont(Frozen):
    """A font file that somebody brought along, kept with the scene: TrueType or OpenType.

    id: `file-` and the first sixteen digits of the SHA-256 of its content. licence: a note of what allows its use. data: the file, in base64.
    """

    id: Annotated[str, Field(pattern=r"^file-[0-9a-f]{16}$")]
    name: Name
    licence: Annotated[Text, Field(min_length=1, max_length=20_000)]
    data: Annotated[str, Field(max_length=MAX_FONT_DATA)]

    @cached_property
    def content(self) -> bytes:
        """The file itself."""
        return base64.b64decode(self.data, validate=True)

    @model_validator(mode="after")
    def _is_what_its_id_says(self) -> Self:
        try:
            content = self.content
        except ValueError as error:
            raise ValueError(f"the data of the font '{self.name}' is no base64; keep the file again") from error
        if FONT_FILES.keep(content) != self.id:
            raise ValueError(f"the font '{self.name}' has the id '{self.id}', but its content is that of '{FONT_FILES.id_of(content)}'")
        return self


PictureId = Annotated[str, Field(pattern=r"^picture-[0-9a-f]{16}$")]


class KeptPicture(Frozen):
    """A picture that somebody brought along, kept with the scene: PNG, JPEG or WebP, of a size in px.

    id: `picture-` and the first sixteen digits of the SHA-256 of its content. data: the file, in base64; only in files, as the program looks
    contents up by their ids.
    """

    id: PictureId
    name: Name
    width: Annotated[int, Field(strict=True, ge=1, le=40_000)]
    height: Annotated[int, Field(strict=True, ge=1, le=40_000)]
    data: Annotated[str | None, Field(max_length=MAX_PICTURE_DATA)] = None

    @property
    def content(self) -> bytes:
        """The file itself."""
        return PICTURE_FILES.data_of(self.id)

    @model_validator(mode="before")
    @classmethod
    def _content_kept(cls, given: Any) -> Any:
        """What a file holds of a picture's content goes where contents are looked up."""
        if not isinstance(given, dict) or not isinstance(given.get("data"), str):
            return given
        name, said = given.get("name"), given.get("id")
        try:
            content = base64.b64decode(given["data"], validate=True)
        except ValueError as error:
            raise ValueError(f"the data of the picture '{name}' is no base64; keep the file again") from error
        if PICTURE_FILES.keep(content) != said:
            raise ValueError(f"the picture '{name}' has the id '{said}', but its content is that of '{PICTURE_FILES.id_of(content)}'")
        return given | {"data": None}

    @model_validator(mode="after")
    def _has_content(self) -> Self:
        if not PICTURE_FILES.has(self.id):
            raise ValueError(f"the picture '{self.name}' has no content; bring the file in again")
        return self


class PictureBook(Frozen):
    """Which pictures an object shows, one at a time, and how.

    pictures: their ids, in the order of the pages.
    fit: whether a page lies inside the box or covers it, with its own proportions, or is stretched to fill it. What covers it is cropped.
    tile: whether the page, stretched over the box, is repeated beside itself for ever: across, down, or both ways.
    smooth: whether pixels are blended where they are larger or smaller than the picture's own.
    """

    pictures: Annotated[tuple[PictureId, ...], Field(min_length=1, max_length=MAX_PICTURES)]
    fit: Literal["inside", "cover", "stretch"] = "inside"
    tile: Literal["none", "across", "down", "both"] = "none"
    smooth: bool = True


class InsetUse(Frozen):
    """Which inner scene an object shows, and what it shows before the first and after the last frame of it.

    past: the first or last frame (`hold`), the frames again (`loop`), to and fro (`ping-pong`), or nothing (`gone`).
    """

    scene: Id
    past: Literal["hold", "loop", "ping-pong", "gone"] = "hold"


#: In place of an object's id: what follows is the id of a dial.
DIAL = "dial:"
#: The one channel of a dial.
DIAL_CHANNEL = "value"


class Dial(Frozen):
    """A shared value of the scene that channels and settings of rules can read: a number, or a colour if its values are colours.

    `low` and `high` are its range, where it has one: values lie within it, and eases that leave it are cut off there.
    """

    id: Id
    name: Name
    unit: Literal["", "%", "px", "°"] = ""
    low: Number | None = None
    high: Number | None = None
    channel: Channel = Channel()

    @property
    def is_colour(self) -> bool:
        """Whether it holds colours."""
        return isinstance(self.channel.keys[0].value if self.channel.keys else self.channel.base, str)

    @cached_property
    def spec(self) -> ChannelSpec:
        """What its value is, as a channel."""
        ranged = self.low is not None and self.high is not None
        span = (self.high or 0.0) - (self.low or 0.0) if ranged else 0.0
        step = 0.01 if self.unit == "%" or 0 < span <= 5 else 0.1 if 0 < span <= 50 else 1.0
        unit: Unit = "colour" if self.is_colour else self.unit
        default: float | str = "#FFFFFF" if self.is_colour else float(self.low or 0.0)
        return ChannelSpec(DIAL_CHANNEL, "value", "Value", "look", unit, default, self.low, self.high, step, "What all that reads this dial gets.")

    @model_validator(mode="after")
    def _one_kind(self) -> Self:
        values = [key.value for key in self.channel.keys] + ([self.channel.base] if self.channel.base is not None else [])
        if any(isinstance(value, tuple) for value in values):
            raise ValueError(f"dial '{self.name}' has a point; a dial holds a number or a colour")
        if len({isinstance(value, str) for value in values}) > 1:
            raise ValueError(f"dial '{self.name}' has both numbers and colours; let all its values be of one kind")
        if self.low is not None and self.high is not None and not self.low < self.high:
            raise ValueError(f"dial '{self.name}' goes from {self.low:g} to {self.high:g}; its lower limit must lie below its upper one")
        if self.channel.formula is not None:
            raise ValueError(f"dial '{self.name}' has a formula, which dials do not take; let what reads it have the formula")
        for value in values:
            if isinstance(value, int | float) and self._beyond(value):
                raise ValueError(f"dial '{self.name}' has the value {value:g}; its range is {self.range_words}")
        return self

    def _beyond(self, value: float) -> bool:
        return (self.low is not None and value < self.low) or (self.high is not None and value > self.high)

    @property
    def range_words(self) -> str:
        """Its range in words."""
        if self.low is not None and self.high is not None:
            return f"{self.low:g} to {self.high:g}"
        return f"{self.low:g} or more" if self.low is not None else f"{self.high:g} or less" if self.high is not None else "any number"


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
    #: The bone of its parent it hangs on, where that is a figure; none for the figure as a whole.
    bone: Annotated[Text, Field(max_length=80)] | None = None
    shown: bool = True
    #: Whether it keeps to the picture wherever the camera looks; of what hangs on nothing.
    pinned: bool = False
    #: Whether its motion is blurred, where the scene's is.
    blurred: bool = True
    #: How it, with all that hangs on it, is laid onto what lies below.
    blend: Blend = "normal"
    span: Span = WHOLE
    channels: dict[str, Channel] = Field(default_factory=dict)
    rules: Annotated[tuple[Rule, ...], Field(max_length=100)] = ()

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        """What each of this object's channels is, by name."""
        raise NotImplementedError

    @property
    def content(self) -> "Shape | Figure | Parade | PictureBook | InsetUse | None":
        """What only an object of its kind has, such as its shape or its joints; None for a kind that has nothing of the sort."""
        return None

    @property
    def drawn_shape(self) -> "Shape | None":
        """Its shape, if it is drawn as one."""
        return None

    @property
    def line_style(self) -> "LineStyle":
        """How its line is drawn, if it has one."""
        return LineStyle()

    @property
    def skeleton(self) -> Figure | None:
        """Its joints, if it is a figure."""
        return None

    @property
    def copying(self) -> Parade | None:
        """How it shows copies of what hangs on it, if it is a parade."""
        return None

    @property
    def pictured(self) -> "PictureBook | None":
        """The pictures it shows, if it shows any."""
        return None

    @property
    def inset_of(self) -> "InsetUse | None":
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
        return frozenset(name for name, rules in self._working.items() if rules and name != OUTLINE) if self.rules else frozenset()

    @cached_property
    def _acting(self) -> dict[str, list[Rule]]:
        def acting(name: str, kind: str) -> list[Rule]:
            keyed = self.is_keyed(name) or (name in ("x", "y") and self.is_keyed("path"))

            def acts(rule: Rule) -> bool:
                return name in self.joints_of(rule) if rule.spec.joints and rule.channels == "keyed" else rule.acts_on(name, keyed=keyed)

            return [rule for rule in self.rules if rule.spec.fits(kind) and acts(rule)]

        return {name: acting(name, spec.kind) for name, spec in self.specs.items()}

    @cached_property
    def _working(self) -> dict[str, list[Rule]]:
        return {name: [rule for rule in rules if rule.on] for name, rules in self._acting.items()}

    @cached_property
    def looks(self) -> dict[str, tuple[tuple[str, str], ...]]:
        """The channels and settings made from other channels, and from which: pairs of an object's id and a channel."""
        if not self.rules:
            return {}
        found = {f"{rule.id}{SETTING}{name}": refs for rule in self.rules for name, refs in rule.linked.items()}
        # An outline is read by no other channel, so it needs no place in their order; the settings of its rules have theirs.
        found |= {name: tuple(ref for rule in self.rules_on(name) for ref in rule.looks(self.id, name)) for name in self.specs if name != OUTLINE}
        return {name: tuple(dict.fromkeys(refs)) for name, refs in found.items() if refs}

    @model_validator(mode="after")
    def _channels_fit(self) -> Self:
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
        return self

    def fitting(self, rule: Rule) -> str:
        """The channels a rule can act on, as words."""
        return ", ".join(spec.name for spec in self.specs.values() if rule.spec.fits(spec.kind)) or "nothing here"


class ShapeObject(_Object):
    """Something drawn: a shape with fill and stroke."""

    kind: Literal["shape"]
    shape: Shape
    line: LineStyle = LineStyle()

    @property
    def content(self) -> "Shape":
        return self.shape

    @property
    def line_style(self) -> LineStyle:
        return self.line

    @property
    def drawn_shape(self) -> "Shape":
        return self.shape

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return SHAPE_CHANNELS[self.shape.type]


class GroupObject(_Object):
    """Nothing to see itself: its children move, turn, grow and fade with it."""

    kind: Literal["group"]

    @cached_property
    def specs(self) -> dict[str, ChannelSpec]:
        return GROUP_CHANNELS


class FigureObject(_Object):
    """A jointed character. It is drawn by what hangs on its bones."""

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
    """What hangs on it is the element; it shows that many times, spaced and delayed."""

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
    """What the picture is seen through: x and y are the middle of what is seen. A scene has at most one, which hangs on nothing."""

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
        """The dial with this id, as something that has channels. Nothing is checked again."""
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
MAX_CUES = 200


class Cue(Frozen):
    """A stretch of the timeline that a key press or a click starts while the picture waits.

    first, last: the stretch, in frames, both shown.
    objects: the ids of those it moves; what hangs on them goes along.
    key: the key that starts it, as W3C UI Events names keys, in small letters; None for none.
    click: the id of the object on which a click starts it; None for none.
    plays: "once"; "loop", until it is started again; "held", as long as the key is held down. The last two end with the round they are in.
    """

    id: Id
    name: Name
    first: WholeFrame
    last: WholeFrame
    objects: Annotated[tuple[Id, ...], Field(max_length=MAX_OBJECTS)] = ()
    key: Annotated[str, Field(pattern=r"^(?:[^\s\x00-\x1f\x7fA-Z]|space|enter|arrowup|arrowdown|arrowleft|arrowright)$")] | None = None
    click: Id | None = None
    plays: Literal["once", "loop", "held"] = "once"

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.last < self.first:
            raise ValueError(f"cue '{self.name}' ends at frame {self.last}, before it begins at {self.first}; swap them")
        return self


class MotionBlur(Frozen):
    """What moves is smeared as by an open shutter: each frame is the mean of `samples` moments spread evenly over `shutter`/360 of a frame."""

    samples: Annotated[int, Field(strict=True, ge=2, le=64)] = 16
    shutter: Annotated[float, Field(strict=True, gt=0, le=720)] = 180.0


class Timeline(Frozen):
    """What every scene has, inside another or by itself: a picture size, fps and length; objects in drawing order, the first at the back."""

    name: Name = "Untitled scene"
    fps: Annotated[float, Field(strict=True, ge=1, le=240)] = 24.0
    length: Annotated[int, Field(strict=True, ge=1, le=MAX_LENGTH)] = 120
    size: tuple[Annotated[int, Field(strict=True, ge=1, le=8192)], Annotated[int, Field(strict=True, ge=1, le=8192)]] = (1280, 720)
    background: Colour = "#F7F2E7"
    blur: MotionBlur | None = None
    dials: Annotated[tuple[Dial, ...], Field(max_length=500)] = ()
    objects: Annotated[tuple[SceneObject, ...], Field(max_length=MAX_OBJECTS)] = ()
    cues: Annotated[tuple[Cue, ...], Field(max_length=MAX_CUES)] = ()

    @field_validator("size", mode="before")
    @classmethod
    def _size_from_json(cls, size: Any) -> Any:
        return tuple(size) if isinstance(size, list) else size

    @model_validator(mode="after")
    def _objects_fit(self) -> Self:
        by_id: dict[str, SceneObject] = {}
        names: set[str] = set()
        for thing in self.objects:
            if thing.id in by_id:
                raise ValueError(f"two objects have the id '{thing.id}'; every id must be its own")
            if thing.name in names:
                raise ValueError(f"two objects are called '{thing.name}'; give each its own name")
            by_id[thing.id] = thing
            names.add(thing.name)
        for thing in self.objects:
            if thing.parent is not None and thing.parent not in by_id:
                raise ValueError(f"'{thing.name}' has the parent '{thing.parent}', which is no object of this scene")
            if thing.bone is not None:
                check_bone(thing, by_id.get(thing.parent or ""))
            if thing.copying is not None:
                check_lists(thing.name, thing.copying, by_id)
        check_parents(self.objects)
        check_camera(self.objects)
        if len({dial.id for dial in self.dials}) < len(self.dials) or len({dial.name for dial in self.dials}) < len(self.dials):
            raise ValueError("two dials share an id or a name; give each its own")
        check_cues(self.cues, by_id)
        return self


class InnerScene(Timeline):
    """A scene that insets show. Its fonts, pictures and inner scenes are kept with the scene it is inside of; its background is not painted
    where it is shown."""

    id: Id


class Scene(Timeline):
    """One timeline, with all that is kept for it: fonts, pictures, colours, and the scenes inside it."""

    format: Literal["vine-swing-scene"] = "vine-swing-scene"
    version: Literal[1] = 1
    fonts: Annotated[tuple[OwnFont, ...], Field(max_length=MAX_FONTS)] = ()
    pictures: Annotated[tuple[KeptPicture, ...], Field(max_length=MAX_PICTURES)] = ()
    palette: Annotated[tuple[Colour, ...], Field(max_length=MAX_PALETTE)] = ()
    insets: Annotated[tuple[InnerScene, ...], Field(max_length=MAX_INSETS)] = ()

    @model_validator(mode="after")
    def _kept_once(self) -> Self:
        if len({font.id for font in self.fonts}) < len(self.fonts):
            raise ValueError("a font file is kept twice; keep it once")
        if len(self.pictures_by_id) < len(self.pictures):
            raise ValueError("a picture is kept twice; keep it once")
        check_insets(self, self.insets)
        parts: tuple[Timeline, ...] = (self, *self.insets)
        for part in parts:
            for thing in part.objects:
                gone = [one for one in thing.pictured.pictures if one not in self.pictures_by_id] if thing.pictured is not None else []
                if gone:
                    raise ValueError(f"'{thing.name}' shows the picture '{gone[0]}', which is not kept with this scene")
        return self

    @cached_property
    def camera(self) -> "CameraObject | None":
        """Its camera, if it has one."""
        return next((thing for thing in self.objects if isinstance(thing, CameraObject)), None)

    @cached_property
    def by_name(self) -> dict[str, SceneObject]:
        """The objects by name, in drawing order."""
        return {thing.name: thing for thing in self.objects}

    @cached_property
    def dials_by_id(self) -> dict[str, Dial]:
        """The dials by `dial:` and their id."""
        return {f"{DIAL}{dial.id}": dial for dial in self.dials}

    @cached_property
    def dials_by_name(self) -> dict[str, Dial]:
        """The dials by name."""
        return {dial.name: dial for dial in self.dials}

    @cached_property
    def pictures_by_id(self) -> dict[str, KeptPicture]:
        """The pictures by id."""
        return {one.id: one for one in self.pictures}

    @cached_property
    def insets_by_id(self) -> dict[str, InnerScene]:
        """The inner scenes by id."""
        return {one.id: one for one in self.insets}

    def entered(self, inset_id: str) -> "Scene":
        """An inner scene as a scene of its own, with the fonts, pictures, colours and inner scenes of this one."""
        inner = self.insets_by_id[inset_id]
        return self.but(**{name: getattr(inner, name) for name in Timeline.model_fields})

    def left(self, inset_id: str, entered: "Scene") -> "Scene":
        """This scene after an inner one of it, as `entered` gives it, was changed into `entered`."""
        inner = InnerScene.model_construct(id=inset_id, **{name: getattr(entered, name) for name in Timeline.model_fields})
        before = self.insets_by_id[inset_id]
        same = all(getattr(inner, name) is getattr(before, name) for name in Timeline.model_fields)
        insets = tuple((before if same else inner) if one.id == inset_id else one for one in entered.insets)
        # What was let go inside may be in use outside.
        fonts, pictures = (_with_used(getattr(entered, name), getattr(self, name), self._used()) for name in ("fonts", "pictures"))
        return self.but(fonts=fonts, pictures=pictures, palette=entered.palette, insets=_with_used(insets, self.insets, {inset_id, *self._used()}))

    def _used(self) -> set[str]:
        """The ids of the fonts, pictures and inner scenes that objects of this scene use themselves, and of what the inner scenes among them show."""
        used: set[str] = set()
        waiting: list[Timeline] = [self]
        while waiting:
            part = waiting.pop()
            for thing in part.objects:
                used |= set(thing.pictured.pictures) if thing.pictured is not None else set()
                used |= {thing.drawn_shape.font} if isinstance(thing.drawn_shape, TextShape) else set()
            shown = [one for one in insets_shown(part) if one not in used]
            used.update(shown)
            waiting += [self.insets_by_id[one] for one in shown]
        return used

    @cached_property
    def by_id(self) -> dict[str, SceneObject]:
        """The objects by id, in drawing order."""
        return {thing.id: thing for thing in self.objects}

    @cached_property
    def children(self) -> dict[str, list[str]]:
        """The ids of what hangs directly on each object, in drawing order; only of objects on which something hangs."""
        found: dict[str, list[str]] = {}
        for thing in self.objects:
            if thing.parent is not None:
                found.setdefault(thing.parent, []).append(thing.id)
        return found

    def upwards(self, object_id: str | None) -> Iterator[SceneObject]:
        """An object, what it hangs on, what that hangs on, and so on; nothing for None."""
        while object_id is not None:
            thing = self.by_id[object_id]
            yield thing
            object_id = thing.parent

    @cached_property
    def _places(self) -> dict[str, int]:
        """Where each object stands in the drawing order."""
        return {thing.id: place for place, thing in enumerate(self.objects)}

    def with_object(self, changed: SceneObject) -> Self:
        """The scene with the object of this id replaced. Its tables by id go along, so that many edits at once cost in line with their number."""
        place = self._places[changed.id]
        scene = self.but(objects=(*self.objects[:place], changed, *self.objects[place + 1 :]))
        scene.__dict__["_places"] = self._places
        scene.__dict__["by_id"] = {**self.by_id, changed.id: changed}
        if self.objects[place].name == changed.name:
            scene.__dict__["names"] = self.names
        return scene

    def with_added(self, added: SceneObject, place: int) -> Self:
        """The scene with one more object at a place of the drawing order."""
        scene = self.but(objects=(*self.objects[:place], added, *self.objects[place:]))
        if place >= len(self.objects):
            scene.__dict__["by_id"] = {**self.by_id, added.id: added}
            scene.__dict__["_places"] = {**self._places, added.id: len(self.objects)}
        scene.__dict__["names"] = self.names | {added.name}
        return scene

    @cached_property
    def names(self) -> frozenset[str]:
        """The names of all objects."""
        return frozenset(thing.name for thing in self.objects)


_Kept = TypeVar("_Kept", OwnFont, KeptPicture, InnerScene)


def _with_used(now: tuple[_Kept, ...], before: tuple[_Kept, ...], used: Collection[str]) -> tuple[_Kept, ...]:
    """What is kept now, and of what was kept before what is in use."""
    there = {one.id for one in now}
    return now + tuple(one for one in before if one.id not in there and one.id in used)


_KINDS: dict[str, tuple[str, Any]] = {
    "number": ("a number", int | float),
    "colour": ("a colour such as '#F2932B'", str),
    "point": ("a point such as [640, 360]", tuple),
    "outline": ("SVG path data such as 'M 0 0 L 40 0 L 20 30 Z'", str),
}


def check_values(channel: Channel, spec: ChannelSpec, where: str) -> None:
    """Refuse a number where a colour belongs, a point where a number belongs, and so on.

    Raises:
        ValueError: naming `where`, the value and what would fit.
    """
    if channel.formula is not None and SETTING not in spec.name:
        raise ValueError(f"{where}: a formula stands in a link rule here; only settings of rules have one of their own")
    wanted, kind = _KINDS[spec.kind]
    values = [(f"key at frame {key.frame:g}", key.value) for key in channel.keys]
    if channel.base is not None:
        if spec.kind == "point":
            raise ValueError(f"{where}: a path has no base; without keys, x and y say where the object is")
        if spec.kind == "outline":
            raise ValueError(f"{where}: an outline has no base; without keys, the shape says what it is")
        values.append(("base", channel.base))
    if spec.kind == "outline":
        _check_outlines(channel, where)
    for key in channel.keys:
        if spec.kind in ("colour", "outline") and (key.out is not None or key.into is not None):
            raise ValueError(f"{where}: the key at frame {key.frame:g} has handles, which {spec.kind}s cannot have; use spline or an ease")
        if spec.kind != "outline" and key.meets is not None:
            raise ValueError(f"{where}: the key at frame {key.frame:g} says which point it meets, which only keys of an outline can; take it out")
        if spec.kind != "point" and key.way is not None:
            raise ValueError(f"{where}: the key at frame {key.frame:g} has a way, which only keys of a path can have; take it out")
    for what, value in values:
        if not isinstance(value, kind) or (isinstance(value, str) and value.startswith("#") != (spec.kind == "colour")):
            raise ValueError(f"{where}: the {what} is {value!r}; it must be {wanted}")


def _check_outlines(channel: Channel, where: str) -> None:
    if len(channel.keys) > MAX_OUTLINE_KEYS:
        raise ValueError(f"{where}: there are {len(channel.keys)} keys; an outline has at most {MAX_OUTLINE_KEYS}")
    for key in channel.keys:
        if isinstance(key.value, str) and not key.value.startswith("#"):
            try:
                parse_path(key.value)
            except MotionError as error:
                raise ValueError(f"{where}: the key at frame {key.frame:g}: {error}") from error


def check_lists(name: str, parade: Parade, objects: Mapping[str, "SceneObject"]) -> None:
    """Refuse lists with values that the channel they are for cannot have. What they are for may be gone; then they wait.

    Raises:
        ValueError: naming the parade, the channel and the row.
    """
    for one in parade.lists:
        thing = objects.get(one.object or "")
        kind = "number" if one.channel == ITEM else thing.specs[one.channel].kind if thing is not None and one.channel in thing.specs else None
        if kind is None:
            continue
        for row, value in enumerate(one.values):
            if fault := fault_of(value, kind):
                raise ValueError(f"'{name}', list for {thing.name + ' ' if thing is not None else ''}{one.channel}, row {row + 1}: {fault}")
    for overrule in parade.overrules:
        thing = objects.get(overrule.object)
        if thing is not None and overrule.channel in thing.specs and (fault := fault_of(overrule.value, thing.specs[overrule.channel].kind)):
            raise ValueError(f"'{name}', copy {overrule.copy_ + 1}, {thing.name} {overrule.channel}: {fault}")


def check_cues(cues: tuple[Cue, ...], objects: Collection[str]) -> None:
    """Refuse cues that share an id, or that name objects that are not there; `objects` are the ids of those that are.

    Raises:
        ValueError: naming the cue and the object.
    """
    if len({cue.id for cue in cues}) < len(cues):
        raise ValueError("two cues share an id; give each its own")
    for cue in cues:
        for object_id in (*cue.objects, *((cue.click,) if cue.click is not None else ())):
            if object_id not in objects:
                raise ValueError(f"cue '{cue.name}' names '{object_id}', which is no object of this scene")


def insets_shown(part: Timeline) -> list[str]:
    """The ids of the inner scenes that a scene, or an inner one, shows, each once."""
    return list(dict.fromkeys(thing.inset_of.scene for thing in part.objects if thing.inset_of is not None))


def check_insets(scene: Timeline, insets: tuple[InnerScene, ...]) -> None:
    """Refuse inner scenes that share an id, are not there, show each other in a ring, or stand in one another too deep.

    Raises:
        ValueError: naming the object, or every scene of the ring.
    """
    by_id = {one.id: one for one in insets}
    if len(by_id) < len(insets) or len({one.name for one in insets}) < len(insets):
        raise ValueError("two inner scenes share an id or a name; give each its own")
    parts = (scene, *insets)
    if sum(len(part.objects) for part in parts) > MAX_OBJECTS:
        raise ValueError(f"a scene and the scenes inside it hold at most {MAX_OBJECTS} objects together; delete some first")
    for part in parts:
        for thing in part.objects:
            if thing.inset_of is not None and thing.inset_of.scene not in by_id:
                raise ValueError(f"'{thing.name}' shows the inner scene '{thing.inset_of.scene}', which is not kept with this scene")
    depth: dict[str, int] = {}

    def measure(inset_id: str, chain: tuple[str, ...]) -> int:
        if inset_id in chain:
            ring = " → ".join(by_id[one].name for one in (*chain[chain.index(inset_id) :], inset_id))
            raise ValueError(f"inner scenes show each other in a ring: {ring}; let one of them show another")
        if len(chain) >= MAX_NESTED:
            raise ValueError(f"inner scenes stand in one another more than {MAX_NESTED} deep; show some of them side by side instead")
        if inset_id not in depth:
            depth[inset_id] = 1 + max((measure(one, (*chain, inset_id)) for one in insets_shown(by_id[inset_id])), default=0)
        if len(chain) + depth[inset_id] > MAX_NESTED:
            raise ValueError(f"inner scenes stand in one another more than {MAX_NESTED} deep; show some of them side by side instead")
        return depth[inset_id]

    for one in insets:
        measure(one.id, ())


def check_camera(objects: tuple[SceneObject, ...]) -> None:
    """Refuse a second camera, one that hangs on something, and what hangs on one.

    Raises:
        ValueError: naming it.
    """
    cameras = [thing for thing in objects if thing.kind == "camera"]
    if len(cameras) > 1:
        raise ValueError(f"'{cameras[1].name}' is a second camera; a scene has one")
    for camera in cameras:
        if camera.parent is not None:
            raise ValueError(f"the camera '{camera.name}' hangs on something; let it follow by a rule or a link instead")
        for thing in objects:
            if thing.parent == camera.id:
                raise ValueError(f"'{thing.name}' hangs on the camera; pin it to the picture instead")


def check_bone(thing: SceneObject, parent: SceneObject | None) -> None:
    """Refuse something that hangs on a bone its parent does not have.

    Raises:
        ValueError: naming the object, the bone and what there is.
    """
    if parent is None or parent.skeleton is None:
        raise ValueError(f"'{thing.name}' hangs on the bone '{thing.bone}', but its parent is no figure; take the bone out")
    if thing.bone not in parent.skeleton.bones:
        raise ValueError(f"'{thing.name}' hangs on the bone '{thing.bone}' of '{parent.name}'; there is {', '.join(parent.skeleton.bones)}")


def check_parents(objects: tuple[SceneObject, ...]) -> None:
    """Refuse parents that form a ring.

    Raises:
        ValueError: naming every object of the ring.
    """
    parents = {thing.id: thing.parent for thing in objects}
    names = {thing.id: thing.name for thing in objects}
    safe: set[str] = set()
    for start in parents:
        chain: dict[str, None] = {}
        at: str | None = start
        while at is not None and at not in safe:
            if at in chain:
                ids = list(chain)
                ring = [*ids[ids.index(at) :], at]
                raise ValueError(f"parents form a ring: {' → '.join(names[i] for i in ring)}; let one of them go")
            chain[at] = None
            at = parents[at]
        safe.update(chain)
