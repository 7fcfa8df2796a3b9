"""VP9 in WebM (bitstream specification by Google, and Matroska, RFC 9559), with alpha as a second picture beside each; sound as Opus (RFC 6716)."""

from vine_swing.formats.codec import Codec

#: Constant quality: the smaller, the better.
_CRF = {"small": "34", "good": "20", "best": "8"}
WEBM = Codec(
    container="webm",
    codec="libvpx-vp9",
    sound="libopus",
    pix_fmt="yuva420p",
    codec_options=lambda film: {"crf": _CRF[film.options.quality], "b": "0", "deadline": "good", "cpu-used": "4", "row-mt": "1"},
    metadata={"alpha_mode": "1"},
)
