"""A rule of a scene, and access to its settings."""

import re
from collections.abc import Callable, Hashable, Sequence
from functools import cached_property
from typing import Annotated, Any, Literal, Self

import numpy as np
from numpy.typing import NDArray
from pydantic import Discriminator, Field, Tag, model_validator

from vine_swing.motion.basics.specs import LOOK, OUTLINE
from vine_swing.motion.basics.values import Frozen, Id, Text
from vine_swing.motion.formula import read
from vine_swing.motion.formula.tree import MAX_LENGTH
from vine_swing.motion.rules import RULES, Mode, RuleSpec, SettingSpec, Source
from vine_swing.motion.rules.link import NAMED, computed, named_in
from vine_swing.motion.rules.spec import AT_START, WHERE, Read, Shift, number_of
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.evaluate import KeyedChannels

Array = NDArray[np.float64]
#: A setting of a rule is named like a channel: the rule's id, a colon, the setting. So every edit of keys works on it.
SETTING = ":"
_LONGEST_WORD = 64
#: The most channels a rule names: more than the joints of any figure.
MAX_ACTED = 512


def _form(value: Any) -> str:
    return "as word" if isinstance(value, str) else "as channel"


#: A number setting is a plain number or a whole channel; a choice is a word.
Setting = Annotated[Annotated[Channel, Tag("as channel")] | Annotated[Text, Field(max_length=MAX_LENGTH), Tag("as word")], Discriminator(_form)]


class Rule(Frozen):
    """A rule on an object: its kind, the channels it acts on ("keyed": every channel with keys), and its settings."""

    id: Id
    kind: str
    on: bool = True
    channels: Annotated[tuple[str, ...], Field(max_length=MAX_ACTED)] | Literal["keyed"] = "keyed"
    mode: Mode = "add"
    settings: dict[str, Setting] = Field(default_factory=dict)

    @property
    def spec(self) -> RuleSpec:
        """What kind of rule it is."""
        return RULES[self.kind]

    @model_validator(mode="before")
    @classmethod
    def _usual_mode(cls, data: Any) -> Any:
        """A rule whose mode is left out does what its kind usually does: a link replaces, others add. One that bends outlines can act on nothing
        else, whether or not that is keyed."""
        spec = RULES.get(str(data.get("kind"))) if isinstance(data, dict) else None
        if spec is None:
            return data
        if spec.value_kind in _ALONE and data.get("channels", "keyed") == "keyed":
            data = data | {"channels": (_ALONE[spec.value_kind],)}
        if isinstance(data.get("settings"), dict):
            data = data | {"settings": {name: _plain_colour(spec.settings.get(name), one) for name, one in data["settings"].items()}}
        return data if "mode" in data else data | {"mode": spec.usual_mode}

    @model_validator(mode="after")
    def _fits_its_kind(self) -> Self:
        spec = RULES.get(self.kind)
        if spec is None:
            raise ValueError(f"there is no rule '{self.kind}'; there is {', '.join(RULES)}")
        if not self.channels:
            raise ValueError("no channel is left for the rule to act on; name at least one, or take the rule off")
        if self.mode not in (spec.modes or ("add",)):
            raise ValueError(f"a rule '{self.kind}' cannot '{self.mode}'; it can {', '.join(spec.modes) or 'only act as it is'}")
        for name, setting in self.settings.items():
            if name not in spec.settings:
                raise ValueError(f"a rule '{self.kind}' has no setting '{name}'; it has {', '.join(spec.settings)}")
            check_setting(setting, spec.settings[name])
        return self

    @cached_property
    def batch_key(self) -> Hashable:
        """Rules with equal batch keys are evaluated together, one row each: they differ in nothing but numbers."""
        settings: list[tuple[str, Hashable]] = []
        for name, setting in sorted(self.settings.items()):
            if isinstance(setting, str) or self.spec.settings[name].shared:
                settings.append((name, setting))
            elif setting.keys or setting.formula is not None:
                settings.append((name, (tuple(_between_whole(setting)), setting.formula)))
            elif setting.base is not None:
                settings.append((name, None))
        return self.kind, self.mode, tuple(settings)

    def dependencies(self, owner: str, channel: str) -> list[tuple[str, str]]:
        """The other channels it looks at when it acts on a channel of the object `owner`: ids of objects and names."""
        seen = [(thing or owner, name) for thing, name in self.spec.dependencies(self.word, channel)]
        return [*seen, *(ref for refs in self.linked.values() for ref in refs)]

    def shifts(self, owner: str, channel: str) -> list[Shift]:
        """The channels it looks at whose frames are known in advance, and how much later than its own they are; see RuleSpec."""
        found = self.spec.shifts(self.word, self._unchanging, channel)
        return [((thing or owner, name), frames, seconds) for (thing, name), frames, seconds in found]

    def _unchanging(self, name: str) -> float | None:
        setting = self.settings.get(name)
        changes = isinstance(setting, Channel) and (bool(setting.keys) or setting.formula is not None)
        return None if changes else self.plain(name)

    @cached_property
    def linked(self) -> dict[str, tuple[tuple[str, str], ...]]:
        """References of settings with a formula, by setting."""
        formulas = {name: one.formula for name, one in self.settings.items() if isinstance(one, Channel) and one.formula is not None}
        return {name: named_in(formula) for name, formula in formulas.items()}

    def word(self, name: str) -> str:
        """A setting that is one of several words."""
        setting = self.settings.get(name)
        return setting if isinstance(setting, str) else str(self.spec.settings[name].default)

    def plain(self, name: str) -> float | None:
        """A number setting without keys, or what it is by default; None where it is off."""
        setting = self.settings.get(name)
        value: Any = setting.base if isinstance(setting, Channel) and setting.base is not None else self.spec.settings[name].default
        return None if value is None or isinstance(value, str) else float(value)

    def colour(self, name: str) -> str:
        """A colour setting without keys, or what it is by default."""
        setting = self.settings.get(name)
        return str(setting.base if isinstance(setting, Channel) and setting.base is not None else self.spec.settings[name].default)

    def acts_on(self, channel: str, *, keyed: bool) -> bool:
        """Whether it changes a channel."""
        return keyed if self.channels == "keyed" else channel in self.channels


#: The one channel that rules of some kinds can act on.
_ALONE = {"outline": OUTLINE, "look": LOOK}


def _plain_colour(spec: SettingSpec | None, setting: Any) -> Any:
    """Return a stored setting; a colour represents a constant channel."""
    return {"base": setting} if spec is not None and spec.holds == "colour" and isinstance(setting, str) else setting


class RuleSettings:
    """The settings of rules with one batch key, one a row, read at any frames. `source` is what the rules read."""

    def __init__(self, rules: Sequence[Rule], source: Source) -> None:
        self._rules = rules
        self._source = source
        self._known: dict[str, Array | Read | None] = {}
        #: Of settings that were asked for together: those with keys, and their channels.
        self._together: dict[tuple[str, ...], tuple[list[str], KeyedChannels | None]] = {}

    def number(self, name: str, t: Array) -> Array | None:
        """A number setting at frames t (1 or r, n): (r, n), or (r, 1) where it never changes; None where it is off."""
        if name not in self._known:
            self._known[name] = self._prepared(name)
        known, spec = self._known[name], self._rules[0].spec.settings[name]
        return self._within(known(t), spec) if callable(known) else known

    def numbers(self, names: Sequence[str], t: Array) -> dict[str, Array]:
        """Some number settings that cannot be off, by name, as of `number`; those with keys are evaluated together."""
        asked = tuple(names)
        if asked not in self._together:
            keyed = [name for name in asked if self._keyed(name)]
            self._together[asked] = keyed, KeyedChannels([one for name in keyed for one in self._keyed(name)]) if keyed else None
        keyed, channels = self._together[asked]
        if channels is None or len(t) > 1:
            return {name: number_of(self, name, t) for name in asked}
        rows = channels.at(t).reshape(len(keyed), len(self._rules), -1)
        found = {name: self._within(values, self.spec.settings[name]) for name, values in zip(keyed, rows, strict=True)}
        return {name: found[name] if name in found else number_of(self, name, t) for name in asked}

    def _keyed(self, name: str) -> list[Channel]:
        """A number setting of each rule, if it is keyed and follows no formula; else nothing."""
        settings = [rule.settings.get(name) for rule in self._rules]
        keyed = [one for one in settings if isinstance(one, Channel) and one.keys and one.formula is None]
        return keyed if len(keyed) == len(settings) else []

    def choice(self, name: str) -> str:
        """A setting that is one of several words."""
        return self._rules[0].word(name)

    @property
    def spec(self) -> RuleSpec:
        """What kind of rules they are of."""
        return self._rules[0].spec

    @property
    def source(self) -> Source:
        """Return the channels that the rules read."""
        return self._source

    @property
    def key(self) -> str:
        """What tells the rule from others of its object."""
        return self._rules[0].id

    def breaks(self, name: str) -> Array | None:
        """The frames between whole ones at which a number setting has keys, (k,); None if it never changes."""
        setting = self._rules[0].settings.get(name)
        return _between_whole(setting) if isinstance(setting, Channel) and (setting.keys or setting.formula is not None) else None

    def _prepared(self, name: str) -> Array | Read | None:
        first, spec = self._rules[0].settings.get(name), self._rules[0].spec.settings[name]
        if isinstance(first, Channel) and first.formula is not None:
            # Rules with formulas look at other channels, so they come one a row.
            own = KeyedChannels([first]).at if first.keys else None
            plain = np.array([[self._rules[0].plain(name) or 0.0]])
            return computed(self._source, first.formula, own or (lambda t: np.broadcast_to(plain, t.shape)))
        if keyed := self._keyed(name):
            return KeyedChannels(keyed).at
        values = [rule.plain(name) for rule in self._rules]
        numbers = [value for value in values if value is not None]
        return self._within(np.array(numbers)[:, None], spec) if len(numbers) == len(values) else None

    @staticmethod
    def _within(values: Array, spec: SettingSpec) -> Array:
        """Eases may leave the limits on their way between keys; the rule never sees that."""
        return np.clip(values, spec.low, spec.high) if spec.low is not None or spec.high is not None else values


def _between_whole(setting: Channel) -> Array:
    return np.array([key.frame for key in setting.keys if key.frame != round(key.frame)])


def chained(source: Source, rules: Sequence[Sequence[Rule]], *, kept: Callable[[Source], Source] = lambda source: source) -> Source:
    """Channels after some rules, in order; nothing is computed until it is read.

    Args:
        source: r channels with one batch key.
        rules: for each card the rules of the r channels, which have one batch key.
        kept: wraps a card's values before the next card reads them, for example in a table.
    """
    for number, card in enumerate(rules):
        spec, settings = card[0].spec, RuleSettings(card, source)
        cost = 1 + spec.reads * source.cost
        if spec.dependency_reads and not (spec.dependencies_once and settings.number(spec.dependencies_once, AT_START) is not None):
            cost += spec.dependency_reads * _cost_of_dependencies(source, card[0])
        source = source.reading(spec.prepare(source, settings, card[0].mode), cost=cost)
        if number < len(rules) - 1:
            source = kept(source)
    return source


def _cost_of_dependencies(source: Source, rule: Rule) -> float:
    """The summed cost of the channels that a rule looks at, those whose place it looks at left out: they are few and shallow."""
    total = 0.0
    for owner, name in rule.dependencies(source.owner, source.channel):
        if name == WHERE:
            continue
        found = source.scene.named(name) if owner == NAMED else source.scene.final(owner, name)
        total += found.cost if found is not None else 0.0
    return total


def check_setting(setting: Channel | str, spec: SettingSpec) -> None:
    """Refuse a setting that does not fit what it is.

    Raises:
        ValueError: naming the setting, what it is and what it can be.
    """
    if spec.choices:
        if setting not in spec.choices:
            shown = f"'{setting}'" if isinstance(setting, str) else "a number"
            raise ValueError(f"{spec.label} is {shown}; it can be {', '.join(spec.choices)}")
        return
    if spec.names:
        if not isinstance(setting, str):
            raise ValueError(f"{spec.label} is a number; it must be {_WORDS[spec.names]}")
        if spec.names == "formula":
            read(setting)
        elif spec.names == "colour":
            if setting and not _COLOUR.fullmatch(setting):
                raise ValueError(f"{spec.label} is '{setting}'; it must be a colour such as '#F2932B', or empty")
        elif len(setting) > _LONGEST_WORD:
            raise ValueError(f"{spec.label} is {len(setting)} characters long; ids have at most {_LONGEST_WORD}")
        return
    if spec.holds == "colour":
        _check_colours(setting, spec)
        return
    if isinstance(setting, str):
        raise ValueError(f"{spec.label} is '{setting}'; it must be a number")
    if setting.formula is not None:
        read(setting.formula)
    for value in [key.value for key in setting.keys] + ([setting.base] if setting.base is not None else []):
        if not isinstance(value, int | float):
            raise ValueError(f"{spec.label} is {value!r}; it must be a number")
        if (spec.low is not None and value < spec.low) or (spec.high is not None and value > spec.high):
            raise ValueError(f"{spec.label} is {_said(value)}; it must be {_range(spec)}")


def _check_colours(setting: Channel | str, spec: SettingSpec) -> None:
    channel = setting if isinstance(setting, Channel) else Channel(base=setting)
    if channel.formula is not None:
        raise ValueError(f"{spec.label} has a formula, which gives numbers; a colour has keys or is constant")
    for value in [key.value for key in channel.keys] + ([channel.base] if channel.base is not None else []):
        if not isinstance(value, str) or not _COLOUR.fullmatch(value):
            raise ValueError(f"{spec.label} is {value!r}; it must be a colour such as '#F2932B'")


_WORDS = {
    "object": "the id of an object",
    "dial": "the id of a dial",
    "formula": "a formula",
    "colour": "a colour",
    "channel": "the name of a channel",
    "limb": "the id of a limb",
}
_COLOUR = re.compile(r"#(?:[0-9A-Fa-f]{3,4}|[0-9A-Fa-f]{6}|[0-9A-Fa-f]{8})")


def _range(spec: SettingSpec) -> str:
    unit = f" {spec.unit}" if spec.unit and spec.unit != "as the channel" else ""
    if spec.low is not None and spec.high is not None:
        return f"between {_said(spec.low)} and {_said(spec.high)}{unit}"
    return f"{_said(spec.low)}{unit} or more" if spec.low is not None else f"{_said(spec.high or 0)}{unit} or less"


def _said(number: float) -> str:
    """A number as people write it: whole ones without a point, small ones without an exponent."""
    return f"{number:.0f}" if float(number).is_integer() else f"{number:.6f}".rstrip("0")
