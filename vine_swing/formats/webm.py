"""VP9 in WebM (bitstream specification by Google, and Matroska, RFC 9559), with alpha as a second picture beside each."""

from pathlib import Path

from vine_swing.formats.export import Progress, always
from vine_swing.formats.film import write_film
from vine_swing.motion.baking.baked import Baked

_CODEC_OPTIONS = {"crf": "20", "b": "0", "deadline": "good", "cpu-used": "4", "row-mt": "1"}
_CONTAINER_OPTIONS: dict[str, str] = {}
_METADATA: dict[str, str] = {"alpha_mode": "1"}


def write_webm(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    """Paint every baked frame and encode them; see `write_film`."""
    write_film(
        baked,
        path,
        container="webm",
        codec="libvpx-vp9",
        pix_fmt="yuva420p",
        progress=progress,
        scale=scale,
        codec_options=_CODEC_OPTIONS,
        container_options=_CONTAINER_OPTIONS,
        metadata=_METADATA,
    )
