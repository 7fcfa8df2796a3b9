"""Ready elements: their words, their motion for moving pictures, and what they consist of."""

from functools import cache

from fastapi.responses import Response
from pydantic import BaseModel

from vine_swing.elements import Element, elements
from vine_swing.motion import dump
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.service import wire
from vine_swing.service.api import api_router
from vine_swing.service.motion import Motion

router = api_router("vocabulary")


class ElementWords(BaseModel):
    """A ready element; see vine_swing.elements."""

    name: str
    label: str
    about: str
    width: int
    height: int


@router.get("/elements")
def all_elements() -> list[ElementWords]:
    """All ready elements, in order."""
    return [ElementWords(name=e.name, label=e.label, about=e.about, width=e.scene.size[0], height=e.scene.size[1]) for e in elements().values()]


@router.get("/elements/{name}/motion", response_class=Response)
def motion(name: str) -> Response:
    """An element's scene, baked, as the page paints it."""
    return Response(_motion(_named(name).name), media_type=wire.MEDIA_TYPE)


@router.get("/elements/{name}/file", response_class=Response)
def file(name: str) -> Response:
    """An element's scene as a scene file."""
    return Response(dump(_named(name).scene), media_type="application/json")


def _named(name: str) -> Element:
    found = elements().get(name)
    if found is None:
        raise NoSuchThing(f"there is no element '{name}'; there is {', '.join(elements())}")
    return found


@cache
def _motion(name: str) -> bytes:
    """They never change while the service runs."""
    return Motion.of(elements()[name].scene, 0).message()
