"""Ready elements: small animated objects to put into a scene, alone or as parades with lists in place.

The scenes are files beside this one, written by `python -m demo.make`; all of an element is attached to one object at the middle of its picture.
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
class Element:
    """A ready element: its name, its purpose, and the scene it is taken from."""

    name: str
    label: str
    about: str
    scene: Scene


@cache
def elements() -> Mapping[str, Element]:
    """All of them by name, in the order they are shown in."""
    files = sorted((file for file in resources.files(__name__).iterdir() if file.name.endswith(".json")), key=lambda file: file.name)
    return {item.name: item for item in (_read(json.loads(file.read_text(encoding="utf-8"))) for file in files)}


def _read(data: dict[str, Any]) -> Element:
    return Element(**{key: data[key] for key in ("name", "label", "about")}, scene=from_data(data["scene"]))
