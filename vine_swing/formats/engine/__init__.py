"""Engines: what paints the frames of an export, on this machine or on many. All give the same bytes."""

from vine_swing.formats.engine.engine import Engine
from vine_swing.formats.engine.painting import Painting, Windows
from vine_swing.formats.engine.thread import ThreadEngine

__all__ = ["Engine", "Painting", "ThreadEngine", "Windows"]
