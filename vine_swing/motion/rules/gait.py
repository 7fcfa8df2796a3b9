"""Gait: walks a figure. Its steps come from the distance its body goes, whatever moves that; feet that are down stay where they are.

See figure/stretches.py for the phase, figure/steps.py for the feet, figure/upper_body.py for the rest. What it makes of every joint is added to
what the joint's keys say, less the share by which the limb is `free`.
"""

from collections.abc import Callable, Mapping

import numpy as np

from vine_swing.motion.basics.specs import GEOMETRY
from vine_swing.motion.figure.channels import FACING, walked
from vine_swing.motion.figure.style import ORDERS, Style
from vine_swing.motion.figure.walk import Walk
from vine_swing.motion.figure.walk_plan import WalkInputs
from vine_swing.motion.rules.body import own_matrix
from vine_swing.motion.rules.spec import AT_START, WHERE, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of

#: Readings of a walk that are kept, since every joint is asked for the same frames.
_KEPT = 4


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """A joint's channel with its walk on it; unchanged where there is no figure."""
    figure = source.scene.figure
    if figure is None:
        return source.at
    one, channel = _walked(source, settings), source.channel
    limb = channel.partition(".")[0]
    free = source.scene.final(source.owner, f"{limb}.free") if any(limb == part.id for part in figure.limbs) else None

    def read(t: Array) -> Array:
        added = one.at(t).get(channel)
        if added is None:
            return source.at(t)
        if channel == FACING:
            return source.at(t) * added
        return source.at(t) + (added if free is None else added * (1 - np.clip(free.at(t), 0, 1)))

    return read


def together(source: Source, settings: Settings, t: Array) -> Mapping[str, Array]:
    """Return the offset of each channel where no limb is free, at frames t (1, n)."""
    return _walked(source, settings).at(t) if source.scene.figure is not None else {}


def _walked(source: Source, settings: Settings) -> "_Walked":
    """The walk of the rule, the same for all joints."""
    known = source.memo.get(settings.key)
    if known is None:
        known = source.memo[settings.key] = _Walked(Walk(walk_inputs(source, settings)))
    assert isinstance(known, _Walked)
    return known


class _Walked:
    """A walk, and what was last read of it."""

    def __init__(self, walk: Walk) -> None:
        self.walk = walk
        self._read: list[tuple[Array, dict[str, Array]]] = []

    def at(self, t: Array) -> dict[str, Array]:
        """Return the offset of each channel at frames t (1, n)."""
        for known, values in self._read:
            if known is t:
                return values
        values = self.walk.at(t)
        self._read = [*self._read[-_KEPT + 1 :], (t, values)]
        return values


def walk_inputs(source: Source, settings: Settings) -> WalkInputs:
    """Return the inputs of a walk from the rule's source and settings."""
    assert source.scene.figure is not None
    placed = own_matrix(source)
    treadmill = settings.number("treadmill", AT_START)
    facing = source.own_keyed(FACING)

    def at(t: Array) -> Array:
        found = placed(t)
        return found if len(found) == t.shape[1] else np.repeat(found, t.shape[1], axis=0)

    steady: list[Style] = []

    def style(t: Array) -> Style:
        if steady:
            return steady[0]
        found = Style(**{name: values[0] for name, values in settings.numbers(Style.names(), t).items()})
        if found.is_steady and all(settings.breaks(name) is None for name in Style.names()):
            steady.append(found)
        return found

    return WalkInputs(
        source.scene.figure,
        settings.choice("order"),
        settings.choice("facing") == "the way it goes",
        float(number_of(settings, "phase", AT_START)[0, 0]) / 360,
        None if treadmill is None else float(treadmill[0, 0]),
        source.timing.length,
        at,
        style,
        lambda t: facing.at(t)[0],
        source.scene.surface(settings.choice("ground")) if settings.choice("ground") and treadmill is None else None,
    )


def remark(source: Source, settings: Settings, t: Array) -> str | None:
    """What keeps feet from staying where they are."""
    figure = source.scene.figure
    if figure is None or not figure.legs:
        return "it has no legs to walk on: give the figure legs"
    ground = settings.choice("ground")
    if ground and source.scene.surface(ground) is None:
        return "its ground is gone, or has no width: choose a line or an outline"
    strides, stances = (np.broadcast_to(number_of(settings, name, t), t.shape)[0] for name in ("stride", "stance"))
    worst = int(np.argmax(strides * stances))
    stride, most = float(strides[worst]), 1.8 * figure.leg_length / float(stances[worst])
    if stride > most:
        return f"a stride of {stride:.0f} px is too long for legs of {figure.leg_length:.0f} px, so feet slip; take {most:.0f} px or less"
    return None


def _dependencies(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    limb, dot, _ = channel.partition(".")
    free = (("", f"{limb}.free"),) if dot and not channel.endswith(".free") else ()
    ground = ((word("ground"), WHERE),) if word("ground") else ()
    return (*(("", name) for name in GEOMETRY), *free, *ground)


def _px(name: str, default: float, usual: tuple[float, float], about: str) -> SettingSpec:
    return SettingSpec(name, name, "px", default, 0.0, 1e5, usual=usual, step=1.0, about=about)


def _turn(name: str, label: str, default: float, usual: tuple[float, float], about: str) -> SettingSpec:
    return SettingSpec(name, label, "°", default, -180.0, 180.0, usual=usual, step=1.0, about=about)


SPEC = RuleSpec(
    kind="gait",
    label="Gait",
    about="Walks a figure: steps by the way its body goes, feet that never slide.",
    settings=by_name(
        SettingSpec("ground", "ground", "", "", about="What it walks on: a line, an outline, any shape; nothing for its way.", names="object"),
        SettingSpec("order", "legs", "", "alternate", choices=ORDERS, about="How the legs take turns."),
        SettingSpec("facing", "faces", "", "as drawn", choices=("as drawn", "the way it goes"), about="Whether it turns round to walk back."),
        SettingSpec("stride", "stride", "px", 130.0, 1.0, 1e5, usual=(20.0, 320.0), step=1.0, about="From one footprint of a foot to its next."),
        SettingSpec(
            "stance", "stance", "", 0.6, 0.1, 0.95, usual=(0.2, 0.9), step=0.01, about="The share of a cycle a foot is down; below 0.5 it runs."
        ),
        _px("lift", 16.0, (0.0, 80.0), "How high the feet are lifted."),
        _px("bob", 8.0, (0.0, 40.0), "How far the hips go up and down: lowest in down, highest in up."),
        _turn("sway", "sway", 3.0, (0.0, 15.0), "How far the hips tilt to and fro; the back goes against them."),
        _turn("lean", "lean", 4.0, (-30.0, 45.0), "How far it leans forward as it goes."),
        SettingSpec("knee", "knee", "", 0.0, 0.0, 1.0, usual=(0.0, 1.0), about="How bent its knees stay: 1 sinks by a quarter of the leg."),
        _turn("roll", "foot roll", 28.0, (0.0, 60.0), "How far the foot rolls, from heel to ball."),
        _turn("arm_swing", "arm swing", 22.0, (-20.0, 70.0), "How far the arms swing against the legs."),
        _turn("elbow", "elbow", 10.0, (0.0, 110.0), "How bent the elbows are carried."),
        _turn("tail", "tail", 9.0, (0.0, 40.0), "How far tails swing."),
        SettingSpec("weight", "weight", "", 0.2, 0.0, 1.0, usual=(0.0, 1.0), about="Heavier: it stays low for longer and comes up late."),
        SettingSpec(
            "overlap", "overlap", "frames", 2.0, 0.0, 100.0, usual=(0.0, 8.0), step=0.5, about="How much later head, arms and tail come in turn."
        ),
        SettingSpec(
            "treadmill", "treadmill", "frames", None, 2.0, 1e5, usual=(8.0, 72.0), step=1.0, about="On: walks on the spot, a cycle in so many frames."
        ),
        SettingSpec("phase", "phase", "°", 0.0, -1e6, 1e6, usual=(-180.0, 180.0), step=5.0, about="Where in the cycle it is at frame 0."),
        SettingSpec("share", "share", "", 1.0, 0.0, 1.0, usual=(0.0, 1.0), about="0 leaves every joint to its keys."),
    ),
    modes=(),
    prepare=prepare,
    together=together,
    summary="{stride} · {stance} · {lift}",
    example={"treadmill": 20.0},
    example_channel="near-leg.x",
    unbatched=True,
    joints=lambda figure, word: walked(figure),
    remark=remark,
    dependencies=_dependencies,
)
