"""Hold on: a hand or foot stays at the pivot of another object, a rail or a parcel, while the figure walks.

It acts on the place of a limb, x and y, and on its reach, so that the arm bends as it has to. With `share` keyed it takes hold and releases. Beyond
the arm's length the hand gives way softly (see figure/limb.py).
"""

from collections.abc import Callable

import numpy as np

from vine_swing.motion.basics.specs import GEOMETRY
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.figure.model import Figure
from vine_swing.motion.rules.body import in_figure
from vine_swing.motion.rules.spec import WHERE, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The hand's place, or the limb's reach, mixed with what holding on asks for by its share."""
    figure = source.scene.figure
    target = source.scene.place(settings.choice("target")) if settings.choice("target") else None
    limb_id, _, part = source.channel.partition(".")
    limb = next((one for one in figure.limbs if one.id == limb_id), None) if figure is not None else None
    if limb is None or target is None or part not in ("x", "y", "reach"):
        return source.at
    rest, local = limb.joints[2], in_figure(source)

    def read(t: Array) -> Array:
        so_far = source.at(t)
        share = np.clip(number_of(settings, "share", t), 0, 1)
        if not share.any():
            return so_far
        if part == "reach":
            return so_far + share * (1.0 - so_far)
        place = local(target(t), t)
        n = 0 if part == "x" else 1
        held = place[None, :, n] - rest[n] + number_of(settings, f"offset_{part}", t)
        # While it takes hold the hand moves from where the arm, hanging, has it: reach does that. The place is the target's all along.
        return np.where(share > 0, held, so_far)

    return read


def _held(figure: Figure, word: Callable[[str], str]) -> tuple[str, ...]:
    """The limb it is told, or the first arm, or the first limb there is."""
    limbs = sorted(figure.limbs, key=lambda one: (one.id != word("limb"), one.kind != "arm"))
    return tuple(f"{limbs[0].id}.{part}" for part in ("x", "y", "reach")) if limbs else ()


def remark(source: Source, settings: Settings, t: Array) -> str | None:
    """True if the target is missing."""
    target = settings.choice("target")
    if not target:
        return "it holds on to nothing yet: choose what"
    return None if source.scene.place(target) is not None else "what it held on to is gone: choose another"


def _dependencies(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    return (*(("", name) for name in (*GEOMETRY, FACING)), (word("target"), WHERE)) if word("target") else ()


SPEC = RuleSpec(
    kind="hold-on",
    label="Hold on",
    about="A hand stays on something, a rail or a parcel, while the figure walks.",
    settings=by_name(
        SettingSpec("target", "to", "", "", about="What it holds on to: its pivot.", names="object"),
        SettingSpec("limb", "with", "", "", about="Which limb; empty for the first arm.", names="limb"),
        SettingSpec("share", "share", "", 1.0, 0.0, 1.0, usual=(0.0, 1.0), about="How firmly; key it to take hold and let go."),
        SettingSpec("offset_x", "beside", "px", 0.0, usual=(-60.0, 60.0), step=1.0, about="How far beside the pivot."),
        SettingSpec("offset_y", "below", "px", 0.0, usual=(-60.0, 60.0), step=1.0, about="How far below the pivot."),
    ),
    modes=(),
    prepare=prepare,
    example={"target": "leader"},
    summary="{target} · {share}",
    unbatched=True,
    joints=_held,
    remark=remark,
    dependencies=_dependencies,
)
