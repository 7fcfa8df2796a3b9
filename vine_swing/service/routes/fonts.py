"""The fonts that texts can be set in, each with its name as a sample of itself."""

from functools import cache

from fastapi.responses import PlainTextResponse
from pydantic import BaseModel

from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.outline.text import FAMILIES, Setting, typeset
from vine_swing.service.api import api_router

router = api_router("vocabulary")
#: Of samples, in px.
_SIZE = 20.0


class FontWords(BaseModel):
    """A family of fonts; `sample` is its label set in itself, as SVG path data on a baseline at y = 0, `width` px wide at size 20."""

    name: str
    label: str
    about: str
    weights: list[int]
    sample: str
    width: float


@router.get("/fonts")
def all_fonts() -> list[FontWords]:
    """The shipped families."""
    return _fonts()


@router.get("/fonts/{name}/licence", response_class=PlainTextResponse)
def licence(name: str) -> str:
    """The licence of a shipped family."""
    if name not in FAMILIES:
        raise NoSuchThing(f"there is no font '{name}'; there is {', '.join(FAMILIES)}")
    return FAMILIES[name].licence


@cache
def _fonts() -> list[FontWords]:
    found = []
    for family in FAMILIES.values():
        sample = typeset(family.label, Setting(family.name, 400, "left", None, 0.0, 1.2))
        data = path_data(sample.outline(_SIZE))
        found.append(
            FontWords(name=family.name, label=family.label, about=family.about, weights=list(family.weights), sample=data, width=sample.width * _SIZE)
        )
    return found
