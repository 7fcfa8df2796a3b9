"""Scenes ↔ rows."""

from vine_swing.store.rows.files import kept_blob
from vine_swing.store.rows.order import renumber
from vine_swing.store.rows.reading import read
from vine_swing.store.rows.writing import insert, write_difference

__all__ = ["insert", "kept_blob", "read", "renumber", "write_difference"]
