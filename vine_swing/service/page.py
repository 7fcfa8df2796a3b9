"""The built page: its files, compressed for browsers that take it, and the page itself at every other address."""

from mimetypes import guess_type
from pathlib import Path
from typing import Annotated

from fastapi import FastAPI, Header
from fastapi.responses import FileResponse, HTMLResponse, Response

from vine_swing.service import problems

#: Build output has its hash in its name.
_LASTING = "public, max-age=31536000, immutable"


def serve_page(app: FastAPI, web: Path) -> None:
    """Add the addresses of the page, from the folder `web` the page is built into. To be called last: they match everything."""
    root = web.resolve()

    @app.api_route("/{path:path}", methods=["GET", "HEAD"], include_in_schema=False)
    def page(path: str, accept_encoding: Annotated[str, Header(max_length=400)] = "") -> Response:
        if path.startswith("api/"):
            return problems.response(404, "No such address", f"there is nothing at /{path[:200]}; /api/docs lists what there is")
        file = _file(root, path)
        if file is None and not (root / "index.html").is_file():
            return HTMLResponse("<p>The page is not built yet: run <code>make demo</code>.</p>", 503)
        lasting = file is not None and path.startswith("assets/")
        headers = {"cache-control": _LASTING if lasting else "no-cache", "vary": "accept-encoding"}
        return _sent(file or root / "index.html", headers, "gzip" in accept_encoding)


def _sent(file: Path, headers: dict[str, str], compressed: bool) -> Response:
    """A file, as the build compressed it where it did (web/vite.config.ts)."""
    packed = file.with_name(f"{file.name}.gz")
    if not compressed or not packed.is_file():
        return FileResponse(file, headers=headers)
    return FileResponse(packed, headers=headers | {"content-encoding": "gzip"}, media_type=guess_type(file.name)[0])


def _file(root: Path, path: str) -> Path | None:
    """The file of the built page at a path, or None, or if its name is none a file could have."""
    try:
        file = (root / path).resolve()
        return file if path and file.is_relative_to(root) and file.is_file() else None
    except (OSError, ValueError):
        return None
