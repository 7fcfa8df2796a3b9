"""The page of the principles: their words, their small scenes as motion and as files."""

from functools import cache

from fastapi.responses import Response
from pydantic import BaseModel

from vine_swing.motion import dump
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.principles import Principle, principles
from vine_swing.service import wire
from vine_swing.service.api import api_router
from vine_swing.service.motion import Motion

router = api_router("principles")


class PrincipleWords(BaseModel):
    """A principle; see vine_swing.principles."""

    name: str
    label: str
    about: str
    ours: str
    beware: str
    width: int
    height: int


@router.get("/principles")
def all_principles() -> list[PrincipleWords]:
    """The twelve, in order."""
    return [
        PrincipleWords(name=p.name, label=p.label, about=p.about, ours=p.ours, beware=p.beware, width=p.scene.size[0], height=p.scene.size[1])
        for p in principles().values()
    ]


@router.get("/principles/{name}/motion", response_class=Response)
def motion(name: str) -> Response:
    """A principle's scene, baked, as the page paints it."""
    return Response(_motion(_named(name).name), media_type=wire.MEDIA_TYPE)


@router.get("/principles/{name}/file", response_class=Response)
def file(name: str) -> Response:
    """A principle's scene as a scene file."""
    return Response(dump(_named(name).scene), media_type="application/json")


def _named(name: str) -> Principle:
    found = principles().get(name)
    if found is None:
        raise NoSuchThing(f"there is no principle '{name}'; there is {', '.join(principles())}")
    return found


@cache
def _motion(name: str) -> bytes:
    """They never change while the service runs."""
    return Motion.of(principles()[name].scene, 0).message()
