"""What the core says when it cannot do what was asked.

MotionError            anything the core refuses; catch this at the edge
├── SceneFileError     a scene file breaks the format (its text names the place)
├── LoopError          channels read each other in a ring (graph.py)
└── EditError          a well-formed edit that does not fit this scene
    └── NoSuchThing    the edit names an object, channel or key that is not there

Every message is one sentence or two: what, where, and what would work.
"""


class MotionError(ValueError):
    """Base of everything the core refuses."""


class SceneFileError(MotionError):
    """The scene file is not a scene; the message lists each fault with its place."""

    def __init__(self, faults: list[str]) -> None:
        self.faults = faults
        super().__init__("; ".join(faults))


class EditError(MotionError):
    """The edit is well formed but does not fit the scene as it is."""


class NoSuchThing(EditError):
    """The edit names something the scene does not have."""
