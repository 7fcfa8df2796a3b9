"""Animated WebP (RFC 9649), see-through where the scene is."""

from pathlib import Path

from vine_swing.formats.export import Progress, always
from vine_swing.formats.film import write_film
from vine_swing.motion.baking.baked import Baked

_CODEC_OPTIONS = {"quality": "90"}
_CONTAINER_OPTIONS: dict[str, str] = {"loop": "0"}
_METADATA: dict[str, str] = {}


def write_webp(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    """Paint every baked frame and encode them; see `write_film`."""
    write_film(
        baked,
        path,
        container="webp",
        codec="libwebp_anim",
        pix_fmt="yuva420p",
        progress=progress,
        scale=scale,
        codec_options=_CODEC_OPTIONS,
        container_options=_CONTAINER_OPTIONS,
        metadata=_METADATA,
    )
