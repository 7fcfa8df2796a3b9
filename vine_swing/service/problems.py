"""Errors as problem documents (RFC 9457). One table says which exception is which status."""

from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from vine_swing.motion.errors import MotionError, NoSuchThing, SceneFileError
from vine_swing.motion.scene_file import sentences
from vine_swing.store import OldRevision, SceneNotFound

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
}
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


def _within_body(fault: Any) -> Any:
    """A fault with its place within the request's body."""
    loc = fault["loc"]
    return {**fault, "loc": loc[1:] if loc and loc[0] in ("body", "query", "path") else loc}
