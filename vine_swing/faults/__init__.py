"""Pairs of small scenes, with and without one fault: the examples of the guide to notes, and the tests of the notes.

All are at the Canopy Post: mangoes, leaves, parcels and those who carry them.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from vine_swing.faults import pieces
from vine_swing.faults.pieces import SceneData
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import from_data


@dataclass(frozen=True)
class FaultPair:
    """A scene with a fault that a kind of note finds, and the same scene without it."""

    kind: str
    fault: Scene
    sound: Scene


@cache
def faults() -> Mapping[str, FaultPair]:
    """A pair for each kind of note, by its name."""
    return {name: FaultPair(name, *map(from_data, created())) for name, created in _MADE.items()}


def _pair(make: Callable[[bool], SceneData]) -> Callable[[], tuple[Any, Any]]:
    return lambda: (make(True), make(False))


_MADE: dict[str, Callable[[], tuple[Any, Any]]] = {
    name.removeprefix("made_").replace("_", "-"): _pair(make) for name, make in vars(pieces).items() if name.startswith("made_")
}
