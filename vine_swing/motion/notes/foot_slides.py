"""A planted foot that slides over the ground."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.basics import matrix
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.keys import SetKey
from vine_swing.motion.edits.rules import SetSetting
from vine_swing.motion.figure.footfalls import sole
from vine_swing.motion.figure.marks import marks_of
from vine_swing.motion.figure.model import Figure
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.rules.rule import SETTING, Rule
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel

#: How far a foot may slide while it is down, as a share of the leg's length: less is not seen.
_SLIDE = 0.04
#: A leg reaches so far along the ground, to its length, before its foot must give way.
_REACH = 1.8


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Where a foot is down, its place in the scene should not change; on a treadmill it should in the figure's own speed, and is left alone."""
    figure = thing.skeleton
    gait = next((rule for rule in thing.rules if rule.on and rule.kind == "gait"), None)
    walk = measures.reader.walk(thing.id) if figure is not None and gait is not None else None
    if figure is None or gait is None or walk is None or walk.plan.inputs.treadmill is not None:
        return
    one = measures.one(thing)
    worst: tuple[float, float, float, str] | None = None
    for leg in figure.legs:
        bone = one.bones.get(f"{leg.id}.end")
        if bone is None:
            continue
        # From each frame to the next one end of the sole, heel or ball, bears the weight and lies still, as the foot rolls.
        ends = [matrix.apply(measures.row(bone), np.array([x]), np.array([y])) for x, y in sole(leg)]
        scale = float(np.median(np.hypot(*measures.row(one.world)[:, :2].T)))
        for first, last in marks_of(walk).down[leg.id]:
            rows = slice(int(np.floor(first)) + 1, int(np.ceil(last)))
            if last - first >= 2 and rows.stop - rows.start > 1:
                slide = float(np.stack([np.hypot(*np.diff(points[rows], axis=0).T) for points in ends]).min(axis=0).sum())
                if slide > _SLIDE * figure.leg_length * scale and (worst is None or slide > worst[0]):
                    worst = (slide, first, last, leg.name)
    if worst is not None:
        slide, first, last, leg_name = worst
        text = f"{thing.name}'s {leg_name.lower()} slides {slide:.3g} px over the ground while it is down, from frame {first:.0f} to {last:.0f}."
        yield Note(
            "foot-slides",
            thing.id,
            f"{gait.id}{SETTING}stride",
            (first, last),
            text,
            sure=0.85,
            bad=0.8,
            mends=tuple(_mends(measures, thing, figure, gait)),
        )


def _mends(measures: SceneMeasures, thing: SceneObject, figure: Figure, gait: Rule) -> Iterator[Mend]:
    """A stride that the legs can reach, wherever it is longer."""
    stance = gait.settings.get("stance")
    stances = [key.number for key in stance.keys] if isinstance(stance, Channel) and stance.keys else [gait.plain("stance") or 0.6]
    most = float(int(0.97 * _REACH * figure.leg_length / max(stances)))
    stride = gait.settings.get("stride")
    if isinstance(stride, Channel) and stride.keys:
        long = [key for key in stride.keys if key.number > most]
        channel = f"{gait.id}{SETTING}stride"
        edits: tuple[Edit, ...] = tuple(SetKey(edit="set-key", object=thing.id, channel=channel, frame=key.frame, value=most) for key in long)
    else:
        plain = gait.plain("stride")
        long_plain = plain is not None and plain > most
        edits = (SetSetting(edit="set-setting", object=thing.id, rule=gait.id, setting="stride", value=most),) if long_plain else ()
    if edits:
        yield Mend(f"Take strides of {most:g} px", edits)


KIND = NoteKind(
    name="foot-slides",
    label="A foot that slides",
    why=(
        "A foot that is down and slides takes the weight out of a walk: nobody stands on it. Most often the strides are longer "
        "than the legs. Meant, on ice."
    ),
    about="object",
    of_object=find,
)
