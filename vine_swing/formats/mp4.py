"""H.264 in MP4 (ISO/IEC 14496-10 and -14), colours tagged as BT.709."""

from fractions import Fraction
from pathlib import Path

import av

from vine_swing.formats.export import Cancelled, Progress, painted
from vine_swing.motion.bake import Baked
from vine_swing.picture.paint import Painter


def write_mp4(baked: Baked, path: Path, *, progress: Progress = lambda done: True, scale: float = 1.0, crf: int = 16) -> None:
    """Paint every baked frame and encode them.

    Sides of odd length keep their size by full-resolution colour (4:4:4), as 4:2:0 needs even ones.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = Painter(baked, scale=scale)
    even = painter.width % 2 == 0 and painter.height % 2 == 0
    rate = Fraction(baked.scene.fps).limit_denominator(1001)
    with av.open(str(path), "w", format="mp4", options={"movflags": "+faststart"}) as file:
        stream = file.add_stream("libx264", rate=rate, options={"crf": str(crf), "preset": "medium"})
        stream.width, stream.height = painter.width, painter.height
        stream.pix_fmt = "yuv420p" if even else "yuv444p"
        stream.codec_context.color_range = 1
        stream.codec_context.colorspace = stream.codec_context.color_primaries = stream.codec_context.color_trc = 1
        for number, pixels in enumerate(painted(painter, range(len(baked.frames)))):
            picture = av.VideoFrame.from_ndarray(pixels, format="rgba")
            frame = picture.reformat(
                format=stream.pix_fmt, src_colorspace="ITU709", dst_colorspace="ITU709", src_color_range="JPEG", dst_color_range="MPEG"
            )
            frame.pts, frame.time_base = number, 1 / rate
            file.mux(stream.encode(frame))
            if not progress(number + 1):
                raise Cancelled
        file.mux(stream.encode(None))
