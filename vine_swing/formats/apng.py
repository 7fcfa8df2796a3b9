"""An animated PNG (PNG, third edition, W3C): every colour kept, see-through where the scene is."""

from pathlib import Path

from vine_swing.formats.export import Progress, always
from vine_swing.formats.film import write_film
from vine_swing.motion.baking.baked import Baked

_CODEC_OPTIONS: dict[str, str] = {}
_CONTAINER_OPTIONS: dict[str, str] = {"plays": "0"}
_METADATA: dict[str, str] = {}


def write_apng(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    """Paint every baked frame and encode them; see `write_film`."""
    write_film(
        baked,
        path,
        container="apng",
        codec="apng",
        pix_fmt="rgba",
        progress=progress,
        scale=scale,
        codec_options=_CODEC_OPTIONS,
        container_options=_CONTAINER_OPTIONS,
        metadata=_METADATA,
    )
