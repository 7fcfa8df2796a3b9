"""Putting the application together."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from fastapi.openapi.docs import get_swagger_ui_html
from fastapi.responses import FileResponse, HTMLResponse, Response

from vine_swing import __version__
from vine_swing.service import problems
from vine_swing.service.exports import Exports
from vine_swing.service.guard import Guard
from vine_swing.service.routes import exports, feels, links, motion, principles, scenes, vocabulary
from vine_swing.service.sessions import Sessions
from vine_swing.store import SceneStore

WEB = Path(__file__).resolve().parents[2] / "web" / "dist"


def create_app(store: SceneStore, *, web: Path = WEB) -> FastAPI:
    """The service over a store; it also serves the built page, where there is one."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        yield
        app.state.exports.close()

    app = FastAPI(title="Vine Swing", version=__version__, docs_url=None, redoc_url=None, openapi_url="/api/openapi.json", lifespan=lifespan)
    app.state.sessions = Sessions(store)
    app.state.exports = Exports()
    problems.install(app)
    for router in (scenes.router, motion.router, exports.router, vocabulary.router, feels.router, principles.router, links.router):
        app.include_router(router, prefix="/api", responses=problems.RESPONSES)
    app.add_middleware(Guard)
    _serve_docs(app)
    _serve_page(app, web)
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
            "default-src 'self'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data:"
        )
        return page


def _serve_page(app: FastAPI, web: Path) -> None:
    root = web.resolve()

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            return problems.response(404, "No such address", f"there is nothing at /{path[:200]}; /api/docs lists what there is")
        file = (root / path).resolve()
        if path and file.is_relative_to(root) and file.is_file():
            lasting = path.startswith("assets/")
            return FileResponse(file, headers={"cache-control": "public, max-age=31536000, immutable" if lasting else "no-cache"})
        if not (root / "index.html").is_file():
            return HTMLResponse("<p>The page is not built yet: run <code>make demo</code>.</p>", 503)
        return FileResponse(root / "index.html", headers={"cache-control": "no-cache"})
