"""`serve` and `demo`: the application on this machine."""

import argparse
import shutil
import socket
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING

from vine_swing.cli.messages import say
from vine_swing.motion import load

if TYPE_CHECKING:
    from vine_swing.store import SceneStore

DEMO_SCENES = Path(__file__).resolve().parents[2] / "demo" / "scenes"
DEMO_TAKES = DEMO_SCENES / "takes"
DATA_FILE = "vine-swing.db"
#: How long a server that is to end waits for requests and pages that do not, s.
_GRACE = 5


def serve(options: argparse.Namespace) -> int:
    """Serve the application until it is stopped."""
    import uvicorn

    from vine_swing.service.app import create_app

    if (refusal := _port_refusal(options.port)) is not None:
        return say(refusal)
    store = _store(options)
    if store is None:
        return 1
    try:
        print(f"Vine Swing is at http://127.0.0.1:{options.port}/ (Ctrl+C ends it); data in {options.data}", flush=True)
        # What goes over sockets stays on this machine: to compress it would take longer than to send it.
        settings = {"host": "127.0.0.1", "port": options.port, "log_level": "warning", "ws_per_message_deflate": False}
        uvicorn.run(create_app(store, farm=options.farm), timeout_graceful_shutdown=_GRACE, **settings)
    finally:
        store.close()
    return 0


def demo(options: argparse.Namespace) -> int:
    """Serve it with the demo scenes, if there are no scenes yet."""
    store = _store(options)
    if store is None:
        return 1
    if not store.summaries() and not store.summaries(deleted=True):
        for path in sorted(DEMO_SCENES.glob("*.json"), reverse=True):
            _keep_takes(store, store.create(load(path)), path)
    store.close()
    return serve(options)


def _keep_takes(store: "SceneStore", scene_id: str, path: Path) -> None:
    """Keep the rehearsals that a demo scene comes with: files of its name and, after two dashes, theirs."""
    from vine_swing.motion import bake
    from vine_swing.picture.preview import preview

    for take in sorted(DEMO_TAKES.glob(f"{path.stem}--*.json")):
        scene = load(take)
        store.rehearsals.keep(scene_id, scene, revision=0, name=take.stem.partition("--")[2], still=preview(bake(scene)))


def _store(options: argparse.Namespace) -> "SceneStore | None":
    """The store in the data folder; None, and a sentence, where it cannot be opened."""
    from vine_swing.store import SceneStore, StoreError
    from vine_swing.store.backups import Backups

    path: Path = options.data / DATA_FILE
    try:
        if options.bring_back is not None:
            _bring_back(path, options.bring_back)
        return SceneStore(path)
    except StoreError as error:
        say(str(error))
        copies = Backups(path).all()
        if path.exists() and copies and options.bring_back is None:
            say(f"the last copy is of {copies[0].made:%Y-%m-%d %H:%M}: --bring-back last starts with it, and keeps the file as it is beside it")
        return None


def _bring_back(path: Path, name: str) -> None:
    """Put a copy in the place of a data file that cannot be opened any more, which is kept under another name.

    Raises:
        StoreError: if there is no such copy.
    """
    from vine_swing.store import StoreError
    from vine_swing.store.backups import Backups

    backups = Backups(path)
    copies = backups.all()
    chosen = copies[0].name if name == "last" and copies else name
    copy = backups.path_of(chosen)
    if copy is None:
        known = ", ".join(one.name for one in copies) or "none yet"
        raise StoreError(f"there is no copy '{name}' in {backups.folder}; there is {known}")
    for beside in ("", "-wal", "-shm"):
        old = path.with_name(path.name + beside)
        if old.exists():
            old.rename(backups.folder / f"set-aside-{datetime.now():%Y-%m-%dT%H%M%S}-{path.name}{beside}")
    shutil.copyfile(copy, path)
    path.chmod(0o600)
    print(f"brought back {chosen}; what was there before is in {backups.folder}", flush=True)


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
