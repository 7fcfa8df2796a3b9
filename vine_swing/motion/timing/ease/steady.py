"""The two eases without parameters: hold and linear."""

from vine_swing.motion.timing.ease.curve import Array


class Hold:
    """Stays on the first value until the next key's frame."""

    number = 0

    def at(self, u: Array) -> Array:
        """How far the stretch is passed (0 to 1, beyond for overshoots) at shares u of its time."""
        return (u >= 1).astype(float)

    def slopes(self) -> tuple[float, float]:
        """dp/du at the beginning and at the end."""
        return 0.0, 0.0


class Linear:
    """The same change on every frame."""

    number = 0

    def at(self, u: Array) -> Array:
        """How far the stretch is passed (0 to 1, beyond for overshoots) at shares u of its time."""
        return u.copy()

    def slopes(self) -> tuple[float, float]:
        """dp/du at the beginning and at the end."""
        return 1.0, 1.0
