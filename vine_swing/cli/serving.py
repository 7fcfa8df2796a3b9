"""`serve` and `demo`: the application on this machine."""

import argparse
import contextlib
import socket
from pathlib import Path
from typing import TYPE_CHECKING

from vine_swing.cli.messages import say, tell
from vine_swing.motion import load

if TYPE_CHECKING:
    from vine_swing.store import SceneStore

DEMO_SCENES = Path(__file__).resolve().parents[2] / "demo" / "scenes"
DEMO_TAKES = DEMO_SCENES / "takes"
DATA_FILE = "vine-swing.db"


def serve(options: argparse.Namespace) -> int:
    """Serve the application until it is stopped."""
    store = _opened(options)
    return 1 if store is None else _serve(store, options)


def demo(options: argparse.Namespace) -> int:
    """Serve the application, with the demo scenes if there are no scenes yet."""
    store = _opened(options)
    if store is None:
        return 1
    if not store.summaries() and not store.summaries(deleted=True):
        for path in sorted(DEMO_SCENES.glob("*.json"), reverse=True):
            _keep_takes(store, store.create(load(path)), path)
    return _serve(store, options)


def _serve(store: "SceneStore", options: argparse.Namespace) -> int:
    """Serve a store until a signal ends the server, and close the store."""
    import uvicorn

    from vine_swing.cli.ending import EndingServer
    from vine_swing.service.app import create_app

    tell(f"Vine Swing is at http://127.0.0.1:{options.port}/ (Ctrl+C ends it); data in {options.data}")
    app = create_app(store, farm=options.farm)
    # Messages over sockets stay on this machine: compressing them would take longer than sending them.
    settings = {"host": "127.0.0.1", "port": options.port, "log_level": "warning", "ws_per_message_deflate": False}
    server = EndingServer(uvicorn.Config(app, timeout_graceful_shutdown=1, **settings), at_last=app.state.end_now)
    try:
        with contextlib.suppress(KeyboardInterrupt):
            server.run()
    finally:
        store.close()
        server.ended()
    return 0


def _keep_takes(store: "SceneStore", scene_id: str, path: Path) -> None:
    """Keep the rehearsals that a demo scene comes with: files of its name and, after two dashes, theirs."""
    from vine_swing.motion import bake
    from vine_swing.picture.preview import preview

    for take in sorted(DEMO_TAKES.glob(f"{path.stem}--*.json")):
        scene = load(take)
        store.rehearsals.keep(scene_id, scene, revision=0, name=take.stem.partition("--")[2], still=preview(bake(scene)))


def _opened(options: argparse.Namespace) -> "SceneStore | None":
    """Open the store in the data folder; print a sentence and return None where that, or serving at the port, is not possible."""
    from vine_swing.store import SceneStore, StoreError, StoreNotWritable

    if (refusal := _port_refusal(options.port)) is not None:
        say(refusal)
        return None
    path: Path = options.data / DATA_FILE
    try:
        store = SceneStore(path, restore=options.bring_back)
    except StoreError as error:
        say(str(error))
        if options.bring_back is None and path.exists() and not isinstance(error, StoreNotWritable):
            _suggest_copy(path)
        return None
    if store.restored is not None:
        tell(f"restored {store.restored}; the file that was there before is in {path.parent / 'backups'}")
    return store


def _suggest_copy(path: Path) -> None:
    """Print how to start with the newest copy, if there is one."""
    from vine_swing.store.backups import Backups

    copies = Backups(path).all()
    if copies:
        say(f"the last copy is of {copies[0].made:%Y-%m-%d %H:%M}: --bring-back last starts with it and sets the current file aside")


def _port_refusal(port: int) -> str | None:
    """Why nothing can be served at a port, if so."""
    if not 1 <= port <= 65535:
        return f"--port is {port}; it must be between 1 and 65535"
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as error:
            return f"port {port} cannot be used ({error.strerror}); something else may be served there, so give another one with --port"
    return None
