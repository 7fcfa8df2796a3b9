"""H.264 in MP4 (ISO/IEC 14496-10 and -14), 4:2:0, colours tagged as BT.709; sound as AAC (ISO/IEC 14496-3)."""

from pathlib import Path

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

from vine_swing.formats.export import Cancelled, Pixels, Progress, made_ahead, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.soundtrack import SoundTrack

#: Constant rate factor: the smaller, the better.
_CRF = {"small": 26, "good": 16, "best": 8}


def write_mp4(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Paint every picture and encode them. Players expect colours at half the size (4:2:0), which needs even sides: an odd one is made longer by
    repeating its last row or column, which is listed in the remarks.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    width, height = film.size
    even = (width + width % 2, height + height % 2)
    with av.open(str(path), "w", format="mp4", options={"movflags": "+faststart"}) as file:
        stream = file.add_stream("libx264", rate=film.rate, options={"crf": str(_CRF[film.options.quality]), "preset": "medium"})
        (stream.width, stream.height), stream.pix_fmt = even, "yuv420p"
        stream.codec_context.color_range = 1
        stream.codec_context.colorspace = stream.codec_context.color_primaries = stream.codec_context.color_trc = 1
        sound = SoundTrack(file, film, "aac")
        for number, frame in enumerate(made_ahead(_Frames(even).of, film.pictures())):
            frame.pts, frame.time_base = number, 1 / film.rate
            file.mux(stream.encode(frame))
            sound.until(float(number / film.rate))
            if not progress(number + 1):
                raise Cancelled
        file.mux(stream.encode(None))
        sound.finish()
    if even == film.size:
        return sound.remarks
    return (f"{width} × {height} px became {even[0]} × {even[1]}: this kind of film needs even sides", *sound.remarks)


class _Frames:
    """Turns pictures into the encoder's own frames; for one thread."""

    def __init__(self, size: tuple[int, int]) -> None:
        self._size = size
        self._reformatter = VideoReformatter()

    def of(self, pixels: Pixels) -> av.VideoFrame:
        """A picture as a frame of its own."""
        height, width = pixels.shape[:2]
        if (width, height) != self._size:
            pixels = np.pad(pixels, ((0, self._size[1] - height), (0, self._size[0] - width), (0, 0)), mode="edge")
        return self._reformatter.reformat(
            av.VideoFrame.from_numpy_buffer(pixels, format="rgba"),
            format="yuv420p",
            src_colorspace=Colorspace.ITU709,
            dst_colorspace=Colorspace.ITU709,
            src_color_range=ColorRange.JPEG,
            dst_color_range=ColorRange.MPEG,
            # The encoder keeps the other core busy.
            threads=1,
        )
