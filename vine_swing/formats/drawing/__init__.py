"""SVG drawings brought in as objects: paths, shapes, groups, text as outlines, fills, strokes, gradients and embedded pictures."""

from vine_swing.formats.drawing.read import Drawing, read_svg

__all__ = ["Drawing", "read_svg"]
