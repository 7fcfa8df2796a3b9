"""A page of the browser beside a server of its own, for benchmarks."""

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.journeys.conftest import CHROMIUM, FLAGS
from tests.journeys.servers import Server


@contextmanager
def page_and_server(command: str = "serve", *, bypass_csp: bool = False) -> Iterator[tuple[Page, Server]]:
    """An empty page of 1280 × 800 px and a server with an empty data folder; both end with the block. command: of the command line, `serve` or `demo`."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder) / "data", command)
        chromium = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        try:
            yield chromium.new_page(viewport={"width": 1280, "height": 800}, bypass_csp=bypass_csp), server
        finally:
            chromium.close()
            server.stop(9)
