"""What routes are handed: the sessions, exports, notes and rehearsals of the running application, and how long a request may work."""

import asyncio
from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import Depends, Path, Request

from vine_swing.service.deadline import Deadline
from vine_swing.service.exports import Exports
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


async def _deadline(request: Request) -> AsyncIterator[Deadline]:
    deadline = Deadline()

    async def watch() -> None:
        while not await request.is_disconnected():
            await asyncio.sleep(_EVERY)
        deadline.gone.set()

    watching = asyncio.create_task(watch())
    try:
        yield deadline
    finally:
        watching.cancel()


SessionsDep = Annotated[Sessions, Depends(_sessions)]
NotesDep = Annotated[Notes, Depends(_notes)]
ExportsDep = Annotated[Exports, Depends(_exports)]
RehearsalsDep = Annotated[Rehearsals, Depends(_rehearsals)]
DeadlineDep = Annotated[Deadline, Depends(_deadline)]

#: A scene by its id, or one inside it by both ids, `whole~inner`, in the address of a request.
SceneId = Annotated[str, Path(max_length=130)]
