"""Films that can be seen through: every frame painted with the scene's own background and handed to an encoder in order."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path

import av

from vine_swing.formats.export import Cancelled, Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.soundtrack import SoundTrack
from vine_swing.formats.straight import straight

Words = Mapping[str, str]


@dataclass(frozen=True, kw_only=True)
class Codec:
    """How a film is encoded: container, codec and pix_fmt by the names that FFmpeg gives them, with options for both, and metadata of the stream."""

    container: str
    codec: str
    #: What encodes its sound; None where it is silent.
    sound: str | None = None
    pix_fmt: str
    codec_options: Callable[[Film], Words] = lambda film: {}
    container_options: Callable[[Film], Words] = lambda film: {}
    metadata: Words = field(default_factory=dict)


def write_encoded(codec: Codec, film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Paint every picture, with alpha where the background can be seen through, and encode them, with what is heard.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    with av.open(str(path), "w", format=codec.container, options=dict(codec.container_options(film))) as file:
        stream = file.add_stream(codec.codec, rate=film.rate, options=dict(codec.codec_options(film)))
        assert isinstance(stream, av.VideoStream)
        (stream.width, stream.height), stream.pix_fmt = film.size, codec.pix_fmt
        stream.metadata.update(codec.metadata)
        sound = SoundTrack(file, film, codec.sound) if codec.sound is not None else None
        for number, pixels in enumerate(film.pictures()):
            frame = av.VideoFrame.from_ndarray(straight(pixels), format="rgba").reformat(format=codec.pix_fmt)
            frame.pts, frame.time_base = number, 1 / film.rate
            file.mux(stream.encode(frame))
            if sound is not None:
                sound.until(float(number / film.rate))
            if not progress(number + 1):
                raise Cancelled
        file.mux(stream.encode(None))
        if sound is not None:
            sound.finish()
    return sound.remarks if sound is not None else ()
