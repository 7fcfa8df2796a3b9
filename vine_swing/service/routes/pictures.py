"""Pictures: bringing files in, and handing them out to be painted."""

from enum import IntEnum
from typing import Annotated

from fastapi import Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from vine_swing.formats.bring_in import MOST_BYTES, reduced
from vine_swing.formats.isolated import ReadPictures
from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.motion.scene.kept import KeptPicture
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SessionsDep
from vine_swing.service.files import FILE_BODY, file_body, plain_name

router = api_router("pictures")
_MAGIC = {b"\x89PNG": "image/png", b"\xff\xd8\xff": "image/jpeg", b"RIFF": "image/webp"}


class Wide(IntEnum):
    """How many pixels wide a smaller version of a picture is at least."""

    SMALL = 512
    MEDIUM = 1024
    LARGE = 2048


class BroughtPictures(BaseModel):
    """The pages of a file that was brought in, to be put into a scene by an edit; `seconds` is how long each is shown, of one that moves."""

    pictures: list[KeptPicture]
    seconds: float | None


@router.post("/pictures", openapi_extra=FILE_BODY)
async def bring(request: Request, name: Annotated[str, Query(max_length=200)], deadline: DeadlineDep) -> BroughtPictures:
    """Bring a file in: its content is the body of the request. It is kept for good once a scene uses it."""
    shown = plain_name(name)
    data = await file_body(request, shown, MOST_BYTES, "make it smaller")
    read: ReadPictures = await run_in_threadpool(deadline.read, "pictures", data, shown)
    many = len(read.pages) > 1
    pictures = [
        KeptPicture(id=picture_id, name=f"{shown[:70]} {number}" if many else shown, width=page.width, height=page.height)
        for number, (picture_id, page) in enumerate(zip(read.ids, read.pages, strict=True), 1)
    ]
    return BroughtPictures(pictures=pictures, seconds=read.seconds)


@router.get("/pictures/{picture_id}", response_class=Response, responses={200: {"content": {"image/png": {}, "image/jpeg": {}, "image/webp": {}}}})
def picture(picture_id: str, sessions: SessionsDep, wide: Wide | None = None) -> Response:
    """A picture that some scene keeps, or that was just brought in; with `wide`, halved as often as leaves it at least that many pixels wide."""
    data = PICTURE_FILES.data_of(picture_id) if PICTURE_FILES.has(picture_id) else sessions.store.content(picture_id)
    if data is None:
        raise NoSuchThing(f"there is no picture '{picture_id}'; it may have been deleted")
    if wide is not None:
        known = sessions.store.reduced.find(picture_id, wide)
        if known is None:
            known = reduced(data, wide)
            if known is not data:
                sessions.store.reduced.keep(picture_id, wide, known)
        data = known
    kind = next((kind for magic, kind in _MAGIC.items() if data.startswith(magic)), "application/octet-stream")
    return Response(data, media_type=kind, headers={"cache-control": "public, max-age=31536000, immutable"})
