"""The formulas that links made by hand begin with: how one value follows another, told in numbers.

In `formula(driver, now)`, `driver` is what drives, as a formula names it, and `now` what it is at the frame at which the link must not make
the picture jump; None where that does not matter. `keeps` says whether the formula sees to that itself.
Numbers are written as short as they stay exact.
"""

from abc import abstractmethod
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from vine_swing.motion.basics.values import Frame, Frozen, Number

Factor = Annotated[float, Field(strict=True, ge=-1e6, le=1e6)]
Size = Annotated[float, Field(strict=True, gt=0, le=1e6)]


class _How(Frozen):
    keeps: ClassVar[bool] = False

    @abstractmethod
    def formula(self, driver: str, now: float | None) -> str:
        """The formula's text."""


class Same(_How):
    """The same value."""

    how: Literal["same"]

    def formula(self, driver: str, now: float | None) -> str:
        return driver


class Times(_How):
    """This many times the driver's value."""

    how: Literal["times"]
    factor: Factor = 1.0

    def formula(self, driver: str, now: float | None) -> str:
        return f"{driver} * {number(self.factor)}"


class Geared(_How):
    """Turned by a wheel of `driver_size` on one of `own_size`, both as radii or both as numbers of teeth: the other way round where they
    mesh, the same way round where a belt joins them."""

    how: Literal["geared"]
    driver_size: Size = 1.0
    own_size: Size = 1.0
    same_way: bool = False

    def formula(self, driver: str, now: float | None) -> str:
        return f"{driver} * {'' if self.same_way else '-'}{number(self.driver_size)} / {number(self.own_size)}"


class Mirrored(_How):
    """As far on the one side of a value as the driver is on the other."""

    how: Literal["mirrored"]
    about: Number = 0.0

    def formula(self, driver: str, now: float | None) -> str:
        return f"{number(2 * self.about)} - {driver}" if self.about else f"-{driver}"


class _FromRange(_How):
    low: Number = 0.0
    high: Number = 1.0

    @model_validator(mode="after")
    def _ends_differ(self) -> Self:
        if self.low == self.high:
            raise ValueError(f"the driver's range goes from {self.low:g} to {self.high:g}; let its ends differ")
        return self

    def share(self, driver: str) -> str:
        """How far the driver is from `low` to `high`, as a formula."""
        way = _bracketed(self.high - self.low)
        if self.low == 0:
            return f"{driver} / {way}"
        return f"({driver} {'-' if self.low > 0 else '+'} {number(abs(self.low))}) / {way}"


class Remapped(_FromRange):
    """From one range to another: where the driver goes from `low` to `high`, this goes from `to_low` to `to_high`, and no farther unless it
    is released on."""

    how: Literal["remapped"]
    to_low: Number = 0.0
    to_high: Number = 1.0
    go_on: bool = False

    def formula(self, driver: str, now: float | None) -> str:
        share = self.share(driver) if self.go_on else f"clamp({self.share(driver)}, 0, 1)"
        return f"mix({number(self.to_low)}, {number(self.to_high)}, {share})"


class Later(_How):
    """The driver's value some frames later; a negative number is earlier."""

    how: Literal["later"]
    frames: Frame = 6.0

    def formula(self, driver: str, now: float | None) -> str:
        if number(abs(self.frames)) == "0":
            return driver
        return f"{driver[:-1]} @ {'-' if self.frames > 0 else '+'}{number(abs(self.frames))}f}}"


class Envelope(_FromRange):
    """Its own motion, let through as the driver goes from `low`, where it is still, to `high`, where all shows."""

    how: Literal["envelope"]

    def formula(self, driver: str, now: float | None) -> str:
        return f"value * clamp({self.share(driver)}, 0, 1)"


class Scaled(_How):
    """Its own value times the driver's; in its current state where the driver is what it is now."""

    how: Literal["scaled"]
    keeps: ClassVar[bool] = True

    def formula(self, driver: str, now: float | None) -> str:
        if now == 0:
            return f"value * (1 + {driver})"
        return f"value * {driver}" if now is None or now == 1 else f"value * {driver} / {_bracketed(round(now, 9))}"


class Added(_How):
    """Its own value with this many times the driver's added; in its current state where the driver is what it is now."""

    how: Literal["added"]
    factor: Factor = 1.0
    keeps: ClassVar[bool] = True

    def formula(self, driver: str, now: float | None) -> str:
        moved = f"({driver} {'-' if now > 0 else '+'} {number(abs(round(now, 9)))})" if now else driver
        return f"value + {moved}" if self.factor == 1 else f"value + {moved} * {number(self.factor)}"


ByHand = Annotated[Same | Times | Geared | Mirrored | Remapped | Later | Envelope | Scaled | Added, Field(discriminator="how")]


def number(value: float) -> str:
    """A number as a formula writes it: without an exponent, and without a point where it is whole."""
    return f"{round(value, 9) + 0.0:.9f}".rstrip("0").rstrip(".")


def shifted(formula: str, by: float) -> str:
    """A formula with a number added, so that its value does not jump when it is put on."""
    by = round(by, 6)
    return formula if by == 0 else f"{formula} {'+' if by > 0 else '-'} {number(abs(by))}"


def _bracketed(value: float) -> str:
    return number(value) if value >= 0 else f"({number(value)})"
