"""An animated PNG (PNG, third edition, W3C): every colour kept, see-through where the scene is."""

from vine_swing.formats.film import Film

APNG = Film(container="apng", codec="apng", pix_fmt="rgba", container_options={"plays": "0"})
