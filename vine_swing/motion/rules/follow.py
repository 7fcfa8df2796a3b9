"""Follow: overlap. Adds what the leader's same channel did some frames ago, less what it was at the first frame, times a share.

With `spring` on, what is followed first goes onto a spring of that frequency (see the rule spring), so that it drags and swings past.
"""

from collections.abc import Callable, Sequence

import numpy as np

from vine_swing.motion.rules import spring
from vine_swing.motion.rules.spec import AT_START, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Shift, Source, by_name, number_of, steady


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The values with the leader's on them; as they were where there is no leader."""
    leader = source.scene.final(settings.choice("leader"), settings.choice("reads") or source.channel) if settings.choice("leader") else None
    if leader is None:
        return source.at
    led: Source = leader
    delay, share = steady(settings, "delay"), steady(settings, "share")

    def late(t: Array) -> Array:
        return led.at(t - delay(t))

    sprung = settings.number("spring", AT_START) is not None
    followed = spring.prepare(led.reading(late), _OnSpring(settings), mode) if sprung else late
    begin: list[Array] = []

    def read(t: Array) -> Array:
        if not begin and not sprung:
            # Down a long chain every reading goes through all leaders: the first frame is read along with the others.
            both = led.at(np.concatenate([t - delay(t), AT_START], axis=1))
            begin.append(both[:, -1:])
            return source.at(t) + share(t) * (both[:, :-1] - begin[0])
        if not begin:
            begin.append(led.at(AT_START))
        return source.at(t) + share(t) * (followed(t) - begin[0])

    return read


def remark(source: Source, settings: Settings, t: Array) -> str | None:
    """Whether there is nobody to follow."""
    leader = settings.choice("leader")
    if not leader:
        return "it follows nobody yet: choose its leader, or draw the line onto it in the picture"
    reads = settings.choice("reads")
    if source.scene.final(leader, reads or source.channel) is not None:
        return None
    return f"its leader has no channel '{reads}': leave that empty for the same one" if reads else "its leader is gone: choose another one"


class _OnSpring:
    """The settings of a follow as those of its spring."""

    def __init__(self, settings: Settings) -> None:
        self._settings = settings

    def number(self, name: str, t: Array) -> Array | None:
        return self._settings.number("spring" if name == "frequency" else name, t)

    def numbers(self, names: Sequence[str], t: Array) -> dict[str, Array]:
        return {name: number_of(self, name, t) for name in names}

    def choice(self, name: str) -> str:
        return self._settings.choice(name)

    def breaks(self, name: str) -> Array | None:
        return self._settings.breaks("spring" if name == "frequency" else name)

    @property
    def key(self) -> str:
        return self._settings.key


def _dependencies(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    return ((word("leader"), word("reads") or channel),) if word("leader") else ()


def _shifts(word: Callable[[str], str], number: Callable[[str], float | None], channel: str) -> list[Shift]:
    delay = number("delay")
    return [(ref, -delay, 0.0) for ref in _dependencies(word, channel)] if delay is not None else []


SPEC = RuleSpec(
    kind="follow",
    label="Follow",
    about="Does what its leader did, a little later: tails, capes, strings of parcels.",
    settings=by_name(
        SettingSpec("leader", "leader", "", "", about="Whom it follows.", names="object"),
        SettingSpec("reads", "reads", "", "", about="Which channel of the leader it follows; empty for the same as its own.", names="channel"),
        SettingSpec("delay", "delay", "frames", 3.0, -1e5, 1e5, usual=(0.0, 24.0), step=1.0, about="How many frames later."),
        SettingSpec("share", "share", "×", 1.0, -100.0, 100.0, usual=(0.0, 1.5), about="How much of the leader's motion it takes over."),
        SettingSpec("spring", "spring", "Hz", None, 0.01, 60.0, usual=(0.2, 10.0), about="On: it drags and swings past, stiffer with more."),
        SettingSpec("damping", "damping", "", 0.4, 0.0, 20.0, usual=(0.0, 2.0), about="How soon its spring comes to rest."),
    ),
    modes=(),
    prepare=prepare,
    summary="{leader}, {delay} later · {share}",
    example={"leader": "leader", "delay": 12.0, "share": 0.6},
    unbatched=True,
    remark=remark,
    dependencies=_dependencies,
    dependencies_once="spring",
    shifts=_shifts,
)
