"""Errors as problem documents (RFC 9457). One table says which exception is which status."""

import logging
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ValidationError
from starlette.exceptions import HTTPException

from vine_swing.motion.basics.errors import MotionError, NoSuchThing, SceneFileError, shortened
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
    """A problem document as an answer."""
    return _answer(Problem(title=title, status=status, detail=detail, **more))


def _answer(problem: Problem) -> JSONResponse:
    return JSONResponse(problem.model_dump(exclude_none=True), problem.status, media_type=MEDIA_TYPE)


def problem_of(error: BaseException) -> Problem:
    """Return what the client is informed of an error, in at most 500 characters. An error that no table knows is logged."""
    problem = _problem_of(error)
    return problem.model_copy(update={"detail": shortened(problem.detail)})


def _problem_of(error: BaseException) -> Problem:
    if isinstance(error, RequestValidationError | ValidationError):
        every = error.errors()
        if any(fault["type"] == "json_invalid" for fault in every):
            return Problem(status=400, title="Not JSON", detail=f"the request is not JSON: {every[0]['ctx']['error']}")
        return Problem(status=422, title="The request does not fit", detail="; ".join(sentences([_within_body(fault) for fault in every])))
    if isinstance(error, HTTPException):
        return Problem(status=error.status_code, title="Not possible", detail=str(error.detail))
    for kind in type(error).__mro__:
        if kind in STATUS:
            status, title = STATUS[kind]
            return Problem(status=status, title=title, detail=str(error), revision=error.current if isinstance(error, OldRevision) else None)
    _log.error("a request met an error nobody foresaw", exc_info=error)
    return Problem(status=500, title="Something went wrong", detail=UNFORESEEN)


def install(app: FastAPI) -> None:
    """Make the application answer every error with a problem document."""

    async def answer(request: Request, error: Exception) -> JSONResponse:
        return _answer(problem_of(error))

    for kind in (*STATUS, RequestValidationError, HTTPException):
        app.add_exception_handler(kind, answer)


def unforeseen(error: BaseException) -> JSONResponse:
    """The answer to an error that got past everything else."""
    return _answer(problem_of(error))


def _within_body(fault: Any) -> Any:
    """A fault with its place within the request's body."""
    loc = fault["loc"]
    return {**fault, "loc": loc[1:] if loc and loc[0] in ("body", "query", "path") else loc}
