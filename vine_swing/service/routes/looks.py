"""Looks over a WebSocket (RFC 6455): while a hand moves, each comes right after the last, and a request costs more than the look itself."""

import asyncio
import contextlib
import threading
from typing import Annotated

from fastapi import Path, WebSocket
from fastapi.concurrency import run_in_threadpool
from starlette.websockets import WebSocketDisconnect

from vine_swing.service.api import api_router
from vine_swing.service.deadline import Deadline
from vine_swing.service.problems import problem_of
from vine_swing.service.routes.scenes import EditBatch
from vine_swing.service.routes.watching import NOT_TEXT
from vine_swing.service.sessions import Sessions

router = api_router("motion")
#: Looks that may wait for the one being computed. A page sends the next one when it has been answered.
_WAITING = 4


@router.websocket("/scenes/{scene_id}/looks")
async def looks(socket: WebSocket, scene_id: Annotated[str, Path(max_length=130)]) -> None:
    """Answer as `POST /scenes/{scene_id}/look` does, for as long as a page likes: each text that comes is the body of such a request, each answer its
    bytes or, as text, its problem document, in the order of what was asked."""
    sessions: Sessions = socket.app.state.sessions
    await socket.accept()
    coming: asyncio.Queue[str | None] = asyncio.Queue(_WAITING)
    gone = threading.Event()
    reading = asyncio.create_task(_read(socket, coming, gone))
    try:
        while (text := await coming.get()) is not None:
            answer = await run_in_threadpool(_look, sessions, scene_id, text, Deadline(gone=gone))
            with contextlib.suppress(WebSocketDisconnect, RuntimeError):
                await (socket.send_bytes(answer) if isinstance(answer, bytes) else socket.send_text(answer))
    finally:
        gone.set()
        reading.cancel()
        with contextlib.suppress(asyncio.CancelledError):
            await reading


async def _read(socket: WebSocket, coming: asyncio.Queue[str | None], gone: threading.Event) -> None:
    """Pass on what comes; None, once nothing more does. `gone` is set then, so that nothing is computed for nobody."""
    while (message := await socket.receive())["type"] != "websocket.disconnect":
        text = message.get("text")
        if text is None:
            await socket.close(NOT_TEXT, "what to look at is sent as text")
            break
        await coming.put(text)
    gone.set()
    await coming.put(None)


def _look(sessions: Sessions, scene_id: str, text: str, deadline: Deadline) -> bytes | str:
    """The motion as some edits would make it, or a problem document."""
    try:
        batch = EditBatch.model_validate_json(text)
        return sessions.look(scene_id, batch.edits, revision=batch.revision, deadline=deadline)
    except Exception as error:
        return problem_of(error).model_dump_json(exclude_none=True)
