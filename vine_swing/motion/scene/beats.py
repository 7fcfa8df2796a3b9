"""The frames that motion can be timed to: markers, an even beat, or the beats of a sound."""

from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from vine_swing.motion.basics.errors import MotionError, NoSuchThing
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.sound.analysis import onsets_of

Array = NDArray[np.float64]
#: What motion is timed by: `markers`, the `beat` of the scene, or `sound:` and the id of a sound, whose beats are where something begins in it.
TimedBy = Annotated[str, Field(pattern=r"^(?:markers|beat|sound:[A-Za-z0-9_-]{1,64})$")]
#: In place of a word: what follows is the id of a sound.
SOUND = "sound:"


def beat_frames(scene: Scene, by: str) -> Array:
    """The frames of a scene to time motion to, between whole ones too, in order: (k,).

    Raises:
        NoSuchThing: if the scene has no such sound, or no beat.
        MotionError: if a sound cannot be read.
    """
    if by == "markers":
        found = np.array([one.frame for one in scene.markers], float)
    elif by == "beat":
        found = _even(scene)
    else:
        sound = scene.sounds_by_id.get(by.removeprefix(SOUND))
        if sound is None:
            raise NoSuchThing(f"there is no sound '{by.removeprefix(SOUND)}' in this scene; it may have been removed")
        begins = onsets_of(sound.file)
        found = sound.first + (begins[(begins >= sound.begin) & (begins < sound.until)] - sound.begin) * scene.fps
    return np.asarray(found[(found >= 0) & (found <= scene.length - 1)])


def whole_beats(scene: Scene, by: str, *, every: int = 1, skip: int = 0) -> list[int]:
    """The nearest whole frames of every this many of them, after some that are skipped; each frame once.

    Raises:
        MotionError: if it is missing; saying what to do.
    """
    frames = beat_frames(scene, by)[skip::every]
    if not len(frames):
        raise MotionError(f"the scene contains no beat ({_said(by)}); add markers, set a beat, or move the sound")
    return sorted({min(round(one), scene.length - 1) for one in frames.tolist()})


def _even(scene: Scene) -> Array:
    if scene.beat is None:
        raise NoSuchThing("this scene has no beat; say how many beats a minute there are first")
    apart = scene.fps * 60 / scene.beat.minute
    first = np.ceil(-scene.beat.first / apart - 1e-9)
    count = int(np.floor((scene.length - 1 - scene.beat.first) / apart + 1e-9) - first) + 1
    return np.asarray(np.round(scene.beat.first + (first + np.arange(max(0, count))) * apart, 9))


def _said(by: str) -> str:
    return {"markers": "its markers", "beat": "its beat"}.get(by, "the beats of a sound")
