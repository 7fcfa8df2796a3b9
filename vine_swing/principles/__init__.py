"""The classic twelve principles of animation: each with a small scene that shows it, what our rules do for it, and when to leave it.

The scenes are files beside this one, written by `python -m demo.make`.
"""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any

from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import from_data


@dataclass(frozen=True)
class Principle:
    """One principle: what it means, `ours` what the application does for it, `beware` when not to use it, and a scene that shows it."""

    name: str
    label: str
    about: str
    ours: str
    beware: str
    scene: Scene


@cache
def principles() -> Mapping[str, Principle]:
    """All of them by name, in the order they are told in."""
    files = sorted((file for file in resources.files(__name__).iterdir() if file.name.endswith(".json")), key=lambda file: file.name)
    return {one.name: one for one in (_read(json.loads(file.read_text(encoding="utf-8"))) for file in files)}


def _read(data: dict[str, Any]) -> Principle:
    return Principle(**{key: data[key] for key in ("name", "label", "about", "ours", "beware")}, scene=from_data(data["scene"]))
