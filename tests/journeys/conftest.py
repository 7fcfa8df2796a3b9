"""The real thing: the command line's server on a data folder of its own, and Chromium on the built page."""

import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from tests.journeys.workspace import Workspace

CHROMIUM = os.environ.get("CHROMIUM") or shutil.which("chromium") or "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def pytest_collection_modifyitems(items):
    for item in items:
        item.add_marker(pytest.mark.journey)


class Server:
    """`vine-swing serve` on a free port; can be stopped, killed and started again on the same data."""

    def __init__(self, data: Path, command: str = "serve"):
        self.data = data
        self._command = command
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self):
        arguments = [sys.executable, "-m", "vine_swing", self._command, "--data", str(self.data), "--port", str(self.port)]
        self._process = subprocess.Popen(arguments, stdout=subprocess.DEVNULL, stderr=subprocess.PIPE)
        for _ in range(200):
            try:
                urllib.request.urlopen(f"{self.address}/api/scenes", timeout=1).close()
                return
            except OSError:
                assert self._process.poll() is None, self._process.stderr.read().decode()
                time.sleep(0.05)
        raise AssertionError("the server did not answer within 10 seconds")

    def stop(self, how=signal.SIGINT):
        self._process.send_signal(how)
        self._process.wait(20)
        self._process.stderr.close()


@pytest.fixture
def server(tmp_path):
    running = Server(tmp_path / "data")
    yield running
    running.stop()


@pytest.fixture
def demo_server(tmp_path):
    running = Server(tmp_path / "data", "demo")
    yield running
    running.stop()


@pytest.fixture(scope="session")
def browser():
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield chromium
        chromium.close()


@pytest.fixture
def page(browser: Browser):
    """A page of a fresh profile; anything the page complains about in the console fails the test."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    context.set_default_timeout(10_000)
    expect.set_options(timeout=8_000)
    one = context.new_page()
    complaints: list[str] = []
    one.on("pageerror", lambda error: complaints.append(str(error)))
    # Refused requests are part of some journeys, and shown on the page; everything else is a fault.
    one.on("console", lambda m: complaints.append(m.text) if m.type == "error" and not re.search("status of (4|5)|ERR_CONNECTION", m.text) else None)
    yield one
    context.close()
    assert complaints == []


@pytest.fixture
def workspace(page: Page, server: Server) -> Workspace:
    """A new, empty scene opened in the workspace."""
    page.goto(server.address)
    page.get_by_role("button", name="New scene").first.click()
    return Workspace(page, server.address)
