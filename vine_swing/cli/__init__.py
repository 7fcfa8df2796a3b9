"""The command line: serve, demo, bake, export, import, check, notes."""

import argparse
import gc
from collections.abc import Sequence
from pathlib import Path

from vine_swing.cli import exporting, importing, inspecting, serving
from vine_swing.cli.messages import say
from vine_swing.motion import MotionError

DEFAULT_DATA = Path.home() / ".local" / "share" / "vine-swing"
DEFAULT_PORT = 8137
#: How many objects are made between two looks for cycles, and looks of each kind before one of the next. A scene is very many small models without
#: any cycles: with Python's own numbers, half of the time in which a large file is read goes into looking through them repeatedly.
COLLECTING = 50_000, 20, 20


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status, 1 with a plain sentence where something is wrong."""
    options = _parser().parse_args(argv)
    gc.set_threshold(*COLLECTING)
    try:
        status: int = options.run(options)
        return status
    except (MotionError, OSError) as error:
        return say(str(error))


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="vine-swing", description="Motion that follows rules.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    for name, run, about in (
        ("serve", serving.serve, "serve the application"),
        ("demo", serving.demo, "serve it with the demo scenes, if there are no scenes yet"),
    ):
        serve = commands.add_parser(name, help=about)
        serve.add_argument("--data", type=Path, default=DEFAULT_DATA, help="folder of the data file (default: %(default)s)")
        serve.add_argument("--port", type=int, default=DEFAULT_PORT, help="port on 127.0.0.1 (default: %(default)s)")
        serve.add_argument("--bring-back", metavar="COPY", help="begin with a copy of the data file by its name, or `last`; the file is kept aside")
        serve.add_argument("--farm", metavar="ADDRESS", help="paint exports on the machines of the scheduler there, such as tcp://10.0.0.5:8786")
        serve.set_defaults(run=run)
    bake = commands.add_parser("bake", help="write the values of every moving channel as CSV, or outlines as JSON")
    bake.add_argument("scene", type=Path)
    bake.add_argument("--csv", type=Path, help="the table to write; - for standard output")
    bake.add_argument("--outlines", type=Path, help="the JSON file to write, with points along every outline; - for standard output")
    bake.add_argument("--places", type=int, default=16, help="points on every curve of an outline (default: %(default)s)")
    bake.add_argument("--every", type=float, default=1.0, help="frames between rows, such as 0.5 (default: %(default)s)")
    bake.add_argument("--world", action="store_true", help="add where each object is in the scene: world.x, world.y, world.rotation")
    bake.add_argument("--view", action="store_true", help="add where the pivot of each object is in the picture, camera included: view.x, view.y")
    bake.set_defaults(run=inspecting.bake)
    exporting.add_options(commands.add_parser("export", help="write a scene as a film, pictures, a page, a table or a bundle"))
    importing.add_options(commands.add_parser("import", help="make a scene of a drawing, a bundle or a table, or bring one into a scene"))
    check = commands.add_parser("check", help="say whether a scene file is in order, and what its rules name that is not there")
    check.add_argument("scene", type=Path)
    check.add_argument("--strict", action="store_true", help="exit with 1 if rules name what is not there")
    check.set_defaults(run=inspecting.check)
    notes = commands.add_parser("notes", help="say what a supervising animator would remark on the motion")
    notes.add_argument("scene", type=Path)
    notes.add_argument("--json", action="store_true", help="as a JSON list of objects with kind, object, channel, frames, text and sure")
    notes.set_defaults(run=inspecting.notes)
    return parser
