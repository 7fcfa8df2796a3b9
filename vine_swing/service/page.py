"""The built page: its files, compressed for browsers that take it, and the page itself at every other address."""

import gzip
from functools import lru_cache
from mimetypes import guess_type
from pathlib import Path
from typing import Annotated

from fastapi import FastAPI, Header
from fastapi.responses import FileResponse, HTMLResponse, Response

from vine_swing.service import problems

#: Files whose kind compresses well; fonts and pictures are compressed already.
_TEXT = {".js", ".css", ".html", ".svg", ".json", ".map", ".txt"}
#: Smaller files fit into one packet either way.
_LEAST_BYTES = 1400
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
    status = file.stat()
    if not compressed or file.suffix not in _TEXT or status.st_size < _LEAST_BYTES:
        return FileResponse(file, headers=headers)
    data = _gzipped(file, status.st_mtime_ns)
    return Response(data, media_type=guess_type(file.name)[0], headers=headers | {"content-encoding": "gzip"})


@lru_cache(maxsize=64)
def _gzipped(file: Path, changed: int) -> bytes:
    """A file's bytes compressed, kept until the file changes (`changed`: its time of change in ns)."""
    return gzip.compress(file.read_bytes(), mtime=0)


def _file(root: Path, path: str) -> Path | None:
    """The file of the built page at a path; None if there is none, or if its name is none a file could have."""
    try:
        file = (root / path).resolve()
        return file if path and file.is_relative_to(root) and file.is_file() else None
    except (OSError, ValueError):
        return None
