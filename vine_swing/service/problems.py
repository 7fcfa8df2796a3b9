"""Errors as problem documents (RFC 9457). One table says which exception is which status."""

import logging
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from vine_swing.motion.basics.errors import MotionError, NoSuchThing, SceneFileError
from vine_swing.motion.scene.scene_file import sentences
from vine_swing.service.deadline import ClientGone
from vine_swing.service.sessions import SceneBusy
from vine_swing.store import InTheWay, OldRevision, SceneNotFound, StoreBusy, StoreError, StoreFull

MEDIA_TYPE = "application/problem+json"


class Problem(BaseModel):
    """What went wrong, in a sentence a person can act on."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    #: The scene's revision now, where the one given was old.
    revision: int | None = None


#: Exceptions with their status and title; the first match along the class hierarchy counts.
STATUS: dict[type[Exception], tuple[int, str]] = {
    OldRevision: (409, "The scene has moved on"),
    SceneNotFound: (404, "No such scene"),
    NoSuchThing: (404, "Not in this scene"),
    SceneFileError: (422, "Not a scene file"),
    MotionError: (422, "This does not fit the scene"),
    SceneBusy: (429, "The scene is busy"),
    ClientGone: (499, "Nobody waits any more"),
    InTheWay: (422, "Others have changed it since"),
    StoreFull: (507, "The disk is full"),
    StoreBusy: (503, "The data file is locked"),
    StoreError: (500, "The data file cannot be used"),
}
#: What whoever meets an error nobody foresaw can do.
UNFORESEEN = "something went wrong that should not have; nothing was changed. Load the page anew and try again; the server's log says more"
_log = logging.getLogger("vine_swing")
RESPONSES: dict[int | str, dict[str, Any]] = {
    code: {"model": Problem, "description": text, "content": {MEDIA_TYPE: {}}}
    for code, text in ((404, "No such scene or thing"), (409, "The revision is old"), (422, "The request does not fit"))
}


def response(status: int, title: str, detail: str, **more: Any) -> JSONResponse:
    """A problem document."""
    problem = Problem(title=title, status=status, detail=detail, **more)
    return JSONResponse(problem.model_dump(exclude_none=True), status, media_type=MEDIA_TYPE)


def install(app: FastAPI) -> None:
    """Make the application answer every error with a problem document."""

    async def known(request: Request, error: Exception) -> JSONResponse:
        status, title = next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)
        more = {"revision": error.current} if isinstance(error, OldRevision) else {}
        return response(status, title, str(error), **more)

    for kind in STATUS:
        app.add_exception_handler(kind, known)

    async def invalid(request: Request, error: Exception) -> JSONResponse:
        assert isinstance(error, RequestValidationError)
        every = error.errors()
        if any(fault["type"] == "json_invalid" for fault in every):
            return response(400, "Not JSON", f"the request is not JSON: {every[0]['ctx']['error']}")
        return response(422, "The request does not fit", "; ".join(sentences([_within_body(fault) for fault in every])))

    app.add_exception_handler(RequestValidationError, invalid)

    async def http(request: Request, error: Exception) -> JSONResponse:
        assert isinstance(error, HTTPException)
        return response(error.status_code, "Not possible", str(error.detail))

    app.add_exception_handler(HTTPException, http)


def unforeseen(error: BaseException) -> JSONResponse:
    """The answer to an error that no table knows; it is logged, once."""
    for kind in type(error).__mro__:
        if kind in STATUS:
            status, title = STATUS[kind]
            return response(status, title, str(error))
    _log.error("a request met an error nobody foresaw", exc_info=error)
    return response(500, "Something went wrong", UNFORESEEN)


def _within_body(fault: Any) -> Any:
    """A fault with its place within the request's body."""
    loc = fault["loc"]
    return {**fault, "loc": loc[1:] if loc and loc[0] in ("body", "query", "path") else loc}
