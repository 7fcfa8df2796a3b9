"""Outlines: lines and cubics that shapes and SVG path data are turned into, to be painted."""

from vine_swing.motion.outline.outline import Outline, OutlineBuilder
from vine_swing.motion.outline.svg_path import parse_path

__all__ = ["Outline", "OutlineBuilder", "parse_path"]
