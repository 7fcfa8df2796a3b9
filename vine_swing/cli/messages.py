"""What all commands share: printing messages and errors, and reading a scene."""

import contextlib
import os
import sys
from collections.abc import Iterator
from pathlib import Path

from vine_swing.motion import Scene
from vine_swing.motion.basics.errors import shortened


def say(sentence: str) -> int:
    """Print on standard error what is wrong; return the exit status of a command that failed."""
    with _closed_output_ignored("stderr"):
        print(f"vine-swing: {shortened(sentence)}", file=sys.stderr, flush=True)
    return 1


def tell(sentence: str) -> None:
    """Print a message on standard output. A closed output, as behind a pipe whose reader has ended, does not end the server."""
    with _closed_output_ignored("stdout"):
        print(sentence, flush=True)


@contextlib.contextmanager
def _closed_output_ignored(stream: str) -> Iterator[None]:
    try:
        yield
    except (OSError, ValueError):
        # Python flushes its outputs once more when it ends; text left in this one must not fail then.
        setattr(sys, stream, Path(os.devnull).open("w", encoding="utf-8"))  # noqa: SIM115


def loaded(path: Path) -> Scene:
    """Return the scene in a scene file or bundle; prints missing references of its rules on standard error."""
    from vine_swing.motion.scene.references import missing_references

    scene = read(path)
    for sentence in missing_references(scene):
        say(f"{path}: {sentence}")
    return scene


def read(path: Path) -> Scene:
    """The scene in a scene file or bundle."""
    from vine_swing.formats.bundle import read_scene

    return read_scene(path.read_bytes())
