"""What routes are handed: the sessions and the export jobs of the running application."""

from typing import Annotated

from fastapi import Depends, Request

from vine_swing.service.exports import Exports
from vine_swing.service.sessions import Sessions


def _sessions(request: Request) -> Sessions:
    sessions: Sessions = request.app.state.sessions
    return sessions


def _exports(request: Request) -> Exports:
    exports: Exports = request.app.state.exports
    return exports


SessionsDep = Annotated[Sessions, Depends(_sessions)]
ExportsDep = Annotated[Exports, Depends(_exports)]
