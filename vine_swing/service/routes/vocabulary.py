"""What there is to choose from: channels, shapes, feels, ends, formats. The page's menus read it."""

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel

from vine_swing.formats import EXPORTS
from vine_swing.motion import ease
from vine_swing.motion.ease import FEELS
from vine_swing.motion.ends import ENDS, EndMode
from vine_swing.motion.specs import GROUP_CHANNELS, SHAPE_CHANNELS, ChannelSpec, Family, Unit
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
    """An export format."""

    name: str
    label: str
    suffix: str
    about: str


class Vocabulary(BaseModel):
    """Everything the menus offer. `channels` is by shape type, and under "group" for groups."""

    channels: dict[str, list[ChannelWords]]
    feels: list[FeelWords]
    ends: list[EndWords]
    formats: list[FormatWords]


@router.get("/vocabulary")
def vocabulary() -> Vocabulary:
    """Everything there is to choose from."""
    u = np.linspace(0, 1, PICTURE_POINTS)
    kinds = {**SHAPE_CHANNELS, "group": GROUP_CHANNELS}
    return Vocabulary(
        channels={kind: [_words(spec) for spec in specs.values()] for kind, specs in kinds.items()},
        feels=[FeelWords(name=f.name, label=f.label, about=f.about, curve=ease.build(f.ease).at(u).round(4).tolist()) for f in FEELS.values()],
        ends=[EndWords(mode=e.mode, label=e.label, about=e.about) for e in ENDS.values()],
        formats=[FormatWords(name=f.name, label=f.label, suffix=f.suffix, about=f.about) for f in EXPORTS.values()],
    )


def _words(spec: ChannelSpec) -> ChannelWords:
    return ChannelWords(**{name: getattr(spec, name) for name in ChannelWords.model_fields})
