"""Putting the application together."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from threading import Thread

from fastapi import FastAPI
from fastapi.openapi.docs import get_swagger_ui_html
from fastapi.responses import HTMLResponse

from vine_swing import __version__
from vine_swing.service import problems
from vine_swing.service.exports import Exports
from vine_swing.service.guard import Guard
from vine_swing.service.memory import Trimmer
from vine_swing.service.notes import Notes
from vine_swing.service.page import serve_page
from vine_swing.service.preparing import prepare
from vine_swing.service.rehearsals import Rehearsals
from vine_swing.service.routes import (
    backups,
    bringing,
    elements,
    exports,
    feels,
    fonts,
    links,
    looks,
    motion,
    notes,
    outlines,
    pictures,
    principles,
    rehearsals,
    scenes,
    sizes,
    sounds,
    vocabulary,
    watching,
    work,
)
from vine_swing.service.sessions import Sessions
from vine_swing.store import SceneStore

WEB = Path(__file__).resolve().parents[2] / "web" / "dist"


def create_app(store: SceneStore, *, web: Path = WEB, farm: str | None = None) -> FastAPI:
    """The service over a store; it also serves the built page, where there is one. farm: the address of a scheduler whose machines paint exports."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        Thread(target=prepare, name="preparing", daemon=True).start()
        trimmer = Trimmer()
        yield
        trimmer.close()
        app.state.exports.close()

    app = FastAPI(
        title="Vine Swing",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=lifespan,
        webhooks=watching.documented,
    )
    app.state.sessions = Sessions(store)
    app.state.exports = Exports(store, farm=farm)
    app.state.end_now = app.state.exports.end_now
    app.state.notes = Notes()
    app.state.rehearsals = Rehearsals(app.state.sessions)
    app.state.works = {}
    problems.install(app)
    for router in (
        scenes.router,
        motion.router,
        looks.router,
        exports.router,
        vocabulary.router,
        feels.router,
        fonts.router,
        outlines.router,
        pictures.router,
        bringing.router,
        elements.router,
        principles.router,
        links.router,
        notes.router,
        rehearsals.router,
        sounds.router,
        backups.router,
        watching.router,
        sizes.router,
        work.router,
    ):
        app.router.routes.extend(router.routes)
    app.add_middleware(Guard)
    _serve_docs(app)
    serve_page(app, web)
    return app


def _serve_docs(app: FastAPI) -> None:
    @app.get("/api/docs", include_in_schema=False)
    def docs() -> HTMLResponse:
        page = get_swagger_ui_html(
            openapi_url="/api/openapi.json",
            title="Vine Swing API",
            swagger_js_url="/api-docs/swagger-ui-bundle.js",
            swagger_css_url="/api-docs/swagger-ui.css",
            swagger_favicon_url="/icon.svg",
        )
        # The only inline script the service ever sends is the one that starts this page.
        page.headers["content-security-policy"] = (
            "default-src 'self'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data:;"
            " frame-ancestors 'none'; base-uri 'none'; form-action 'none'; object-src 'none'"
        )
        return page
