"""A rule as it stands in a scene, and reading its settings."""

from dataclasses import dataclass
from functools import partial
from typing import Annotated, Any, Literal, Self

import numpy as np
from numpy.typing import NDArray
from pydantic import Discriminator, Field, Tag, model_validator

from vine_swing.motion.channel import Channel
from vine_swing.motion.evaluate import evaluate
from vine_swing.motion.rules import RULES, Mode, RuleSpec, SettingSpec, Source
from vine_swing.motion.values import Frozen, Id

Array = NDArray[np.float64]
#: A setting of a rule is named like a channel: the rule's id, a colon, the setting. So every edit of keys works on it.
SETTING = ":"


def _form(value: Any) -> str:
    return "as word" if isinstance(value, str) else "as channel"


#: A number setting is a plain number or a whole channel; a choice is a word.
Setting = Annotated[Annotated[Channel, Tag("as channel")] | Annotated[str, Field(max_length=64), Tag("as word")], Discriminator(_form)]


class Rule(Frozen):
    """A rule on an object: its kind, the channels it acts on ("keyed": every channel with keys), and its settings."""

    id: Id
    kind: str
    on: bool = True
    channels: Annotated[tuple[str, ...], Field(min_length=1, max_length=64)] | Literal["keyed"] = "keyed"
    mode: Mode = "add"
    settings: dict[str, Setting] = Field(default_factory=dict)

    @property
    def spec(self) -> RuleSpec:
        """What kind of rule it is."""
        return RULES[self.kind]

    @model_validator(mode="after")
    def _fits_its_kind(self) -> Self:
        spec = RULES.get(self.kind)
        if spec is None:
            raise ValueError(f"there is no rule '{self.kind}'; there is {', '.join(RULES)}")
        if self.mode not in (spec.modes or ("add",)):
            raise ValueError(f"a rule '{self.kind}' cannot '{self.mode}'; it can {', '.join(spec.modes) or 'only act as it is'}")
        for name, setting in self.settings.items():
            if name not in spec.settings:
                raise ValueError(f"a rule '{self.kind}' has no setting '{name}'; it has {', '.join(spec.settings)}")
            check_setting(setting, spec.settings[name])
        return self

    def acts_on(self, channel: str, *, keyed: bool) -> bool:
        """Whether it changes a channel."""
        return keyed if self.channels == "keyed" else channel in self.channels


@dataclass(frozen=True)
class RuleSettings:
    """The settings of one rule, read at any frames."""

    rule: Rule

    def number(self, name: str, t: Array) -> Array | None:
        setting, spec = self.rule.settings.get(name), self.rule.spec.settings[name]
        if isinstance(setting, Channel) and setting.keys:
            return self._within(evaluate([setting], t)[0], spec)
        base = setting.base if isinstance(setting, Channel) else None
        value: Any = base if base is not None else spec.default
        return None if value is None else self._within(np.array([float(value)]), spec)

    def choice(self, name: str) -> str:
        setting = self.rule.settings.get(name)
        return setting if isinstance(setting, str) else str(self.rule.spec.settings[name].default)

    def breaks(self, name: str) -> Array | None:
        setting = self.rule.settings.get(name)
        return np.array([key.frame for key in setting.keys]) if isinstance(setting, Channel) and setting.keys else None

    @staticmethod
    def _within(values: Array, spec: SettingSpec) -> Array:
        """Eases may leave the limits on their way between keys; the rule never sees that."""
        return np.clip(values, spec.low, spec.high) if spec.low is not None or spec.high is not None else values


def chained(source: Source, rules: list[Rule]) -> Source:
    """One channel after some rules, in order; nothing is worked out until it is read."""
    for rule in rules:
        source = Source(partial(_applied, rule, source), source.breaks, source.timing, source.stream)
    return source


def _applied(rule: Rule, source: Source, t: Array) -> Array:
    return rule.spec.apply(source, t, RuleSettings(rule), rule.mode)


def check_setting(setting: Channel | str, spec: SettingSpec) -> None:
    """Refuse a setting that does not fit what it is.

    Raises:
        ValueError: naming the setting, what it is and what it can be.
    """
    if spec.choices:
        if setting not in spec.choices:
            shown = setting if isinstance(setting, str) else "a number"
            raise ValueError(f"'{spec.name}' is {shown!r}; it can be {', '.join(spec.choices)}")
        return
    if isinstance(setting, str):
        raise ValueError(f"'{spec.name}' is {setting!r}; it must be a number")
    for value in [key.value for key in setting.keys] + ([setting.base] if setting.base is not None else []):
        if not isinstance(value, int | float):
            raise ValueError(f"'{spec.name}' is {value!r}; it must be a number")
        if (spec.low is not None and value < spec.low) or (spec.high is not None and value > spec.high):
            low, high = spec.low if spec.low is not None else "−∞", spec.high if spec.high is not None else "∞"
            raise ValueError(f"'{spec.name}' is {value:g}; it must be within {low} … {high}")
