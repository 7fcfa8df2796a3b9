"""Sounds that ship with the program, all made by tools/make_sounds.py."""

from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

_FOLDER = Path(__file__).parent


@dataclass(frozen=True)
class ReadySound:
    """A sound to begin with; `minute`: its beats a minute, where it has a beat."""

    file: str
    label: str
    about: str
    minute: float | None = None

    @cached_property
    def content(self) -> bytes:
        """The file."""
        return (_FOLDER / self.file).read_bytes()


READY = (
    ReadySound("log-drum.flac", "Log drum", "A hollow log beaten with two sticks: four bars that loop.", 120.0),
    ReadySound("rain.ogg", "Rain", "Rain on broad leaves, ten seconds."),
    ReadySound("bird-calls.ogg", "Bird calls", "Two birds that call and answer, eight seconds."),
)
