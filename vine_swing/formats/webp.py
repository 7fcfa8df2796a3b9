"""Animated WebP (RFC 9649), see-through where the scene is."""

from vine_swing.formats.film import Film

WEBP = Film(container="webp", codec="libwebp_anim", pix_fmt="yuva420p", codec_options={"quality": "90"}, container_options={"loop": "0"})
