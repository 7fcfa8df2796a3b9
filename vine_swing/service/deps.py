"""What routes are handed: the sessions, exports, notes and rehearsals of the running application, and how long a request may work."""

import asyncio
from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import Depends, Header, Path, Request

from vine_swing.service.deadline import Deadline
from vine_swing.service.exports import Exports
from vine_swing.service.guard import BODY_READ
from vine_swing.service.notes import Notes
from vine_swing.service.rehearsals import Rehearsals
from vine_swing.service.sessions import Sessions

#: How often it is looked whether whoever asked is still there, in seconds.
_EVERY = 0.25


def _sessions(request: Request) -> Sessions:
    sessions: Sessions = request.app.state.sessions
    return sessions


def _exports(request: Request) -> Exports:
    exports: Exports = request.app.state.exports
    return exports


def _notes(request: Request) -> Notes:
    notes: Notes = request.app.state.notes
    return notes


def _rehearsals(request: Request) -> Rehearsals:
    rehearsals: Rehearsals = request.app.state.rehearsals
    return rehearsals


#: What a page calls a request that may take long, so that it can ask how far it has come.
WORK_ID = r"^[A-Za-z0-9_-]{1,40}$"


def _works(request: Request) -> dict[str, Deadline]:
    works: dict[str, Deadline] = request.app.state.works
    return works


async def _deadline(request: Request, x_work: Annotated[str | None, Header(pattern=WORK_ID)] = None) -> AsyncIterator[Deadline]:
    deadline = Deadline()
    works = _works(request)
    if x_work is not None:
        works[x_work] = deadline

    async def watch() -> None:
        await request.scope[BODY_READ].wait()
        while not await request.is_disconnected():
            await asyncio.sleep(_EVERY)
        deadline.gone.set()

    watching = asyncio.create_task(watch())
    try:
        yield deadline
    finally:
        watching.cancel()
        if x_work is not None and works.get(x_work) is deadline:
            del works[x_work]


SessionsDep = Annotated[Sessions, Depends(_sessions)]
NotesDep = Annotated[Notes, Depends(_notes)]
ExportsDep = Annotated[Exports, Depends(_exports)]
RehearsalsDep = Annotated[Rehearsals, Depends(_rehearsals)]
WorksDep = Annotated[dict[str, Deadline], Depends(_works)]
DeadlineDep = Annotated[Deadline, Depends(_deadline)]

#: A scene by its id, or one inside it by both ids, `whole~inner`, in the address of a request.
SceneId = Annotated[str, Path(max_length=130)]
