"""Formats that cannot be seen through: a see-through background gets a colour under it."""

from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.scene.model import Scene


def over_colour(scene: Scene, under: str) -> Scene:
    """The scene with its background over an opaque colour; the scene itself where nothing shows through it.

    Raises:
        MotionError: if `under` is no colour, or can be seen through itself.
    """
    try:
        red, green, blue, alpha = colour.parse_hex(under)
    except ValueError as error:
        raise MotionError(f"'{under}' is no colour; write it as '#F7F2E7'") from error
    if alpha < 1:
        raise MotionError(f"'{under}' can be seen through itself; give a colour without alpha, such as '#FFFFFF'")
    *own, opacity = colour.parse_hex(scene.background)
    if opacity == 1:
        return scene
    mixed = (opacity * part + (1 - opacity) * below for part, below in zip(own, (red, green, blue), strict=True))
    return scene.copy_with(background="#" + "".join(f"{round(float(part) * 255):02X}" for part in mixed))
