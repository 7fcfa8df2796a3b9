"""VP9 in WebM (bitstream specification by Google, and Matroska, RFC 9559), with alpha as a second picture beside each."""

from vine_swing.formats.film import Film

WEBM = Film(
    container="webm",
    codec="libvpx-vp9",
    pix_fmt="yuva420p",
    codec_options={"crf": "20", "b": "0", "deadline": "good", "cpu-used": "4", "row-mt": "1"},
    metadata={"alpha_mode": "1"},
)
