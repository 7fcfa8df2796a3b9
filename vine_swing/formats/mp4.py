"""H.264 in MP4 (ISO/IEC 14496-10 and -14), colours tagged as BT.709."""

from fractions import Fraction
from pathlib import Path

import av
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

from vine_swing.formats.export import Cancelled, Progress, made_ahead
from vine_swing.motion.baking.baked import Baked
from vine_swing.picture.blur import FramePainter, painter_of


def write_mp4(baked: Baked, path: Path, *, progress: Progress = lambda done: True, scale: float = 1.0, crf: int = 16) -> None:
    """Paint every baked frame and encode them.

    Sides of odd length keep their size by full-resolution colour (4:4:4), as 4:2:0 needs even ones.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = painter_of(baked, scale=scale)
    even = painter.width % 2 == 0 and painter.height % 2 == 0
    rate = Fraction(baked.scene.fps).limit_denominator(1001)
    with av.open(str(path), "w", format="mp4", options={"movflags": "+faststart"}) as file:
        stream = file.add_stream("libx264", rate=rate, options={"crf": str(crf), "preset": "medium"})
        stream.width, stream.height = painter.width, painter.height
        stream.pix_fmt = "yuv420p" if even else "yuv444p"
        stream.codec_context.color_range = 1
        stream.codec_context.colorspace = stream.codec_context.color_primaries = stream.codec_context.color_trc = 1
        make = _Pictures(painter, stream.pix_fmt).make
        for number, frame in enumerate(made_ahead(make, range(len(baked.frames)))):
            frame.pts, frame.time_base = number, 1 / rate
            file.mux(stream.encode(frame))
            if not progress(number + 1):
                raise Cancelled
        file.mux(stream.encode(None))


class _Pictures:
    """Paints frames straight into the memory of one video frame and converts them to the encoder's pixels; for one thread."""

    def __init__(self, painter: FramePainter, pix_fmt: str) -> None:
        self._painter, self._pix_fmt = painter, pix_fmt
        self._canvas = av.VideoFrame(painter.width, painter.height, "rgba")
        self._plane = self._canvas.planes[0]
        self._reformatter = VideoReformatter()

    def make(self, index: int) -> av.VideoFrame:
        """The picture at a row of the baked frames, as a frame of its own."""
        self._painter.paint_into(self._plane, index, row_bytes=self._plane.line_size)
        return self._reformatter.reformat(
            self._canvas,
            format=self._pix_fmt,
            src_colorspace=Colorspace.ITU709,
            dst_colorspace=Colorspace.ITU709,
            src_color_range=ColorRange.JPEG,
            dst_color_range=ColorRange.MPEG,
            # The encoder keeps the other core busy.
            threads=1,
        )
