"""The choices of the page's menus: channels, shapes, feels, ends, formats. The page's menus read it."""

from functools import cache
from typing import Any, Literal, get_args

import numpy as np
from pydantic import BaseModel

from vine_swing.formats import EXPORTS
from vine_swing.motion.basics.gradients import MOST_STOPS, Painted, gradient_channels
from vine_swing.motion.basics.specs import (
    CAMERA_CHANNELS,
    GROUP_CHANNELS,
    INSET_CHANNELS,
    PICTURE_CHANNELS,
    SHAPE_CHANNELS,
    ChannelSpec,
    Family,
    Unit,
    Whole,
)
from vine_swing.motion.figure.channels import FACING, joint_channels
from vine_swing.motion.figure.model import Chain, Figure, Limb
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS, TINTS, height
from vine_swing.motion.formula.functions import FUNCTIONS
from vine_swing.motion.parade.channels import PARADE_CHANNELS
from vine_swing.motion.rules.presets import PRESETS
from vine_swing.motion.scene.kinds import KINDS
from vine_swing.motion.timing import ease
from vine_swing.motion.timing.ease import FEELS
from vine_swing.motion.timing.ends import ENDS, EndMode
from vine_swing.service.api import api_router
from vine_swing.service.routes.feels import PICTURE_POINTS
from vine_swing.service.routes.rule_words import RuleWords, rule_words

router = api_router("vocabulary")


class ChannelWords(BaseModel):
    """A channel an object can have; see ChannelSpec."""

    name: str
    label: str
    row: str
    family: Family
    unit: Unit
    default: float | str | tuple[float, float]
    low: float | None
    high: float | None
    step: float
    shown: float
    about: str
    whole: Whole | None = None


class FeelWords(BaseModel):
    """A named ease, with p at evenly spread u for its picture."""

    name: str
    label: str
    about: str
    curve: list[float]


class EndWords(BaseModel):
    """An end mode. for_words: whether it means something where keys hold words."""

    mode: EndMode
    label: str
    about: str
    for_words: bool


class FormatWords(BaseModel):
    """An export format; `opaque` if nothing can be seen through its pictures, `single` if it is one picture. ending: of its files. takes: the options
    that change something in it. family: what it is for: `film`, `page`, `pictures`, `sound` or `data`."""

    name: str
    label: str
    suffix: str
    about: str
    opaque: bool
    single: bool
    ending: str
    takes: list[str]
    family: str


class PresetWords(BaseModel):
    """A rule with settings that are good for something; `moves` are settings with keys, as frames and values, which start over with `loops`."""

    name: str
    label: str
    kind: str
    about: str
    settings: dict[str, float | str]
    moves: dict[str, list[tuple[float, float]]]
    loops: bool


class PartWords(BaseModel):
    """A part of a starter: its outline about a place, and its colour."""

    d: str
    at: tuple[float, float]
    fill: str


class StarterWords(BaseModel):
    """A figure to begin with; `height` in px, about its origin on the ground."""

    name: str
    label: str
    about: str
    height: float
    parts: list[PartWords]


class GaitWords(BaseModel):
    """A ready-made gait, and for how many pairs of legs it is."""

    name: str
    label: str
    about: str
    pairs: list[int]


class JointWords(BaseModel):
    """The channels of a figure's joints. Those of limbs and chains stand here for one called `PART`; of a chain for its first link."""

    body: list[ChannelWords]
    head: list[ChannelWords]
    leg: list[ChannelWords]
    arm: list[ChannelWords]
    link: list[ChannelWords]
    facing: list[ChannelWords]


class KindWords(BaseModel):
    """A kind of object; see Kind."""

    name: str
    icon: str
    is_whole: bool
    is_drawn: bool


class Vocabulary(BaseModel):
    """Everything the menus offer. `channels` is by shape type, and under "group" for groups; figures have those of groups and `joints`, and what a
    gradient colours the channels of its ends and of as many stops as it has."""

    kinds: list[KindWords]
    channels: dict[str, list[ChannelWords]]
    feels: list[FeelWords]
    ends: list[EndWords]
    formats: list[FormatWords]
    rules: list[RuleWords]
    presets: list[PresetWords]
    functions: list[str]
    gradients: dict[Literal["fill", "stroke"], list[ChannelWords]]
    joints: JointWords
    starters: list[StarterWords]
    gaits: list[GaitWords]


@router.get("/vocabulary")
def vocabulary() -> Vocabulary:
    """Everything there is to choose from."""
    u = np.linspace(0, 1, PICTURE_POINTS)
    own = {"group": GROUP_CHANNELS, "parade": PARADE_CHANNELS, "picture": PICTURE_CHANNELS, "inset": INSET_CHANNELS, "camera": CAMERA_CHANNELS}
    tables = SHAPE_CHANNELS | own
    return Vocabulary(
        kinds=[KindWords(name=k.name, icon=k.icon, is_whole=k.is_whole, is_drawn=k.is_drawn) for k in KINDS.values()],
        channels={kind: [_words(spec) for spec in specs.values()] for kind, specs in tables.items()},
        feels=[FeelWords(name=f.name, label=f.label, about=f.about, curve=ease.build(f.ease).at(u).round(4).tolist()) for f in FEELS.values()],
        ends=[EndWords(mode=e.mode, label=e.label, about=e.about, for_words=e.for_words) for e in ENDS.values()],
        formats=[
            FormatWords(
                name=f.name,
                label=f.label,
                suffix=f.suffix,
                about=f.about,
                opaque=f.opaque,
                single=f.single,
                ending=f.ends_with,
                takes=list(f.takes),
                family=f.family,
            )
            for f in EXPORTS.values()
        ],
        rules=rule_words(),
        functions=list(FUNCTIONS),
        gradients={of: [_words(spec) for spec in gradient_channels(of, MOST_STOPS)] for of in get_args(Painted)},
        joints=_joints(),
        starters=_starters(),
        gaits=[GaitWords(name=g.name, label=g.label, about=g.about, pairs=list(g.pairs)) for g in GAITS.values()],
        presets=[PresetWords(**vars(preset)) for preset in PRESETS],
    )


#: In the words of joints, represents the id and the name of a limb or chain.
_PART = "PART"


@cache
def _joints() -> JointWords:
    points: Any = ((0, -30), (0, -20), (0, -10), (8, 0))
    leg, arm = (Limb(id=_PART, name=_PART, kind=kind, joints=points) for kind in ("leg", "arm"))
    plain = joint_channels(Figure(spine=((0, -40), (0, -60))))
    body = [spec for name, spec in plain.items() if name != FACING]

    def more(**parts: Any) -> list[ChannelWords]:
        found = joint_channels(Figure(spine=((0, -40), (0, -60)), **parts))
        return [_words(spec) for name, spec in found.items() if name not in plain]

    return JointWords(
        body=[_words(spec) for spec in body],
        head=more(head=((0, -80),)),
        leg=more(limbs=(leg,)),
        arm=more(limbs=(arm,)),
        link=more(chains=(Chain(id=_PART, name=_PART, joints=points[:2]),)),
        facing=[_words(plain[FACING])],
    )


@cache
def _starters() -> list[StarterWords]:
    return [
        StarterWords(
            name=one.name,
            label=one.label,
            about=one.about,
            height=height(one.figure),
            parts=[PartWords(d=part.d, at=part.at, fill=TINTS[part.tint]) for part in one.parts],
        )
        for one in STARTERS.values()
    ]


def _words(spec: ChannelSpec) -> ChannelWords:
    return ChannelWords(**{name: getattr(spec, name) for name in ChannelWords.model_fields})
