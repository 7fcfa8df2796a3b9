"""Colours as they are, from colours multiplied by how much they cover."""

import numpy as np

from vine_swing.formats.export import Pixels


def straight(pixels: Pixels) -> Pixels:
    """Painted pixels (height, width, 4), whose colours are multiplied by their alpha, as formats that can be seen through keep them."""
    cover = pixels[..., 3:].astype(np.uint16)
    if (cover == 255).all():
        return pixels
    plain = np.where(cover > 0, (pixels.astype(np.uint16) * 255 + cover // 2) // np.maximum(cover, 1), 0)
    plain[..., 3:] = cover
    return np.ascontiguousarray(plain.astype(np.uint8))
