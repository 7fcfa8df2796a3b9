"""The two eases without parameters: hold and linear."""

from vine_swing.motion.ease.curve import Array


class Hold:
    """Stays on the first value until the next key's frame."""

    def at(self, u: Array) -> Array:
        return (u >= 1).astype(float)

    def slopes(self) -> tuple[float, float]:
        return 0.0, 0.0


class Linear:
    """The same change on every frame."""

    def at(self, u: Array) -> Array:
        return u.copy()

    def slopes(self) -> tuple[float, float]:
        return 1.0, 1.0
