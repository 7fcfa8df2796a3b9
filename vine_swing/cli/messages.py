"""What all commands share: saying what is wrong, and reading a scene."""

import sys
from pathlib import Path

from vine_swing.motion import Scene


def say(sentence: str) -> int:
    """Say on standard error what is wrong; the exit status of a command that failed."""
    print(f"vine-swing: {sentence}", file=sys.stderr)
    return 1


def loaded(path: Path) -> Scene:
    """The scene in a scene file or bundle; what keeps its rules from their work is told on standard error."""
    from vine_swing.motion.scene.references import missing_references

    scene = read(path)
    for sentence in missing_references(scene):
        say(f"{path}: {sentence}")
    return scene


def read(path: Path) -> Scene:
    """The scene in a scene file or bundle."""
    from vine_swing.formats.bundle import read_scene

    return read_scene(path.read_bytes())
