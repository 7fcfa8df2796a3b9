"""The real thing: a server on a data folder of its own, and Chromium on the built page."""

import contextlib
import os
import re
import shutil
import signal
import subprocess
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright
from playwright.sync_api import Error as PlaywrightError

from tests.journeys.scenes import opened
from tests.journeys.servers import Prepared, Server
from tests.journeys.workspace import Workspace

#: Chromium's build without windows draws no frame of a browser around each page; where it is missing, Chromium itself does.
CHROMIUM = os.environ.get("CHROMIUM") or shutil.which("chromium-headless-shell") or shutil.which("chromium") or "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    # The last list of features is the one that counts, so that this one repeats what the driver switches off by itself and journeys rely on. The
    # browser would also paint two hidden pages of its address bar and keep a spare process for each context: 1.4 s of a core each time.
    "--disable-features=AvoidUnnecessaryBeforeUnloadCheckSync,DestroyProfileOnBrowserClose,HttpsUpgrades,HttpsFirstBalancedModeAutoEnable,"
    "LensOverlay,MediaRouter,PaintHolding,ThirdPartyStoragePartitioning,AvoidCorsURLLoaderRestartOnRedirect,OptimizationHints,"
    "NetworkTimeServiceQuerying,AimEnabled,PreconnectToSearch,WebUIOmniboxPopup,WebUIOmniboxAimPopup,SpareRendererForSitePerProcess",
]


#: Transitions and animations of the page take no time in journeys: nothing is asserted of them, and every click would wait for them.
WITHOUT_TRANSITIONS = """document.addEventListener('DOMContentLoaded', () => {
  const sheet = new CSSStyleSheet();
  const off = ['transition-duration', 'transition-delay', 'animation-duration', 'animation-delay'].map((name) => `${name}: 0s !important`);
  sheet.replaceSync(`*, *::before, *::after { ${off.join('; ')} }`);
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
})"""


def pytest_collection_modifyitems(items):
    for item in items:
        # The hook is handed every test of the run, not only those of this folder.
        if item.path.is_relative_to(Path(__file__).parent):
            item.add_marker(pytest.mark.journey)


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item, call):
    """A journey that fails tells where its page was and what it said, so that a failure seen once can be understood."""
    report = yield
    page = getattr(item, "funcargs", {}).get("page")
    if report.failed and call.when == "call" and page is not None:
        with contextlib.suppress(PlaywrightError):
            page.set_default_timeout(5_000)
            report.sections.append(("page", f"{page.url}\n{page.locator('body').inner_text()[:2000]}"))
    return report


@pytest.fixture(scope="session")
def prepared(tmp_path_factory):
    servers = Prepared(tmp_path_factory.mktemp("servers"))
    yield servers
    servers.close()


@pytest.fixture
def server(prepared):
    running = prepared.take()
    yield running
    running.stop(signal.SIGKILL)


@pytest.fixture
def demo_server(tmp_path):
    running = Server(tmp_path / "data", "demo")
    yield running
    running.stop(signal.SIGKILL)


@pytest.fixture(scope="session")
def browser():
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield chromium
        chromium.close()


@pytest.fixture
def page(browser: Browser, request: pytest.FixtureRequest):
    """A page of a fresh profile; anything the page complains about in the console fails the test."""
    # Servers come first and go last: a page whose server is killed under it would complain of that.
    for name in {"server", "demo_server"} & set(request.fixturenames):
        request.getfixturevalue(name)
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    # A machine that others share may be still for seconds; what is waited for is the same.
    context.set_default_timeout(90_000)
    expect.set_options(timeout=60_000)
    context.add_init_script(WITHOUT_TRANSITIONS)
    one = context.new_page()
    complaints: list[str] = []
    one.on("pageerror", lambda error: complaints.append(str(error)))
    # Refused requests are part of some journeys, and shown on the page; everything else is a fault.
    one.on(
        "console",
        lambda m: (
            complaints.append(m.text)
            if m.type == "error"
            and not re.search(
                "status of (4|5)|WebSocket connection to|ERR_CONNECTION|ERR_EMPTY_RESPONSE|ERR_CONTENT_LENGTH_MISMATCH|ERR_INCOMPLETE|ERR_SOCKET_NOT_CONNECTED",
                m.text,
            )
            else None
        ),
    )
    yield one
    context.close()
    assert complaints == []


@pytest.fixture
def workspace(page: Page, server: Server) -> Workspace:
    """A new, empty scene opened in the workspace."""
    return opened(page, server.address, name="New scene", length=120)


@pytest.fixture(scope="session")
def script(tmp_path_factory):
    """The page's painter of case files, as one script."""
    folder = tmp_path_factory.mktemp("cases")
    command = ["npx", "vite", "build", "--config", "cases.config.ts", "--outDir", str(folder), "--emptyOutDir", "--logLevel", "error"]
    subprocess.run(command, cwd=Path(__file__).resolve().parents[2] / "web", check=True, timeout=600)
    return (folder / "cases.js").read_text(encoding="utf-8")


@pytest.fixture
def painting(page, script):
    """An empty page that paints case files."""
    page.goto("about:blank")
    page.add_script_tag(content=script)
    return page
