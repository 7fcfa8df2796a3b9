"""`export`: a scene as a film, a picture, a page, a table or a bundle."""

import argparse
import sys
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any

from vine_swing.cli.messages import loaded, say
from vine_swing.formats.export import Progress
from vine_swing.motion import MotionError, Scene

#: Without a terminal, progress is said in this many lines.
_LINES = 10


def add_options(export: argparse.ArgumentParser) -> None:
    """Add the options of an export, named as in the export dialog."""
    export.add_argument("scene", type=Path, help="a scene file (.json) or a bundle (.vine)")
    export.add_argument("out", type=Path, help="the ending of its name chooses the format; - for standard output, with --format")
    export.add_argument("--format", help="the format by its name, such as flipbook or png, where the ending does not tell")
    export.add_argument("--scale", type=float, default=1.0, help="share of the scene's size (default: %(default)s)")
    export.add_argument("--width", type=int, help="width in px, in place of --scale; the height follows")
    export.add_argument("--frames", metavar="FIRST-LAST", help="only these frames, such as 0-47, or one of them")
    export.add_argument("--fps", type=float, help="pictures a second (default: the scene's own)")
    export.add_argument("--background", default="usual", help="own, none, or a colour such as '#FFFFFF' (default: as is usual for the format)")
    export.add_argument(
        "--under", default="#FFFFFF", help="the colour under a see-through background in formats that cannot be (default: %(default)s)"
    )
    export.add_argument("--loops", type=int, default=0, help="how often it plays; 0 for ever (default: %(default)s)")
    export.add_argument("--blur", default="own", help="own, off, or so many moments a picture (default: %(default)s)")
    export.add_argument("--quality", choices=("small", "good", "best"), default="good", help="of MP4, WebM and WebP (default: %(default)s)")
    export.add_argument("--dither", choices=("none", "ordered", "diffused"), default="diffused", help="how GIF mixes colours it has not")
    export.add_argument("--columns", type=int, default=4, help="pictures in a row of a contact sheet (default: %(default)s)")
    export.add_argument("--every", type=float, default=1.0, help="frames between rows of a table or pictures of a contact sheet")
    export.add_argument("--tolerance", type=float, default=0.1, help="px that animated SVG and HTML may be off (default: %(default)s)")
    export.add_argument("--silent", action="store_true", help="leave the sounds of the scene out of MP4 and WebM")
    export.add_argument("--farm", metavar="ADDRESS", help="paint on the machines of the scheduler there, such as tcp://10.0.0.5:8786")
    export.set_defaults(run=export_file)


def export_file(options: argparse.Namespace) -> int:
    """Export a scene; the exit status is 1, and no file is left, where it cannot be."""
    from vine_swing.formats.engine.choice import engine_at
    from vine_swing.formats.run import write

    to_output = str(options.out) == "-"
    if to_output and options.format is None:
        return say("standard output has no ending that tells a format; name one with --format")
    scene = loaded(options.scene)
    chosen = _options(options, scene)
    with closing(engine_at(options.farm)) as engine, tempfile.TemporaryDirectory() as folder:
        out = Path(folder) / "out" if to_output else options.out
        with _shown_progress(str(options.out), len(chosen.frames(scene))) as progress:
            written = write(scene, chosen, out, engine=engine, progress=progress)
        if to_output:
            sys.stdout.buffer.write(out.read_bytes())
            sys.stdout.buffer.flush()
    for sentence in written.remarks:
        say(f"{options.out}: {sentence}")
    return 0


def _options(options: argparse.Namespace, scene: Scene) -> Any:
    """The options as they were typed.

    Raises:
        MotionError: naming what does not fit.
    """
    from pydantic import ValidationError

    from vine_swing.formats import format_by_name
    from vine_swing.formats.options import ExportOptions

    name = options.format or format_by_name(options.out.name).name
    values: dict[str, Any] = {"format": name, "scale": options.scale, "background": options.background, "under": options.under}
    if options.width is not None:
        values["scale"] = options.width / scene.size[0]
    if options.frames is not None:
        first, _, last = options.frames.partition("-")
        if not first.isdigit() or not (last or first).isdigit():
            raise MotionError(f"--frames is '{options.frames}'; give the first and the last frame, such as 0-47")
        values |= {"first": int(first), "last": int(last or first)}
    values |= {name: getattr(options, name) for name in ("fps", "loops", "quality", "dither", "columns", "every", "tolerance")}
    values["sound"] = not options.silent
    values["blur"] = int(options.blur) if options.blur.isdigit() else options.blur
    try:
        return ExportOptions.model_validate(values)
    except ValidationError as error:
        fault = error.errors(include_url=False)[0]
        raise MotionError(f"--{fault['loc'][0]} is {fault['input']}; it {fault['msg'].removeprefix('Input ')}") from error


@contextmanager
def _shown_progress(name: str, total: int) -> Iterator[Progress]:
    """A bar on a terminal; a few plain lines elsewhere."""
    if sys.stderr.isatty():
        from rich.console import Console
        from rich.progress import BarColumn, MofNCompleteColumn, TextColumn, TimeRemainingColumn
        from rich.progress import Progress as Bar

        columns = (TextColumn("{task.description}"), BarColumn(), MofNCompleteColumn(), TextColumn("frames"), TimeRemainingColumn())
        with Bar(*columns, console=Console(stderr=True)) as bar:
            task = bar.add_task(name, total=total)

            def shown(done: int) -> bool:
                bar.update(task, completed=done)
                return True

            yield shown
        return
    told = 0

    def lines(done: int) -> bool:
        nonlocal told
        tenth = done * _LINES // max(1, total)
        if tenth > told:
            told = tenth
            print(f"{name}: {done} of {total} frames", file=sys.stderr)
        return True

    yield lines
