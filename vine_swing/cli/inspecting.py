"""`bake`, `check` and `notes`: the values, faults and notes of a scene file."""

import argparse
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TextIO

from vine_swing.cli.messages import loaded, read, say


def bake(options: argparse.Namespace) -> int:
    """Write the values of a scene as CSV, or its outlines as JSON."""
    from vine_swing.formats.outlines import write_outlines
    from vine_swing.formats.table import write_csv

    if options.csv is None and options.outlines is None:
        return say("bake has nothing to write; give it --csv OUT.csv, --outlines OUT.json, or both")
    scene = loaded(options.scene)
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


def check(options: argparse.Namespace) -> int:
    """Say whether a scene is in order; with --strict, the exit status is 1 where something keeps rules from their work."""
    from vine_swing.motion.outline.drawing import check_drawn
    from vine_swing.motion.scene.references import missing_references

    scene = read(options.scene)
    check_drawn(scene)
    missing = missing_references(scene)
    for sentence in missing:
        say(f"{options.scene}: {sentence}")
    if missing and options.strict:
        return 1
    print(f"{options.scene}: '{scene.name}' is in order: {len(scene.objects)} objects, {scene.length} frames at {scene.fps:g} per second")
    return 0


def notes(options: argparse.Namespace) -> int:
    """Print the notes on a scene and on the scenes inside it; the exit status is 1 where there are any."""
    import json

    from vine_swing.motion import bake as baked
    from vine_swing.motion.notes import find_notes

    scene = read(options.scene)
    report: list[dict[str, object]] = []
    for part, inside in ((scene, None), *((scene.inner_as_scene(inner.id), inner.name) for inner in scene.insets)):
        names = {obj.id: obj.name for obj in part.objects} | {owner: dial.name for owner, dial in part.dials_by_id.items()}
        for note in find_notes(baked(part)).notes:
            item: dict[str, object] = {
                "kind": note.kind,
                "object": names.get(note.object or ""),
                "channel": note.channel,
                "frames": list(note.frames),
            }
            report.append(item | {"text": note.text, "sure": note.sure} | ({} if inside is None else {"inside": inside}))
    if options.json:
        print(json.dumps(report, ensure_ascii=False, indent=1))
    else:
        for item in report:
            print(f"{item['kind']}: {item['text']}")
        if not report:
            print(f"{options.scene}: nothing to remark on '{scene.name}'")
    return 1 if report else 0
