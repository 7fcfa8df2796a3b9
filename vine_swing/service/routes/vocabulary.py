"""What there is to choose from: channels, shapes, feels, ends, formats. The page's menus read it."""

from functools import cache
from typing import Any, Literal

import numpy as np
from fastapi import APIRouter
from numpy.typing import NDArray
from pydantic import BaseModel

from vine_swing.formats import EXPORTS
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.specs import (
    CAMERA_CHANNELS,
    GROUP_CHANNELS,
    INSET_CHANNELS,
    PICTURE_CHANNELS,
    SHAPE_CHANNELS,
    ChannelSpec,
    Family,
    Unit,
)
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.figure.channels import FACING, joint_channels
from vine_swing.motion.figure.model import Chain, Figure, Limb
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS, TINTS, height
from vine_swing.motion.formula.functions import FUNCTIONS
from vine_swing.motion.parade.channels import PARADE_CHANNELS
from vine_swing.motion.rules import RULES, RuleSpec
from vine_swing.motion.rules.presets import PRESETS
from vine_swing.motion.rules.rule import Rule, Setting
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.kinds import KINDS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import FigureObject, ShapeObject
from vine_swing.motion.scene.shapes import PlainShape
from vine_swing.motion.timing import ease
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ease import FEELS
from vine_swing.motion.timing.ends import ENDS, EndMode
from vine_swing.picture.drawable import drawables
from vine_swing.service.routes.feels import PICTURE_POINTS

router = APIRouter(tags=["vocabulary"])


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


class FeelWords(BaseModel):
    """A named ease, with p at evenly spread u for its picture."""

    name: str
    label: str
    about: str
    curve: list[float]


class EndWords(BaseModel):
    """An end mode."""

    mode: EndMode
    label: str
    about: str


class FormatWords(BaseModel):
    """An export format; `opaque` if nothing can be seen through its pictures."""

    name: str
    label: str
    suffix: str
    about: str
    opaque: bool


class SettingWords(BaseModel):
    """A setting of a rule; see SettingSpec."""

    name: str
    label: str
    unit: str
    default: float | str | None
    low: float | None
    high: float | None
    choices: list[str]
    about: str
    usual: tuple[float, float] | None
    step: float
    names: Literal["", "object", "formula", "dial", "colour", "channel", "limb"]


class RuleWords(BaseModel):
    """A kind of rule, with its picture: what a move becomes under it, beside the move itself; of a rule on outlines, `drawn` is an outline before and
    after it as SVG path data. `on_outlines` tells which rules of numbers act on outlines too."""

    kind: str
    label: str
    about: str
    summary: str
    acts: list[str]
    of: Literal["number", "colour", "outline"]
    on_outlines: bool
    modes: list[str]
    joints: bool
    settings: list[SettingWords]
    before: list[float]
    after: list[float]
    drawn: tuple[str, str] | None = None


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
    """Everything the menus offer. `channels` is by shape type, and under "group" for groups; figures have those of groups and `joints`."""

    kinds: list[KindWords]
    channels: dict[str, list[ChannelWords]]
    feels: list[FeelWords]
    ends: list[EndWords]
    formats: list[FormatWords]
    rules: list[RuleWords]
    presets: list[PresetWords]
    functions: list[str]
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
        ends=[EndWords(mode=e.mode, label=e.label, about=e.about) for e in ENDS.values()],
        formats=[FormatWords(name=f.name, label=f.label, suffix=f.suffix, about=f.about, opaque=f.opaque) for f in EXPORTS.values()],
        rules=_rules(),
        functions=list(FUNCTIONS),
        joints=_joints(),
        starters=_starters(),
        gaits=[GaitWords(name=g.name, label=g.label, about=g.about, pairs=list(g.pairs)) for g in GAITS.values()],
        presets=[PresetWords(**vars(preset)) for preset in PRESETS],
    )


#: In the words of joints, stands for the id and the name of a limb or chain.
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


_MOVE = Channel(keys=(Key(frame=10, value=0.0, ease="slow-out-in"), Key(frame=34, value=100.0)))


_PASSING = Channel(keys=(Key(frame=4, value=300.0, ease="slow-out-in"), Key(frame=40, value=-200.0)))
_ABOVE = Channel(base=-260.0)
_DUSK = Dial(id="shown", name="Shown", channel=Channel(keys=(Key(frame=10, value="#2C4A3B", ease="slow-out-in"), Key(frame=34, value="#F6D58A"))))


def _drawn(values: NDArray[np.float64]) -> NDArray[np.float64]:
    """Numbers as they are, colours by their lightness."""
    return values if values.ndim == 1 else colour.to_oklab(values)[:, 0]


@cache
def _rules() -> list[RuleWords]:
    """The words of every rule. Their pictures are baked, and never change while the service runs."""
    return [_rule(spec) for spec in RULES.values()]


def _rule(spec: RuleSpec) -> RuleWords:
    if spec.joints is not None:
        return _joint_rule(spec)
    if spec.of == "outline":
        return _outline_rule(spec)
    acts = spec.acts or ("x",)
    given: dict[str, Setting] = {name: value if isinstance(value, str) else Channel(base=value) for name, value in spec.telling.items()}
    rule = Rule(id="shown", kind=spec.kind, channels=acts, mode=spec.modes[0] if spec.modes else "add", settings=given)
    moves = {"fill": Channel(base="#2C4A3B")} if spec.of == "colour" else {"x": _MOVE} if acts[0] != "y" else {}
    if spec.besides:
        moves["y"] = _MOVE.but(keys=tuple(key.but(value=-key.number) for key in _MOVE.keys))
    plain = ShapeObject(id="shown", name="Shown", kind="shape", shape=PlainShape(type="ellipse"), channels=moves)
    leader = plain.but(id="leader", name="Leader")
    scenes = (Scene(length=PICTURE_POINTS, objects=(thing, leader), dials=(_DUSK,)) for thing in (plain, plain.but(rules=(rule,))))
    before, after = (_drawn(bake(scene)["Shown", acts[0]]) for scene in scenes)
    return _pictured(spec, before, after, falling=acts[0] == "y")


#: What rules on outlines are shown on, by the kind of rule: a disc, unless another shape says more.
_SHOWN_ON = {"taper": "rectangle", "bend": "rectangle", "round": "star", "swirl": "rectangle", "draw-on": "star"}
_SHOWN_WIDE = {"taper": (70.0, 40.0), "bend": (80.0, 20.0), "swirl": (60.0, 40.0)}


def _outline_rule(spec: RuleSpec) -> RuleWords:
    """A rule on outlines, shown on a shape within 80 × 60 px about its middle."""
    given: dict[str, Setting] = {name: value if isinstance(value, str) else Channel(base=value) for name, value in spec.telling.items()}
    rule = Rule(id="shown", kind=spec.kind, settings=given)
    width, height = _SHOWN_WIDE.get(spec.kind, (44.0, 44.0))
    shape = PlainShape(type=_SHOWN_ON.get(spec.kind, "ellipse"))
    sizes = {"width": Channel(base=width), "height": Channel(base=height)}
    plain = ShapeObject(id="shown", name="Shown", kind="shape", shape=shape, channels=sizes)
    before = drawables(bake(Scene(length=1, objects=(plain,))))["shown"].outline.outlines[0]
    after = drawables(bake(Scene(length=1, objects=(plain.but(rules=(rule,)),))))["shown"].outline.outlines[0]
    flat = np.zeros(1)
    return _pictured(spec, flat, flat).model_copy(update={"drawn": tuple(path_data(one, decimals=1) for one in (before, after))})


def _joint_rule(spec: RuleSpec) -> RuleWords:
    """A rule that moves joints, shown on the first of them that it moves."""
    figure = STARTERS["two-legs"].figure
    rule = Rule(id="shown", kind=spec.kind, settings={n: v if isinstance(v, str) else Channel(base=v) for n, v in spec.telling.items()})
    plain = FigureObject(id="shown", name="Shown", kind="figure", figure=figure)
    target = ShapeObject(id="leader", name="Leader", kind="shape", shape=PlainShape(type="ellipse"), channels={"x": _PASSING, "y": _ABOVE})
    channel = spec.telling_of or next(iter(plain.joints_of(rule)))
    scenes = (Scene(length=PICTURE_POINTS, objects=(thing, target)) for thing in (plain, plain.but(rules=(rule,))))
    before, after = (bake(scene)["Shown", channel] for scene in scenes)
    return _pictured(spec, before, after)


def _pictured(spec: RuleSpec, before: NDArray[np.float64], after: NDArray[np.float64], *, falling: bool = False) -> RuleWords:
    low, high = float(min(before.min(), after.min())), float(max(before.max(), after.max()))
    # y grows downwards: what falls is drawn falling.
    shares = [(one - low) / (high - low or 1) for one in (before, after)]
    drawn = [(1 - share if falling else share).round(3).tolist() for share in shares]
    settings = [
        SettingWords(**{name: getattr(s, name) for name in SettingWords.model_fields if name != "choices"}, choices=list(s.choices))
        for s in spec.settings.values()
    ]
    words = {name: getattr(spec, name) for name in ("kind", "label", "about", "summary", "of")}
    lists: dict[str, Any] = {"acts": list(spec.acts), "modes": list(spec.modes), "settings": settings, "before": drawn[0], "after": drawn[1]}
    return RuleWords(**words, **lists, joints=spec.joints is not None, on_outlines=spec.fits("outline"))


def _words(spec: ChannelSpec) -> ChannelWords:
    return ChannelWords(**{name: getattr(spec, name) for name in ChannelWords.model_fields})
