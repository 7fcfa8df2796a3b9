"""Errors of the core.

MotionError            anything the core refuses; catch this at the edge
├── SceneFileError     a scene file breaks the format (its text names the location)
│   └── NotJson        it is not JSON at all
├── LoopError          channels read each other in a ring (graph.py)
└── EditError          a well-formed edit that does not fit this scene
    └── NoSuchThing    the edit names an object, channel or key that is not there

Every message is one sentence or two: what, where, and what would work.
"""

#: Characters of a message that is shown: more is never read, and a foreign file must not fill the screen.
MOST_CHARACTERS = 500


class MotionError(ValueError):
    """Base of everything the core refuses."""


class SceneFileError(MotionError):
    """The scene file is not a scene; the message lists each fault with its place."""

    def __init__(self, faults: list[str]) -> None:
        self.faults = faults
        super().__init__("; ".join(faults))


class NotJson(SceneFileError):
    """The scene file is not even JSON."""


class EditError(MotionError):
    """The edit is well formed but does not fit the current scene."""


class NoSuchThing(EditError):
    """The edit names something the scene does not have."""


def shortened(message: str) -> str:
    """Return a message for display: at most 500 characters, on one line, without control characters or lone surrogates."""
    plain = "".join(item if item.isprintable() else " " for item in message[: 2 * MOST_CHARACTERS])
    return plain if len(plain) <= MOST_CHARACTERS else plain[: MOST_CHARACTERS - 1].rstrip() + "…"
