"""The interface of a rule kind: its settings, its names, and its functions."""

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, field
from functools import partial
from typing import Any, Literal, Protocol

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour
from vine_swing.motion.figure.ground import Ground
from vine_swing.motion.figure.model import Figure
from vine_swing.motion.formula import ALONE, Copy
from vine_swing.motion.timing.channel import Channel

Array = NDArray[np.float64]
Mode = Literal["add", "multiply", "replace"]
#: What a rule does to contours at some frames. What it is informed of them is a `Bending` (bending.py), which is on what is said here.
Bend = Callable[[list[Contour], Any], list[Contour]]
#: The same for rules whose contours differ in number and pieces from frame to frame: those of each frame.
Redraw = Callable[[list[Contour], Any], list[list[Contour]]]
#: In place of a channel, in what a rule looks at: all that says where an object is and how large, and its parent.
WHERE = "*where"


@dataclass(frozen=True)
class SettingSpec:
    """One setting of a rule: a number, unless it has `choices` or `names` something. `default` None means that it is off unless given.

    `usual` are the numbers a slider goes between, by `step`; what is typed may lie beyond and between them. Only channels for which a
    `shared` setting is the same have one batch key: how the rule goes about it depends on it.
    """

    name: str
    label: str
    unit: str
    default: float | str | None
    low: float | None = None
    high: float | None = None
    choices: tuple[str, ...] = ()
    about: str = ""
    usual: tuple[float, float] | None = None
    step: float = 0.05
    shared: bool = False
    #: What a word that is none of several choices names.
    names: Literal["", "object", "formula", "dial", "colour", "channel", "limb"] = ""
    #: What its keys hold.
    holds: Literal["number", "colour"] = "number"

    @property
    def is_word(self) -> bool:
        """Whether it is a word and cannot have keys."""
        return bool(self.choices) or self.names != ""


class Settings(Protocol):
    """The settings of a rule, one row for each channel it acts on, ready to be read at any frames."""

    def number(self, name: str, t: Array) -> Array | None:
        """A number setting at frames t (1 or r, n): (r, n), or (r, 1) where it never changes; None where it is off."""
        ...

    def numbers(self, names: Sequence[str], t: Array) -> dict[str, Array]:
        """Some number settings that cannot be off, by name, as of `number`; those with keys are evaluated together."""
        ...

    def choice(self, name: str) -> str:
        """A setting that is one of several words: the same for all rows."""
        ...

    def breaks(self, name: str) -> Array | None:
        """The frames between whole ones at which a number setting has keys, (k,); None if it never changes."""
        ...

    @property
    def key(self) -> str:
        """What tells the rule from others of its object."""
        ...


@dataclass(frozen=True)
class Timing:
    """A rule's view of the scene: frames per second, the length in frames, and which copy of a parade it works for."""

    fps: float
    length: int
    copy: Copy = ALONE


@dataclass(frozen=True)
class LookValues:
    """Input of a look rule at n frames.

    values: its settings by name, (n,) or (1,), of colours (n, 4) or (1, 4).
    word: its settings that are words.
    place: (n, 2) or (1, 2), where the object's pivot is, px.
    frames: (n,).
    """

    values: Mapping[str, Array]
    word: Callable[[str], str]
    place: Array
    frames: Array


#: Values (r, n) of r channels at real frames, in any order: (1, n) for all alike, or (r, n).
Read = Callable[[Array], Array]


@dataclass(frozen=True, kw_only=True)
class Source:
    """Input of a rule: channels with one batch key, one per row, after the previous cards, with their context.

    at: the values (r, n) at frames (1 or r, n).
    breaks: (k,), the frames between whole ones at which a value may jump or bend; at whole frames it always may.
    timing: what is known of the scene.
    streams: (r, 1), numbers that no other channel of the scene has, for rules that draw on chance.
    keys: the channels (r) whose keys move the values.
    owner, channel: the id of the first row's object, and the channel that the rule acts on.
    own_keyed: reads another channel of the same objects as its keys give it.
    own_final: reads another channel of the same objects after all its rules.
    contacts: for each row the frames at which that object meets something, in order.
    cost: about how many numbers are computed for each one that is read.
    spend: to be told of numbers that a rule computes without reading any, such as the steps of an integration.
    memo: keeps what the rules of these objects have computed for all of their channels.
    scene: what else there is, for rules that look around.
    """

    at: Read
    breaks: Array
    timing: Timing
    streams: NDArray[np.uint64]
    keys: tuple[Channel, ...]
    owner: str
    channel: str
    own_keyed: "Callable[[str], Source]"
    own_final: "Callable[[str], Source]"
    contacts: Callable[[], list[Array]]
    scene: "SceneView"
    memo: dict[str, object] = field(default_factory=dict)
    cost: float = 1.0
    spend: Callable[[float], None] = lambda samples: None

    def reading(self, at: Read, *, cost: float | None = None) -> "Source":
        """The same source read in another way. Chains consist of thousands of these: `dataclasses.replace` takes ten times as long."""
        one = object.__new__(Source)
        one.__dict__.update(self.__dict__, at=at)
        if cost is not None:
            one.__dict__["cost"] = cost
        return one


@dataclass(frozen=True, kw_only=True)
class SceneView:
    """Access to other objects for a rule, relative to the object of its first row.

    final: any channel after its own rules, by an object's id and a name; None where the object does not exist.
    named: the same for what formulas name, dials too.
    figure: the object's own figure, if it is one.
    surface: the upper edge of a shape as ground, by its id, in the space the object moves in.
    place: reads where the pivot of an object is, (n, 2), in that space.
    """

    final: Callable[[str, str], Source | None]
    named: Callable[[str], Source | None]
    figure: Figure | None = None
    surface: "Callable[[str], Ground | None]" = lambda object_id: None
    place: Callable[[str], Callable[[Array], Array] | None] = lambda object_id: None


def _nowhere(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    return ()


#: A channel that is looked at, and how many frames and seconds later than its reader's own frame it is read.
Shift = tuple[tuple[str, str], float, float]


def _unshifted(word: Callable[[str], str], number: Callable[[str], float | None], channel: str) -> list[Shift]:
    return []


@dataclass(frozen=True, kw_only=True)
class RuleSpec:
    """A kind of rule. Rows must not depend on each other.

    Identity:
        kind, label, about: its name in scene files, in menus, and what it is good for in a sentence.
        settings: by name.
        modes: the ways it can be combined with what it read; none for rules to which that means nothing.
        value_kind: what the channels hold it acts on; colours come as sRGB with alpha, (r, n, 4).
        for_channels: the channels it is for; none if it is for any.
        joints: of a rule that sits on figures only, the channels it acts on unless told, from the figure and the settings that are words.

    Functions:
        prepare: does once what needs doing once, and gives the function that reads the channels after the rule. A time rule reads elsewhere, a
            value rule changes what it read.
        together: what the rule adds to each channel of its object at frames (1, n), (n,) each, for rules that work all of them out at once: so a
            channel that nothing else acts on need not be asked for one by one. It must say what `prepare` says.
        bend, redraw: in place of `prepare` for rules of outlines; `redraw` where outlines have other points at every frame.
        still: of a rule of outlines, whether what it does is the same at all frames unless a setting changes.
        derived: of a rule of looks, what it makes of its settings by name, (n, w); painters do the rest (docs/paint-list.md).
        on_outlines: how a rule of numbers acts on outlines too: those of `time` read them at other frames, those of `points` take every
            coordinate for a number.
        contacts: the frames (k,) at which what it makes of a channel meets something.
        remark: a sentence about what keeps it from doing its work at frames (1, n); None where all is well.

    Dependencies apart from the previous card:
        dependencies: the other channels that a rule on a channel reads, from its settings that are words and that channel: pairs of an object's
            id, "" for the rule's own object, and a channel.
        own_keys_read: the channels of its own object whose keys it reads.
        unbatched: whether it is handed one row at a time; so are rules that read other objects.
        reads: about how many frames of the card before one frame of this card reads; 0 where it works its input out once and keeps it.
        dependency_reads: the same of each of its dependencies.
        dependencies_once: a setting that, where it is on, has it compute its dependencies once. Chains that would read too much are kept in
            tables (tables.py).
        shifts: where that is known in advance, the other frames at which it reads its dependencies: how many frames and seconds later than its
            own, from its settings that are words and those that are numbers (None for one that changes). Tables are filled by it.

    Display:
        summary: a rule in one line, in parts divided by " · ", with `{setting}` for a number with its unit and `{one|other}` for the first that is
            on; parts with nothing on are left out.
        example: settings that show on a small picture what it does, of rules for joints on the channel `example_channel`.
    """

    kind: str
    label: str
    about: str
    settings: Mapping[str, SettingSpec]
    modes: tuple[Mode, ...]
    prepare: Callable[[Source, Settings, Mode], Read]
    summary: str
    example: Mapping[str, float | str] = field(default_factory=dict)
    example_channel: str = ""
    for_channels: tuple[str, ...] = ()
    unbatched: bool = False
    reads: float = 1.0
    dependency_reads: float = 1.0
    dependencies_once: str = ""
    together: Callable[[Source, Settings, Array], Mapping[str, Array]] | None = None
    joints: Callable[[Figure, Callable[[str], str]], Collection[str]] | None = None
    own_keys_read: tuple[str, ...] = ()
    value_kind: Literal["number", "colour", "outline", "look"] = "number"
    on_outlines: Literal["", "time", "points"] = ""
    bend: Bend | None = None
    still: Callable[[Settings, Array], bool] = lambda settings, t: True
    redraw: Redraw | None = None
    derived: "Callable[[LookValues], Mapping[str, Array]] | None" = None
    contacts: Callable[[Source, Settings], Array] | None = None
    remark: Callable[[Source, Settings, Array], str | None] | None = None
    dependencies: Callable[[Callable[[str], str], str], tuple[tuple[str, str], ...]] = _nowhere
    shifts: Callable[[Callable[[str], str], Callable[[str], float | None], str], list[Shift]] = _unshifted

    def fits(self, kind: str) -> bool:
        """Whether it acts on channels that hold values of a kind."""
        return kind == self.value_kind or (kind == "outline" and self.on_outlines != "")

    @property
    def usual_mode(self) -> Mode:
        """How it acts unless told otherwise."""
        return self.modes[0] if self.modes else "add"


def stateless(apply: Callable[[Source, Settings, Mode, Array], Array]) -> Callable[[Source, Settings, Mode], Read]:
    """`prepare` for rules that have nothing to prepare: each reading is computed on its own."""
    return lambda source, settings, mode: partial(apply, source, settings, mode)


def number_of(settings: Settings, name: str, t: Array) -> Array:
    """A number setting that cannot be off at frames t (1 or r, n): (r, n), or (r, 1) where it never changes. Those that can are asked for by
    `settings.number`."""
    found = settings.number(name, t)
    assert found is not None, f"'{name}' has a default, so it is never off"
    return found


def steady(settings: Settings, name: str) -> Read:
    """A number setting that cannot be off as a function of frames; where it never changes it is looked up but once."""
    if settings.breaks(name) is not None:
        return lambda t: number_of(settings, name, t)
    value = number_of(settings, name, AT_START)
    return lambda t: value


#: One frame, for settings that are read but once.
AT_START = np.zeros((1, 1))


def by_name(*settings: SettingSpec) -> dict[str, SettingSpec]:
    """Settings as a table."""
    return {setting.name: setting for setting in settings}


def combined(mode: Mode, so_far: Array, change: Array) -> Array:
    """The values after a change is added to them, multiplied with them, or put in their place."""
    match mode:
        case "add":
            return so_far + change
        case "multiply":
            return so_far * change
        case "replace":
            return change
