"""The command line: serve, demo, bake, export, check, notes."""

import argparse
import socket
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

from vine_swing.motion import MotionError, Scene, load

if TYPE_CHECKING:
    from vine_swing.store import SceneStore

DEFAULT_DATA = Path.home() / ".local" / "share" / "vine-swing"
DEFAULT_PORT = 8137
DEMO_SCENES = Path(__file__).resolve().parents[1] / "demo" / "scenes"


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status, 1 with a plain sentence where something is wrong."""
    options = _parser().parse_args(argv)
    try:
        status: int = options.run(options)
        return status
    except (MotionError, OSError) as error:
        return _say(str(error))


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="vine-swing", description="Motion that follows rules.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    for name, run, about in (
        ("serve", _serve, "serve the application"),
        ("demo", _demo, "serve it with the demo scenes, if there are no scenes yet"),
    ):
        serve = commands.add_parser(name, help=about)
        serve.add_argument("--data", type=Path, default=DEFAULT_DATA, help="folder of the data file (default: %(default)s)")
        serve.add_argument("--port", type=int, default=DEFAULT_PORT, help="port on 127.0.0.1 (default: %(default)s)")
        serve.set_defaults(run=run)
    bake = commands.add_parser("bake", help="write the values of every moving channel as CSV, or outlines as JSON")
    bake.add_argument("scene", type=Path)
    bake.add_argument("--csv", type=Path, help="the table to write; - for standard output")
    bake.add_argument("--outlines", type=Path, help="the JSON file to write, with points along every outline; - for standard output")
    bake.add_argument("--places", type=int, default=16, help="points on every curve of an outline (default: %(default)s)")
    bake.add_argument("--every", type=float, default=1.0, help="frames between rows, such as 0.5 (default: %(default)s)")
    bake.add_argument("--world", action="store_true", help="add where each object is in the scene: world.x, world.y, world.rotation")
    bake.add_argument("--view", action="store_true", help="add where the pivot of each object is in the picture, camera included: view.x, view.y")
    bake.set_defaults(run=_bake)
    export = commands.add_parser("export", help="paint a scene file to a video, a moving picture or a flipbook")
    export.add_argument("scene", type=Path)
    export.add_argument("out", type=Path, help="the ending chooses the format: .mp4, .webm, .gif, .apng, .webp, or .zip for a flipbook")
    export.add_argument("--scale", type=float, default=1.0, help="share of the scene's size (default: %(default)s)")
    export.set_defaults(run=_export)
    export.add_argument("--background", default="#FFFFFF", help="the colour under a see-through background in a video (default: %(default)s)")
    check = commands.add_parser("check", help="say whether a scene file is in order, and what its rules name that is not there")
    check.add_argument("scene", type=Path)
    check.add_argument("--strict", action="store_true", help="exit with 1 if rules name what is not there")
    check.set_defaults(run=_check)
    notes = commands.add_parser("notes", help="say what a supervising animator would remark on the motion")
    notes.add_argument("scene", type=Path)
    notes.add_argument("--json", action="store_true", help="as a JSON list of objects with kind, object, channel, frames, text and sure")
    notes.set_defaults(run=_notes)
    return parser


def _serve(options: argparse.Namespace) -> int:
    import uvicorn

    from vine_swing.service.app import create_app

    if (refusal := _port_refusal(options.port)) is not None:
        return _say(refusal)
    store = _store(options)
    if store is None:
        return 1
    try:
        print(f"Vine Swing is at http://127.0.0.1:{options.port}/ (Ctrl+C ends it); data in {options.data}", flush=True)
        uvicorn.run(create_app(store), host="127.0.0.1", port=options.port, log_level="warning")
    finally:
        store.close()
    return 0


def _demo(options: argparse.Namespace) -> int:
    store = _store(options)
    if store is None:
        return 1
    if not store.summaries() and not store.summaries(deleted=True):
        for path in sorted(DEMO_SCENES.glob("*.json"), reverse=True):
            store.create(load(path))
    store.close()
    return _serve(options)


def _store(options: argparse.Namespace) -> "SceneStore | None":
    """The store in the data folder; None, and a sentence, where it cannot be opened."""
    from vine_swing.store import SceneStore, StoreError

    try:
        return SceneStore(options.data / "vine-swing.db")
    except StoreError as error:
        _say(str(error))
        return None


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


def _say(sentence: str) -> int:
    print(f"vine-swing: {sentence}", file=sys.stderr)
    return 1


def _loaded(path: Path) -> Scene:
    """The scene in a file; what its rules name that is not there is told on standard error."""
    from vine_swing.motion.scene.references import missing_references

    scene = load(path)
    for sentence in missing_references(scene):
        _say(f"{path}: {sentence}")
    return scene


def _bake(options: argparse.Namespace) -> int:
    from vine_swing.formats.outlines import write_outlines
    from vine_swing.formats.table import write_csv

    if options.csv is None and options.outlines is None:
        return _say("bake has nothing to write; give it --csv OUT.csv, --outlines OUT.json, or both")
    scene = _loaded(options.scene)
    if options.csv is not None:
        with _written(options.csv) as file:
            write_csv(scene, file, every=options.every, world=options.world, view=options.view)
    if options.outlines is not None:
        with _written(options.outlines) as file:
            write_outlines(scene, file, every=options.every, places=options.places)
    return 0


@contextmanager
def _written(path: Path) -> Iterator[TextIO]:
    """A file to write text to; standard output for `-`."""
    if str(path) == "-":
        yield sys.stdout
        return
    with path.open("w", encoding="utf-8", newline="") as file:
        yield file


def _export(options: argparse.Namespace) -> int:
    from vine_swing.formats import EXPORTS
    from vine_swing.formats.opaque import over_colour
    from vine_swing.motion import bake

    chosen = next((one for one in EXPORTS.values() if options.out.suffix.lower() == f".{one.suffix}"), None)
    if chosen is None:
        raise MotionError(
            f"'{options.out.suffix}' is no format to export to; name the file with {' or '.join('.' + one.suffix for one in EXPORTS.values())}"
        )
    if not 0 < options.scale <= 4:
        raise MotionError(f"--scale is {options.scale:g}; it must be above 0 and at most 4")
    scene = over_colour(_loaded(options.scene), options.background) if chosen.opaque else _loaded(options.scene)

    def progress(done: int) -> bool:
        if sys.stderr.isatty():
            print(f"\r{done} of {scene.length} frames", end="" if done < scene.length else "\n", file=sys.stderr, flush=True)
        return True

    chosen.write(bake(scene), options.out, progress=progress, scale=options.scale)
    return 0


def _check(options: argparse.Namespace) -> int:
    from vine_swing.motion.outline.drawing import check_drawn
    from vine_swing.motion.scene.references import missing_references

    scene = load(options.scene)
    check_drawn(scene)
    missing = missing_references(scene)
    for sentence in missing:
        _say(f"{options.scene}: {sentence}")
    if missing and options.strict:
        return 1
    print(f"{options.scene}: '{scene.name}' is in order: {len(scene.objects)} objects, {scene.length} frames at {scene.fps:g} per second")
    return 0


def _notes(options: argparse.Namespace) -> int:
    """Print the notes on a scene and on the scenes inside it; the exit status is 1 where there are any."""
    import json

    from vine_swing.motion import bake
    from vine_swing.motion.notes import look

    scene = load(options.scene)
    told: list[dict[str, object]] = []
    for part, inside in ((scene, None), *((scene.entered(inner.id), inner.name) for inner in scene.insets)):
        names = {thing.id: thing.name for thing in part.objects} | {owner: dial.name for owner, dial in part.dials_by_id.items()}
        for note in look(bake(part)).notes:
            one: dict[str, object] = {"kind": note.kind, "object": names.get(note.object or ""), "channel": note.channel, "frames": list(note.frames)}
            told.append(one | {"text": note.text, "sure": note.sure} | ({} if inside is None else {"inside": inside}))
    if options.json:
        print(json.dumps(told, ensure_ascii=False, indent=1))
    else:
        for one in told:
            print(f"{one['kind']}: {one['text']}")
        if not told:
            print(f"{options.scene}: nothing to remark on '{scene.name}'")
    return 1 if told else 0
