"""A small still of a scene, for lists of scenes."""

import skia

from vine_swing.motion.baking.baked import Baked
from vine_swing.picture.blur import painter_of
from vine_swing.picture.paint import Painter

#: Pixels across and down that a preview fits into: two device pixels for each of a card on the Shelf.
WIDTH, HEIGHT = 560, 400
#: Of WebP, 0…100.
QUALITY = 82
#: How much a tiny frame is enlarged at most: what its objects reach beyond it is painted, too.
MOST_SCALE = 16.0


def still_frame(length: int) -> int:
    """The frame that a still of a scene shows: a third of the way in, when objects are under way."""
    return length // 3


def still(baked: Baked, frame: int, scale: float, *, background: bool = True) -> bytes:
    """One frame as exports paint it, as PNG."""
    pixels = painter_of(baked, scale=scale, background=background).frame(frame)
    image = skia.Image.fromarray(pixels, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    return bytes(image.encodeToData(skia.kPNG, 100))


def preview(baked: Baked) -> bytes:
    """A still of a baked scene as WebP, no larger than WIDTH × HEIGHT."""
    width, height = baked.scene.size
    painter = Painter(baked, scale=min(WIDTH / width, HEIGHT / height, MOST_SCALE))
    image = skia.Image.fromarray(painter.frame(still_frame(baked.scene.length)), skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    return bytes(image.encodeToData(skia.kWEBP, QUALITY))
