"""SVG and HTML that move by themselves: the paint list as a tree of elements, whose attributes change by declarations, without a script."""

from vine_swing.formats.svg.write import write_html, write_still, write_svg

__all__ = ["write_html", "write_still", "write_svg"]
