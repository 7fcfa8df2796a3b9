"""Pictures that people bring, by their content: looked up here by an id that says what the file is.

The same id always means the same bytes, so that scenes can share them and nothing depends on when they came in.
"""

import hashlib

#: What the ids of pictures begin with; the first sixteen digits of the SHA-256 of their content follow.
PICTURE = "picture-"
_KNOWN: dict[str, bytes] = {}


def id_of(data: bytes) -> str:
    """The id of a picture."""
    return f"{PICTURE}{hashlib.sha256(data).hexdigest()[:16]}"


def keep(data: bytes) -> str:
    """Keep a picture for as long as the program runs, and give its id."""
    found = id_of(data)
    _KNOWN.setdefault(found, data)
    return found


def data_of(picture: str) -> bytes:
    """The picture with an id: PNG, JPEG or WebP data.

    Raises:
        KeyError: if no such picture was kept.
    """
    return _KNOWN[picture]


def is_kept(picture: str) -> bool:
    """Whether a picture with this id was kept."""
    return picture in _KNOWN
