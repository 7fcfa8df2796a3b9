"""Look at: turns a figure's head towards another object, whatever its body does.

At rest a head looks forward, along +x. What is wanted is the angle from there to the way from the neck, where the body has it, to the
target; towards `limit` on either side it gives way softly (a tanh), so that nothing jerks when something passes by.
"""

from collections.abc import Callable

import numpy as np

from vine_swing.motion.basics.specs import GEOMETRY
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.figure.model import HEAD, HIPS, SPINE
from vine_swing.motion.figure.pose import Body
from vine_swing.motion.rules.body import at_rest, in_figure
from vine_swing.motion.rules.spec import WHERE, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of

#: What the body does that the head sits on.
_BODY = (f"{HIPS}.x", f"{HIPS}.y", f"{HIPS}.turn", f"{SPINE}.turn")


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The head's turn, mixed with the look by its share."""
    figure = source.scene.figure
    target = source.scene.place(settings.choice("target")) if settings.choice("target") else None
    if figure is None or not figure.head or target is None:
        return source.at
    neck = figure.spine[-1]
    local = in_figure(source)
    reads = {name: source.scene.final(source.owner, name) for name in _BODY}

    def read(t: Array) -> Array:
        so_far = source.at(t)
        share = np.clip(number_of(settings, "share", t), 0, 1)
        if not share.any():
            return so_far
        body = Body(figure, {name: one.at(t)[0] for name, one in reads.items() if one is not None})
        chest = body.base("chest")
        joint = at_rest(chest, neck)
        way = local(target(t), t) - joint
        above = np.degrees(np.arctan2(chest[:, 1], chest[:, 0]))
        wanted = np.degrees(np.arctan2(way[:, 1], way[:, 0])) - above
        wanted = (wanted + 180) % 360 - 180 + number_of(settings, "offset", t)[0]
        limit = np.maximum(number_of(settings, "limit", t)[0], 1e-6)
        looked = limit * np.tanh(wanted / limit)
        return np.asarray(so_far + share * (looked[None, :] - so_far))

    return read


def remark(source: Source, settings: Settings, t: Array) -> str | None:
    """True if the target is missing."""
    target = settings.choice("target")
    if not target:
        return "it looks at nobody yet: choose whom"
    return None if source.scene.place(target) is not None else "what it looked at is gone: choose another"


def _dependencies(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    own = (*_BODY, FACING, *GEOMETRY)
    return (*(("", name) for name in own), (word("target"), WHERE)) if word("target") else ()


SPEC = RuleSpec(
    kind="look-at",
    label="Look at",
    about="Turns a figure's head towards something, while its body does what it does.",
    settings=by_name(
        SettingSpec("target", "at", "", "", about="What it looks at.", names="object"),
        SettingSpec("share", "share", "", 1.0, 0.0, 1.0, usual=(0.0, 1.0), about="How much it looks there; key it to look up and away again."),
        SettingSpec("limit", "limit", "°", 60.0, 0.0, 180.0, usual=(10.0, 120.0), step=5.0, about="How far the head turns to either side."),
        SettingSpec("offset", "offset", "°", 0.0, -180.0, 180.0, usual=(-60.0, 60.0), step=1.0, about="Looks past it by so much."),
    ),
    modes=(),
    prepare=prepare,
    example={"target": "leader"},
    summary="{target} · {share}",
    unbatched=True,
    joints=lambda figure, word: (f"{HEAD}.turn",) if figure.head else (),
    remark=remark,
    dependencies=_dependencies,
)
