"""Animated WebP (RFC 9649), see-through where the scene is."""

from vine_swing.formats.codec import Codec

#: Of the lossy coding; 100 is the best it has.
_QUALITY = {"small": "60", "good": "90", "best": "100"}
WEBP = Codec(
    container="webp",
    codec="libwebp_anim",
    pix_fmt="yuva420p",
    codec_options=lambda film: {"quality": _QUALITY[film.options.quality]},
    container_options=lambda film: {"loop": str(film.options.loops)},
)
