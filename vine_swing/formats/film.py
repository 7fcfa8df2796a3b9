"""Films that can be seen through: every frame painted with the scene's own background and handed to an encoder in order."""

from collections.abc import Mapping
from fractions import Fraction
from pathlib import Path

import av

from vine_swing.formats.export import Cancelled, Progress, painted
from vine_swing.formats.straight import straight
from vine_swing.motion.baking.baked import Baked
from vine_swing.picture.blur import painter_of


def write_film(
    baked: Baked,
    path: Path,
    *,
    container: str,
    codec: str,
    pix_fmt: str,
    progress: Progress,
    scale: float,
    codec_options: Mapping[str, str],
    container_options: Mapping[str, str],
    metadata: Mapping[str, str],
) -> None:
    """Paint every baked frame, with alpha where the background can be seen through, and encode them.

    container, codec, pix_fmt: by the names that FFmpeg gives them. metadata: of the stream.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = painter_of(baked, scale=scale)
    rate = Fraction(baked.scene.fps).limit_denominator(1001)
    with av.open(str(path), "w", format=container, options=dict(container_options)) as file:
        stream = file.add_stream(codec, rate=rate, options=dict(codec_options))
        assert isinstance(stream, av.VideoStream)
        stream.width, stream.height, stream.pix_fmt = painter.width, painter.height, pix_fmt
        stream.metadata.update(metadata)
        for number, pixels in enumerate(painted(painter, range(len(baked.frames)))):
            frame = av.VideoFrame.from_ndarray(straight(pixels), format="rgba").reformat(format=pix_fmt)
            frame.pts, frame.time_base = number, 1 / rate
            file.mux(stream.encode(frame))
            if not progress(number + 1):
                raise Cancelled
        file.mux(stream.encode(None))
