"""Text as outlines: fonts, shaping by HarfBuzz, lines and letters."""

from vine_swing.motion.outline.text.families import FAMILIES, Family
from vine_swing.motion.outline.text.typeset import Setting, Typeset, typeset

__all__ = ["FAMILIES", "Family", "Setting", "Typeset", "typeset"]
