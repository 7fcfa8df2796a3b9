"""What all addresses of the service share: how they begin, which errors they answer with, and how JSON bodies are read."""

import json
from collections.abc import Awaitable, Callable
from typing import Any

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.routing import APIRoute
from pydantic_core import from_json

from vine_swing.motion.basics.json_size import check_fields
from vine_swing.service.problems import RESPONSES

#: Bytes of a JSON body that is parsed at once; a longer one is parsed by another thread, so that nobody else waits for it.
_SHORT = 100_000


class JsonRequest(Request):
    """A request whose JSON body is read without blocking others, and refused where it holds what no scene can: lone surrogates, NaN, or an object
    with this many fields that a message about each of them would exhaust the memory."""

    async def json(self) -> Any:
        """Return the parsed body.

        Raises:
            json.JSONDecodeError: if it is not JSON, or refused.
        """
        body = await self.body()
        return _parsed(body) if len(body) < _SHORT else await run_in_threadpool(_parsed, body)


class JsonRoute(APIRoute):
    """A route that hands its handler a `JsonRequest`."""

    def get_route_handler(self) -> Callable[[Request], Awaitable[Response]]:  # type: ignore[override]
        """Wrap the usual handler, as FastAPI's documentation of custom routes describes."""
        handler = super().get_route_handler()

        async def handle(request: Request) -> Response:
            return await handler(JsonRequest(request.scope, request.receive))

        return handle


def api_router(tag: str) -> APIRouter:
    """A router for addresses that begin with /api, listed under a tag. Its routes are complete, so that an application takes them over as they are:
    including the router would read the signatures of all of them once more."""
    return APIRouter(prefix="/api", tags=[tag], responses=RESPONSES, route_class=JsonRoute)


def _parsed(body: bytes) -> Any:
    try:
        data = from_json(body, allow_inf_nan=False)
        if len(body) >= _SHORT:
            check_fields(data)
    except ValueError as error:
        raise json.JSONDecodeError(str(error), "", 0) from error
    return data
