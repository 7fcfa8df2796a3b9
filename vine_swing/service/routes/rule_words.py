"""The rules as menus offer them: their settings in words, and a picture of what each does."""

import base64
from functools import cache
from threading import Lock
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics import colour
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.rules import RULES, RuleSpec
from vine_swing.motion.rules.rule import Rule, Setting
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import FigureObject, GroupObject, ShapeObject
from vine_swing.motion.scene.shapes import PlainShape
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.picture.drawable import drawables
from vine_swing.picture.preview import still
from vine_swing.service.routes.feels import PICTURE_POINTS


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
    holds: Literal["number", "colour"]


class RuleWords(BaseModel):
    """A kind of rule, with its picture: what a move becomes under it, beside the move itself; of a rule on outlines, `drawn` is an outline before and
    after it as SVG path data; of a rule on looks, `shown` is a picture under it, as a data URL. `on_outlines` tells which rules of numbers act on
    outlines too."""

    kind: str
    label: str
    about: str
    summary: str
    acts: list[str]
    of: Literal["number", "colour", "outline", "look"]
    on_outlines: bool
    modes: list[str]
    joints: bool
    settings: list[SettingWords]
    before: list[float]
    after: list[float]
    drawn: tuple[str, str] | None = None
    shown: str | None = None


_MOVE = Channel(keys=(Key(frame=10, value=0.0, ease="slow-out-in"), Key(frame=34, value=100.0)))


_PASSING = Channel(keys=(Key(frame=4, value=300.0, ease="slow-out-in"), Key(frame=40, value=-200.0)))
_ABOVE = Channel(base=-260.0)
_DUSK = Dial(id="shown", name="Shown", channel=Channel(keys=(Key(frame=10, value="#2C4A3B", ease="slow-out-in"), Key(frame=34, value="#F6D58A"))))


def _drawn(values: NDArray[np.float64]) -> NDArray[np.float64]:
    """Numbers as they are, colours by their lightness."""
    return values if values.ndim == 1 else colour.to_oklab(values)[:, 0]


_BEING_MADE = Lock()


def rule_words() -> list[RuleWords]:
    """The words of every rule. Their pictures are baked once, and never change while the service runs; who asks meanwhile waits."""
    with _BEING_MADE:
        return _all_words()


@cache
def _all_words() -> list[RuleWords]:
    return [_rule(spec) for spec in RULES.values()]


def _example(spec: RuleSpec) -> dict[str, Setting]:
    """The settings a rule has in its picture."""
    return {name: value if isinstance(value, str) else Channel(base=value) for name, value in spec.example.items()}


def _rule(spec: RuleSpec) -> RuleWords:
    if spec.joints is not None:
        return _joint_rule(spec)
    if spec.value_kind == "outline":
        return _outline_rule(spec)
    if spec.value_kind == "look":
        return _look_rule(spec)
    acts = spec.for_channels or ("x",)
    rule = Rule(id="shown", kind=spec.kind, channels=acts, mode=spec.modes[0] if spec.modes else "add", settings=_example(spec))
    moves = {"fill": Channel(base="#2C4A3B")} if spec.value_kind == "colour" else {"x": _MOVE} if acts[0] != "y" else {}
    if spec.own_keys_read:
        moves["y"] = _MOVE.copy_with(keys=tuple(key.copy_with(value=-key.number) for key in _MOVE.keys))
    plain = ShapeObject(id="shown", name="Shown", kind="shape", shape=PlainShape(type="ellipse"), channels=moves)
    leader = plain.copy_with(id="leader", name="Leader")
    scenes = (Scene(length=PICTURE_POINTS, objects=(thing, leader), dials=(_DUSK,)) for thing in (plain, plain.copy_with(rules=(rule,))))
    before, after = (_drawn(bake(scene)["Shown", acts[0]]) for scene in scenes)
    return _pictured(spec, before, after, falling=acts[0] == "y")


#: What rules on outlines are shown on, by the kind of rule: a disc, unless another shape says more.
_SHOWN_ON = {"taper": "rectangle", "bend": "rectangle", "round": "star", "swirl": "rectangle", "draw-on": "star"}
_SHOWN_WIDE = {"taper": (70.0, 40.0), "bend": (80.0, 20.0), "swirl": (60.0, 40.0)}


def _outline_rule(spec: RuleSpec) -> RuleWords:
    """A rule on outlines, shown on a shape within 80 × 60 px about its middle."""
    rule = Rule(id="shown", kind=spec.kind, settings=_example(spec))
    width, height = _SHOWN_WIDE.get(spec.kind, (44.0, 44.0))
    shape = PlainShape(type=_SHOWN_ON.get(spec.kind, "ellipse"))
    sizes = {"width": Channel(base=width), "height": Channel(base=height)}
    plain = ShapeObject(id="shown", name="Shown", kind="shape", shape=shape, channels=sizes)
    before = drawables(bake(Scene(length=1, objects=(plain,))))["shown"].outline.outlines[0]
    after = drawables(bake(Scene(length=1, objects=(plain.copy_with(rules=(rule,)),))))["shown"].outline.outlines[0]
    flat = np.zeros(1)
    return _pictured(spec, flat, flat).model_copy(update={"drawn": tuple(path_data(one, decimals=1) for one in (before, after))})


#: What rules on looks are shown on, a letter with a seal, in px about the middle: shape, x, y, width, height and fill.
_LETTER = (("rectangle", 0, 0, 52, 34, "#F6D58A"), ("rectangle", 0, -5, 30, 3, "#8A6A3B"), ("ellipse", 13, 6, 13, 13, "#D0365B"))
#: How large the picture of a rule on looks is, px, and how many pixels of it are one.
_LOOK_SIZE, _LOOK_SCALE = (88, 50), 2


def _look_rule(spec: RuleSpec) -> RuleWords:
    """A rule on looks, shown on a letter."""
    rule = Rule(id="shown", kind=spec.kind, settings=_example(spec), channels=spec.for_channels)
    middle = {"x": Channel(base=_LOOK_SIZE[0] / 2), "y": Channel(base=_LOOK_SIZE[1] / 2)}
    letter = GroupObject(id="shown", name="Shown", kind="group", channels=middle, rules=(rule,))

    def part(object_id: str, parent: str | None, kind: Any, **values: float | str) -> ShapeObject:
        channels = {name: Channel(base=value) for name, value in values.items()}
        return ShapeObject(id=object_id, name=object_id, kind="shape", shape=PlainShape(type=kind), parent=parent, channels=channels)

    parts = [part(f"p{n}", "shown", kind, x=x, y=y, width=w, height=h, fill=fill) for n, (kind, x, y, w, h, fill) in enumerate(_LETTER)]
    spot = part("leader", None, "ellipse", x=50.0, y=25.0, width=46.0, height=40.0).copy_with(shown=False)
    baked = bake(Scene(length=1, size=_LOOK_SIZE, objects=(spot, letter, *parts)))
    shown = f"data:image/png;base64,{base64.b64encode(still(baked, 0, _LOOK_SCALE, background=False)).decode()}"
    flat = np.zeros(1)
    return _pictured(spec, flat, flat).model_copy(update={"shown": shown})


def _joint_rule(spec: RuleSpec) -> RuleWords:
    """A rule that moves joints, shown on the first of them that it moves."""
    figure = STARTERS["two-legs"].figure
    rule = Rule(id="shown", kind=spec.kind, settings=_example(spec))
    plain = FigureObject(id="shown", name="Shown", kind="figure", figure=figure)
    target = ShapeObject(id="leader", name="Leader", kind="shape", shape=PlainShape(type="ellipse"), channels={"x": _PASSING, "y": _ABOVE})
    channel = spec.example_channel or next(iter(plain.joints_of(rule)))
    scenes = (Scene(length=PICTURE_POINTS, objects=(thing, target)) for thing in (plain, plain.copy_with(rules=(rule,))))
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
    return RuleWords(
        kind=spec.kind,
        label=spec.label,
        about=spec.about,
        summary=spec.summary,
        acts=list(spec.for_channels),
        of=spec.value_kind,
        on_outlines=spec.fits("outline"),
        modes=list(spec.modes),
        joints=spec.joints is not None,
        settings=settings,
        before=drawn[0],
        after=drawn[1],
    )
