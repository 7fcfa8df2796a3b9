"""sRGB hex colours and the OKLab space they are blended in.

Source: B. Ottosson, "A perceptual color space for image processing" (2020); W3C CSS Color 4 for the sRGB transfer
function, for the matrices, and for blending with premultiplied alpha.
"""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

_TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)
_FROM_LMS = np.linalg.inv(_TO_LMS)
_FROM_LAB = np.linalg.inv(_TO_LAB)


def parse_hex(text: str) -> Array:
    """The four sRGB components of `#rgb`, `#rgba`, `#rrggbb` or `#rrggbbaa`, each 0…1; shape (4,)."""
    digits = text.lstrip("#")
    if len(digits) <= 4:
        digits = "".join(digit * 2 for digit in digits)
    return np.array([int((digits + "ff")[i : i + 2], 16) / 255 for i in (0, 2, 4, 6)])


def to_hex(rgba: Array) -> str:
    """The hex form of one colour, shape (4,); alpha is left out where it is full."""
    parts = [round(float(part) * 255) for part in np.clip(rgba, 0, 1)]
    return "#" + "".join(f"{part:02X}" for part in (parts if parts[3] < 255 else parts[:3]))


def to_oklab(rgba: Array) -> Array:
    """sRGB with alpha, shape (…, 4), as premultiplied OKLab: L·α, a·α, b·α, α."""
    rgb = rgba[..., :3]
    linear = np.where(rgb <= 0.04045, rgb / 12.92, ((rgb + 0.055) / 1.055) ** 2.4)
    lab = np.cbrt(linear @ _TO_LMS.T) @ _TO_LAB.T
    alpha = rgba[..., 3:]
    return np.concatenate([lab * alpha, alpha], axis=-1)


def from_oklab(laba: Array) -> Array:
    """Premultiplied OKLab, shape (…, 4), as sRGB with alpha, each clipped to 0…1. Full transparency gives black."""
    alpha = np.clip(laba[..., 3:], 0, 1)
    lab = np.divide(laba[..., :3], alpha, out=np.zeros_like(laba[..., :3]), where=alpha > 0)
    linear = np.clip((lab @ _FROM_LAB.T) ** 3 @ _FROM_LMS.T, 0, 1)
    rgb = np.where(linear <= 0.0031308, linear * 12.92, 1.055 * linear ** (1 / 2.4) - 0.055)
    return np.concatenate([np.clip(rgb, 0, 1), alpha], axis=-1)
