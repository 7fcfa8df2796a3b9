"""What a rule is to the rest of the core: its settings, what to call it, and the function that does it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal, Protocol

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Mode = Literal["add", "multiply", "replace"]


@dataclass(frozen=True)
class SettingSpec:
    """One setting of a rule. A number unless it has `choices`; `default` None means that it is off unless given."""

    name: str
    label: str
    unit: str
    default: float | str | None
    low: float | None = None
    high: float | None = None
    choices: tuple[str, ...] = ()
    about: str = ""


class Settings(Protocol):
    """The settings of one rule in one scene, ready to be read at any frames."""

    def number(self, name: str, t: Array) -> Array | None:
        """A number setting at frames t, or None where it is off."""
        ...

    def choice(self, name: str) -> str:
        """A setting that is one of several words."""
        ...

    def breaks(self, name: str) -> Array | None:
        """The frames at which a number setting has keys; None if it never changes."""
        ...


@dataclass(frozen=True)
class Timing:
    """What a rule knows of the scene: frames per second, and the length in frames."""

    fps: float
    length: int


@dataclass(frozen=True)
class Source:
    """What a rule reads: one channel as the cards before it make it, at any real frames, and where it stands.

    `at` takes frames (n,), in any order, and gives values (n,). `breaks` are the frames at which it may jump or bend. `stream` is
    a number that no other channel of the scene has, for rules that draw on chance.
    """

    at: Callable[[Array], Array]
    breaks: Array
    timing: Timing
    stream: int


@dataclass(frozen=True)
class RuleSpec:
    """A kind of rule. `apply` gives the new values (n,) at frames (n,) from what it reads; a time rule reads elsewhere, a value rule
    changes what it read. `modes` are the ways it can be combined with what it read; none for rules to which that means nothing."""

    kind: str
    label: str
    about: str
    settings: Mapping[str, SettingSpec]
    modes: tuple[Mode, ...]
    apply: Callable[[Source, Array, Settings, Mode], Array]


def number_or(settings: Settings, name: str, t: Array, otherwise: float = 0.0) -> Array:
    """A number setting at frames t, or another number where it is off; (n,) or (1,)."""
    found = settings.number(name, t)
    return found if found is not None else np.full(1, otherwise)


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
