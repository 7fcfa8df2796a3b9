"""The line between a page and a scene it has open: who else is there, and what others do to it, as it happens (RFC 6455)."""

import asyncio
import contextlib
from typing import Annotated

from fastapi import APIRouter, Path, Query, WebSocket, WebSocketDisconnect
from fastapi.responses import Response

from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep
from vine_swing.service.routes.scenes import CHANGED, MOST_PAGE_ID, Accepted, Changed, PageQuery, answered
from vine_swing.service.sessions import Sessions, whole_of
from vine_swing.service.watching import News, Watcher, plain_text

router = api_router("watching")
#: Messages that the service sends by itself, for the OpenAPI document.
documented = APIRouter(tags=["watching"])
PageId = Annotated[str, Query(min_length=1, max_length=MOST_PAGE_ID, pattern=r"^[A-Za-z0-9_-]+$")]
#: The close code for a message of a kind that cannot be accepted (RFC 6455, 7.4.1).
NOT_TEXT = 1003
#: What a user may be called.
MOST_NAME = 40


@router.get("/scenes/{scene_id}/changes", responses=CHANGED, response_model=None)
def changes(
    scene_id: SceneId,
    since: Annotated[int, Query(ge=0)],
    sessions: SessionsDep,
    deadline: DeadlineDep,
    page: PageQuery = None,
    accept: Accepted = "",
) -> Changed | Response:
    """What has changed after a revision, whoever did it. Answers as edits do; what undo would do is told for this page."""
    with sessions.use(scene_id, deadline) as used:
        return answered(sessions, scene_id, used, used.session.before(since, used.inset), since, page, deadline, accept)


@documented.post("news")
def news(body: News) -> None:
    """What `/api/scenes/{scene_id}/watch`, a WebSocket, sends to a page, one JSON text at a time."""


@router.websocket("/scenes/{scene_id}/watch")
async def watch(socket: WebSocket, scene_id: Annotated[str, Path(max_length=130)], page: PageId) -> None:
    """Tell a page of each change of a scene and of who has it open, until it goes. What it sends is what its user is called from now on."""
    sessions: Sessions = socket.app.state.sessions
    whole = whole_of(scene_id)
    if sessions.store.line(whole) is None:
        await socket.close(4404, "there is no such scene")
        return
    await socket.accept()
    with sessions.watchers.joined(whole, page) as watcher:
        sending = asyncio.create_task(_send(socket, watcher))
        try:
            while (message := await socket.receive())["type"] != "websocket.disconnect":
                name = message.get("text")
                if name is None:
                    await socket.close(NOT_TEXT, "what its user is called is sent as text")
                    break
                sessions.watchers.call(whole, watcher, plain_text(name)[:MOST_NAME])
        finally:
            sending.cancel()
            with contextlib.suppress(asyncio.CancelledError, WebSocketDisconnect, RuntimeError):
                await sending


async def _send(socket: WebSocket, watcher: Watcher) -> None:
    while True:
        await socket.send_text((await watcher.news.get()).model_dump_json())
