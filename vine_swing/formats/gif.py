"""GIF89a, with one palette chosen from frames of the whole stretch."""

from fractions import Fraction
from pathlib import Path

import av
import av.filter
import numpy as np
from av.container import OutputContainer
from av.filter.context import FilterContext
from av.video.stream import VideoStream

from vine_swing.formats.export import Cancelled, Pixels, Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.straight import straight

#: How many frames, spread over the whole, the palette is chosen from.
SAMPLED = 24
#: GIF counts time in hundredths of a second.
_TICKS = 100
#: Ways of mixing colours by FFmpeg's names: error diffusion after Sierra, a Bayer matrix, and none.
_DITHER = {"diffused": "sierra2_4a", "ordered": "bayer:bayer_scale=3", "none": "none"}
_RGBA = av.VideoFormat("rgba")


def write_gif(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Paint every picture and encode them.

    GIF counts time in hundredths of a second; each picture starts at the nearest one, so that the whole keeps its pace. Of those that would start at
    the same one, only the first is there. Browsers show none for less than two hundredths, so faster ones are listed in the remarks.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    count = len(film.frames)
    palette = _palette(film, range(0, count, max(1, count // SAMPLED)))
    _graph_kept, source, colours, sink = _graph(film)  # the graph must outlive its parts
    colours.push(palette)
    colours.push(None)
    # How often it is repeated after it was played once; 0 forever, -1 not at all.
    loops = {0: 0, 1: -1}.get(film.options.loops, film.options.loops - 1)
    with av.open(str(path), "w", format="gif", options={"loop": str(loops)}) as file:
        stream = file.add_stream("gif", rate=film.rate)
        (stream.width, stream.height), stream.pix_fmt = film.size, "pal8"
        stream.codec_context.time_base = Fraction(1, _TICKS)
        started = -1
        for number, pixels in enumerate(film.pictures()):
            start = round(number * _TICKS / film.rate)
            if start > started:
                source.push(_frame(_solid(pixels), start))
                _encode(file, stream, sink)
                started = start
            if not progress(number + 1):
                raise Cancelled
        source.push(None)
        _encode(file, stream, sink)
        file.mux(stream.encode(None))
    report = [f"GIF plays at most 50 pictures a second, not {film.fps:g}; many players slow it down"] if film.fps > 50 else []
    if film.sees_through:
        report.append("a pixel of a GIF is either seen through or not: soft edges and shadows have hard edges in it")
    return tuple(report)


def _solid(pixels: Pixels) -> Pixels:
    """Pixels that are either there or not, as GIF has them, with their colours as they are."""
    if (pixels[..., 3] == 255).all():
        return pixels
    plain = straight(pixels).copy()
    plain[..., 3] = np.where(plain[..., 3] >= 128, 255, 0)
    return plain


def _frame(pixels: Pixels, start: int) -> av.VideoFrame:
    """A picture that starts at this many hundredths of a second."""
    frame = av.VideoFrame.from_ndarray(pixels, format="rgba")
    frame.pts, frame.time_base = start, Fraction(1, _TICKS)
    return frame


def _palette(film: Film, rows: range) -> av.VideoFrame:
    """The picture of 256 colours that suits the sampled pictures; one of them is none where they can be seen through."""
    graph = av.filter.Graph()
    source = graph.add_buffer(width=film.size[0], height=film.size[1], format=_RGBA, time_base=Fraction(1, _TICKS))
    chooser = graph.add("palettegen", f"reserve_transparent={int(film.sees_through)}:stats_mode=full")
    sink = graph.add("buffersink")
    source.link_to(chooser)
    chooser.link_to(sink)
    graph.configure()
    for number, pixels in enumerate(film.pictures(rows)):
        source.push(_frame(_solid(pixels), number))
    source.push(None)
    chosen = sink.pull()
    assert isinstance(chosen, av.VideoFrame)
    return chosen


def _graph(film: Film) -> tuple[av.filter.Graph, FilterContext, FilterContext, FilterContext]:
    graph = av.filter.Graph()
    source = graph.add_buffer(width=film.size[0], height=film.size[1], format=_RGBA, time_base=Fraction(1, _TICKS))
    colours = graph.add_buffer(width=16, height=16, format=av.VideoFormat("rgb32"), time_base=Fraction(1, _TICKS))
    apply, sink = graph.add("paletteuse", f"dither={_DITHER[film.options.dither]}:diff_mode=rectangle"), graph.add("buffersink")
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
