"""Every blend mode, against the formulas of Compositing and Blending Level 1 (W3C), section 10."""

from typing import get_args

import numpy as np
import pytest

from tests.motion.scenes import scene, shape
from vine_swing.motion import bake
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.values import Blend
from vine_swing.picture.paint import Painter

PAIRS = [
    ("#F2932B", "#2F6B8F"),
    ("#20304A", "#FBF3DF"),
    ("#D0365B", "#3F8F63"),
    ("#808080", "#C04010"),
    ("#FFFFFF", "#203040"),
    ("#7A7A20", "#000000"),
]


def multiply(b, s):
    return b * s


def screen(b, s):
    return b + s - b * s


def hard_light(b, s):
    return np.where(s <= 0.5, multiply(b, 2 * s), screen(b, 2 * s - 1))


def dodge(b, s):
    return np.where(b == 0, 0, np.where(s == 1, 1, np.minimum(1, b / np.where(s == 1, 1, 1 - s))))


def burn(b, s):
    return np.where(b == 1, 1, np.where(s == 0, 0, 1 - np.minimum(1, (1 - b) / np.where(s == 0, 1, s))))


def soft_light(b, s):
    d = np.where(b <= 0.25, ((16 * b - 12) * b + 4) * b, np.sqrt(b))
    return np.where(s <= 0.5, b - (1 - 2 * s) * b * (1 - b), b + (2 * s - 1) * (d - b))


def lum(c):
    return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2]


def clipped(c):
    light, low, high = lum(c), c.min(), c.max()
    if low < 0:
        c = light + (c - light) * light / (light - low)
    if high > 1:
        c = light + (c - light) * (1 - light) / (high - light)
    return c


def with_lum(c, light):
    return clipped(c + light - lum(c))


def with_sat(c, sat):
    return (c - c.min()) * sat / np.ptp(c) if np.ptp(c) > 0 else np.zeros(3)


FORMULAS = {
    "normal": lambda b, s: s,
    "multiply": multiply,
    "screen": screen,
    "overlay": lambda b, s: hard_light(s, b),
    "darken": np.minimum,
    "lighten": np.maximum,
    "color-dodge": dodge,
    "color-burn": burn,
    "hard-light": hard_light,
    "soft-light": soft_light,
    "difference": lambda b, s: np.abs(b - s),
    "exclusion": lambda b, s: b + s - 2 * b * s,
    "hue": lambda b, s: with_lum(with_sat(s, np.ptp(b)), lum(b)),
    "saturation": lambda b, s: with_lum(with_sat(b, np.ptp(s)), lum(b)),
    "color": lambda b, s: with_lum(s, lum(b)),
    "luminosity": lambda b, s: with_lum(b, lum(s)),
}


@pytest.mark.parametrize("mode", get_args(Blend))
@pytest.mark.parametrize("opacity", [1.0, 0.6])
def test_it_blends_by_its_formula(mode, opacity):
    for below, above in PAIRS:
        top = shape("top", type="rectangle", x=20, y=20, width=40, height=40, fill=above, opacity=opacity) | {"blend": mode}
        painted = Painter(bake(scene(top, size=[40, 40], background=below, length=1))).frame(0)[20, 20, :3] / 255
        b, s = (colour.parse_hex(one)[:3] for one in (below, above))
        expected = (1 - opacity) * b + opacity * FORMULAS[mode](b, s)
        np.testing.assert_allclose(painted, expected, atol=2.01 / 255, err_msg=f"{above} onto {below}")
