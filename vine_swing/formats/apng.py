"""An animated PNG (PNG, third edition, W3C): every colour kept, see-through where the scene is."""

from vine_swing.formats.codec import Codec

APNG = Codec(container="apng", codec="apng", pix_fmt="rgba", container_options=lambda film: {"plays": str(film.options.loops)})
