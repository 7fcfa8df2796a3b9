"""Films that can be seen through: every frame painted with the scene's own background and handed to an encoder in order."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from pathlib import Path

import av

from vine_swing.formats.export import Cancelled, Progress, always, painted
from vine_swing.formats.straight import straight
from vine_swing.motion.baking.baked import Baked
from vine_swing.picture.blur import painter_of


@dataclass(frozen=True, kw_only=True)
class Film:
    """How a film is encoded: container, codec and pix_fmt by the names that FFmpeg gives them, with options for both, and metadata of the stream."""

    container: str
    codec: str
    pix_fmt: str
    codec_options: Mapping[str, str] = field(default_factory=dict)
    container_options: Mapping[str, str] = field(default_factory=dict)
    metadata: Mapping[str, str] = field(default_factory=dict)


def write_film(film: Film, baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    """Paint every baked frame, with alpha where the background can be seen through, and encode them.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = painter_of(baked, scale=scale)
    rate = Fraction(baked.scene.fps).limit_denominator(1001)
    with av.open(str(path), "w", format=film.container, options=dict(film.container_options)) as file:
        stream = file.add_stream(film.codec, rate=rate, options=dict(film.codec_options))
        assert isinstance(stream, av.VideoStream)
        stream.width, stream.height, stream.pix_fmt = painter.width, painter.height, film.pix_fmt
        stream.metadata.update(film.metadata)
        for number, pixels in enumerate(painted(painter, range(len(baked.frames)))):
            frame = av.VideoFrame.from_ndarray(straight(pixels), format="rgba").reformat(format=film.pix_fmt)
            frame.pts, frame.time_base = number, 1 / rate
            file.mux(stream.encode(frame))
            if not progress(number + 1):
                raise Cancelled
        file.mux(stream.encode(None))
