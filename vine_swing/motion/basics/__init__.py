"""What every room of the core uses: errors, limits, checked values, the specs of channels, colours, matrices and seeded chance."""

from vine_swing.motion.basics.errors import EditError, MotionError, NoSuchThing, SceneFileError

__all__ = ["EditError", "MotionError", "NoSuchThing", "SceneFileError"]
