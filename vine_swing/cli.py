"""The command line: serve, demo, bake, export, check."""

import argparse
import sys
from collections.abc import Sequence
from pathlib import Path

from vine_swing.motion import MotionError, load

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
        print(f"vine-swing: {error}", file=sys.stderr)
        return 1


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
    bake = commands.add_parser("bake", help="write the values of every moving channel as CSV")
    bake.add_argument("scene", type=Path)
    bake.add_argument("--csv", type=Path, required=True, help="the file to write; - for standard output")
    bake.add_argument("--every", type=float, default=1.0, help="frames between rows, such as 0.5 (default: %(default)s)")
    bake.add_argument("--world", action="store_true", help="add where each object is in the picture: world.x, world.y, world.rotation")
    bake.set_defaults(run=_bake)
    export = commands.add_parser("export", help="paint a scene file to a video, a GIF or a flipbook")
    export.add_argument("scene", type=Path)
    export.add_argument("out", type=Path, help="the ending chooses the format: .mp4, .gif or .zip for a flipbook")
    export.add_argument("--scale", type=float, default=1.0, help="share of the scene's size (default: %(default)s)")
    export.set_defaults(run=_export)
    check = commands.add_parser("check", help="say whether a scene file is in order")
    check.add_argument("scene", type=Path)
    check.set_defaults(run=_check)
    return parser


def _serve(options: argparse.Namespace) -> int:
    import uvicorn

    from vine_swing.service.app import create_app
    from vine_swing.store import SceneStore, StoreError

    try:
        store = SceneStore(options.data / "vine-swing.db")
    except StoreError as error:
        print(f"vine-swing: {error}", file=sys.stderr)
        return 1
    try:
        print(f"Vine Swing is at http://127.0.0.1:{options.port}/ (Ctrl+C ends it); data in {options.data}", flush=True)
        uvicorn.run(create_app(store), host="127.0.0.1", port=options.port, log_level="warning")
    finally:
        store.close()
    return 0


def _demo(options: argparse.Namespace) -> int:
    from vine_swing.store import SceneStore

    store = SceneStore(options.data / "vine-swing.db")
    if not store.summaries() and not store.summaries(deleted=True):
        for path in sorted(DEMO_SCENES.glob("*.json"), reverse=True):
            store.create(load(path))
    store.close()
    return _serve(options)


def _bake(options: argparse.Namespace) -> int:
    from vine_swing.formats.table import write_csv

    scene = load(options.scene)
    if str(options.csv) == "-":
        write_csv(scene, sys.stdout, every=options.every, world=options.world)
    else:
        with options.csv.open("w", encoding="utf-8", newline="") as file:
            write_csv(scene, file, every=options.every, world=options.world)
    return 0


def _export(options: argparse.Namespace) -> int:
    from vine_swing.formats import EXPORTS
    from vine_swing.motion import bake

    chosen = next((one for one in EXPORTS.values() if options.out.suffix.lower() == f".{one.suffix}"), None)
    if chosen is None:
        raise MotionError(
            f"'{options.out.suffix}' is no format to export to; name the file with {' or '.join('.' + one.suffix for one in EXPORTS.values())}"
        )
    if not 0 < options.scale <= 4:
        raise MotionError(f"--scale is {options.scale:g}; it must be above 0 and at most 4")
    scene = load(options.scene)

    def progress(done: int) -> bool:
        if sys.stderr.isatty():
            print(f"\r{done} of {scene.length} frames", end="" if done < scene.length else "\n", file=sys.stderr, flush=True)
        return True

    chosen.write(bake(scene), options.out, progress=progress, scale=options.scale)
    return 0


def _check(options: argparse.Namespace) -> int:
    from vine_swing.motion.svg_path import check_outlines

    scene = load(options.scene)
    check_outlines(scene)
    print(f"{options.scene}: '{scene.name}' is in order: {len(scene.objects)} objects, {scene.length} frames at {scene.fps:g} per second")
    return 0
