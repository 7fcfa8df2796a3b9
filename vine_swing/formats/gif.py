"""GIF89a, with one palette chosen from frames of the whole stretch."""

from fractions import Fraction
from pathlib import Path

import av
import av.filter
from av.container import OutputContainer
from av.filter.context import FilterContext
from av.video.stream import VideoStream

from vine_swing.formats.export import Cancelled, Pixels, Progress, painted
from vine_swing.motion.baking.baked import Baked
from vine_swing.picture.blur import FramePainter, painter_of

#: How many frames, spread over the whole, the palette is chosen from.
SAMPLED = 24
#: GIF counts time in hundredths of a second.
_TICKS = 100
_RGBA = av.VideoFormat("rgba")


def write_gif(baked: Baked, path: Path, *, progress: Progress = lambda done: True, scale: float = 1.0) -> None:
    """Paint every baked frame and encode them, looping for ever.

    GIF counts time in hundredths of a second; each frame starts at the nearest one, so that the whole keeps its pace.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = painter_of(baked, scale=scale)
    rate = Fraction(baked.scene.fps).limit_denominator(1001)
    count = len(baked.frames)
    palette = _palette(painter, range(0, count, max(1, count // SAMPLED)))
    _graph_kept, source, colours, sink = _graph(painter)  # the graph must outlive its parts
    colours.push(palette)
    colours.push(None)
    with av.open(str(path), "w", format="gif", options={"loop": "0"}) as file:
        stream = file.add_stream("gif", rate=rate)
        stream.width, stream.height, stream.pix_fmt = painter.width, painter.height, "pal8"
        stream.codec_context.time_base = Fraction(1, _TICKS)
        for number, pixels in enumerate(painted(painter, range(count))):
            source.push(_frame(pixels, number, rate))
            _encode(file, stream, sink)
            if not progress(number + 1):
                raise Cancelled
        source.push(None)
        _encode(file, stream, sink)
        file.mux(stream.encode(None))


def _frame(pixels: Pixels, number: int, rate: Fraction) -> av.VideoFrame:
    frame = av.VideoFrame.from_ndarray(pixels, format="rgba")
    frame.pts, frame.time_base = round(number * _TICKS / rate), Fraction(1, _TICKS)
    return frame


def _palette(painter: FramePainter, frames: range) -> av.VideoFrame:
    """The picture of 256 colours that suits the sampled frames."""
    graph = av.filter.Graph()
    source = graph.add_buffer(width=painter.width, height=painter.height, format=_RGBA, time_base=Fraction(1, _TICKS))
    chooser, sink = graph.add("palettegen", "reserve_transparent=0:stats_mode=full"), graph.add("buffersink")
    source.link_to(chooser)
    chooser.link_to(sink)
    graph.configure()
    for number, pixels in enumerate(painted(painter, frames)):
        source.push(_frame(pixels, number, Fraction(_TICKS)))
    source.push(None)
    chosen = sink.pull()
    assert isinstance(chosen, av.VideoFrame)
    return chosen


def _graph(painter: FramePainter) -> tuple[av.filter.Graph, FilterContext, FilterContext, FilterContext]:
    graph = av.filter.Graph()
    source = graph.add_buffer(width=painter.width, height=painter.height, format=_RGBA, time_base=Fraction(1, _TICKS))
    colours = graph.add_buffer(width=16, height=16, format=av.VideoFormat("rgb32"), time_base=Fraction(1, _TICKS))
    apply, sink = graph.add("paletteuse", "dither=sierra2_4a:diff_mode=rectangle"), graph.add("buffersink")
    source.link_to(apply, 0, 0)
    colours.link_to(apply, 0, 1)
    apply.link_to(sink)
    graph.configure()
    return graph, source, colours, sink


def _encode(file: OutputContainer, stream: VideoStream, sink: FilterContext) -> None:
    while True:
        try:
            frame = sink.pull()
        except (av.BlockingIOError, av.EOFError):
            return
        assert isinstance(frame, av.VideoFrame)
        file.mux(stream.encode(frame))
