"""Font files that people bring, by their content: what texts are set in is looked up here by an id that says what the file is.

The same id always means the same bytes, so that scenes can share them and nothing depends on when they came in.
"""

import hashlib

#: What the ids of such files begin with; the first sixteen digits of the SHA-256 of their content follow.
FILE = "file-"
_KNOWN: dict[str, bytes] = {}


def id_of(data: bytes) -> str:
    """The id of a font file."""
    return f"{FILE}{hashlib.sha256(data).hexdigest()[:16]}"


def keep(data: bytes) -> str:
    """Keep a font file for as long as the program runs, and give its id."""
    found = id_of(data)
    _KNOWN.setdefault(found, data)
    return found


def data_of(font: str) -> bytes:
    """The font file with an id.

    Raises:
        KeyError: if no such file was kept.
    """
    return _KNOWN[font]
