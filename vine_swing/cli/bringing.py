"""`import`: a bundle, a drawing or a table as a scene, or into one."""

import argparse
from pathlib import Path

from vine_swing.cli.saying import read
from vine_swing.motion import dump


def add_options(bring: argparse.ArgumentParser) -> None:
    """What can be said of what is brought in."""
    bring.add_argument("file", type=Path, help="a bundle (.vine) or a scene file (.json)")
    bring.add_argument("out", type=Path, help="the scene file to write")
    bring.set_defaults(run=bring_)


def bring_(options: argparse.Namespace) -> int:
    """Bring a file in."""
    scene = read(options.file)
    options.out.write_text(dump(scene), encoding="utf-8")
    print(f"{options.out}: '{scene.name}', {len(scene.objects)} objects")
    return 0
