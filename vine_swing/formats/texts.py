"""Formats that are not painted: tables of values, keys, and scene files."""

from pathlib import Path

from vine_swing.formats.export import Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.keys import keys_text
from vine_swing.formats.table import frames_of, write_csv
from vine_swing.motion import dump


def write_table(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """The values of every moving channel as CSV, as far apart as the options say."""
    first, last = film.options.stretch(film.scene)
    frames = frames_of(film.scene, film.options.every)
    with path.open("w", encoding="utf-8", newline="") as file:
        write_csv(film.scene, file, frames=frames[(frames >= first) & (frames <= last)])
    progress(len(film.frames))
    return ()


def write_keys(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """The keys as JSON."""
    path.write_text(keys_text(film.scene), encoding="utf-8")
    progress(len(film.frames))
    return ()


def write_scene(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """The scene file, with all its pictures and fonts inside."""
    path.write_text(dump(film.scene), encoding="utf-8")
    progress(len(film.frames))
    return ()
