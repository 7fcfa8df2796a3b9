"""Opening media files by named demuxers and decoders only.

Left to itself, FFmpeg guesses the format of a file among hundreds. Some of those formats name other files or network addresses to read, and some
decoders are rarely tested. So a file is opened by the demuxer that its first bytes call for, with the decoders of a short list, and without any
protocol but the bytes at hand.
"""

import io
from collections.abc import Collection, Iterable
from typing import TYPE_CHECKING, TypeVar

if TYPE_CHECKING:
    from av.audio.stream import AudioStream
    from av.container import InputContainer
    from av.video.stream import VideoStream

    StreamOf = TypeVar("StreamOf", AudioStream, VideoStream)

#: Decoders of sounds, and of films, by FFmpeg's names.
SOUND_CODECS = (
    *("pcm_u8", "pcm_s16le", "pcm_s16be", "pcm_s24le", "pcm_s24be", "pcm_s32le", "pcm_s32be", "pcm_f32le", "pcm_f32be", "pcm_f64le", "pcm_f64be"),
    *("pcm_s8", "pcm_alaw", "pcm_mulaw", "adpcm_ms", "adpcm_ima_wav", "adpcm_ima_qt"),
    *("mp3", "mp3float", "mp2", "mp2float", "vorbis", "opus", "libopus", "flac", "aac", "alac"),
)
FILM_CODECS = ("h264", "hevc", "vp8", "vp9", "libdav1d", "av1", "mpeg4", "mjpeg", "prores", "png", "qtrle", "h263")
#: Where the form type is in a chunk-based file (RIFF, AIFF), and in an MPEG-4 file.
_FORM, _BRAND = slice(8, 12), slice(4, 8)


def demuxer_of(data: bytes) -> str | None:
    """Return FFmpeg's name of the demuxer for a WAV, MP3, Ogg, FLAC, MPEG-4, AIFF, Matroska or WebM file, by its first bytes; None for others."""
    if data[:4] in (b"RIFF", b"RF64") and data[_FORM] == b"WAVE":
        return "wav"
    if data[:4] == b"FORM" and data[_FORM] in (b"AIFF", b"AIFC"):
        return "aiff"
    if data[_BRAND] in (b"ftyp", b"moov", b"mdat", b"wide", b"free"):
        return "mov"
    for start, name in ((b"OggS", "ogg"), (b"fLaC", "flac"), (b"\x1aE\xdf\xa3", "matroska")):
        if data.startswith(start):
            return name
    if data[:3] == b"ID3":
        # Some writers put an ID3 tag before FLAC, too.
        size = 10 + sum(byte << shift for byte, shift in zip(data[6:10], (21, 14, 7, 0), strict=False))
        return "flac" if data[size : size + 4] == b"fLaC" else "mp3"
    # An MPEG audio frame begins with eleven set bits, and its layer is not the reserved one (ISO/IEC 11172-3, 2.4.2.3).
    is_frame = len(data) > 2 and data[0] == 0xFF and data[1] & 0xE0 == 0xE0 and data[1] & 0x06 != 0
    return "mp3" if is_frame else None


def opened(data: bytes, demuxer: str, codecs: Iterable[str]) -> "InputContainer":
    """Open a media file in memory.

    Args:
        data: the file.
        demuxer: as `demuxer_of` names it.
        codecs: FFmpeg's names of the decoders that may be used.

    Raises:
        av.FFmpegError: if it is damaged.
    """
    import av

    # "data" reads from URLs of that kind only: every other protocol, files and sockets among them, is refused.
    options = {"codec_whitelist": ",".join(codecs), "format_whitelist": _FAMILIES.get(demuxer, demuxer), "protocol_whitelist": "data"}
    return av.open(io.BytesIO(data), "r", format=demuxer, options=options)


def first_listed(streams: "Iterable[StreamOf]", codecs: Collection[str]) -> "StreamOf | None":
    """Return the first of some streams whose decoder is listed: an opened file may hold streams of other decoders, which must not be used."""
    return next((one for one in streams if one.codec_context is not None and one.codec_context.name in codecs), None)


#: Demuxers that FFmpeg lists under several names at once.
_FAMILIES = {"mov": "mov,mp4,m4a,3gp,3g2,mj2", "matroska": "matroska,webm"}
