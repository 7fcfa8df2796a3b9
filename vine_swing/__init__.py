"""Vine Swing: motion that follows animation principles and rules."""

__version__ = "0.1.0"
