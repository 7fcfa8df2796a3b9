"""Files that people bring, by their content: what scenes are drawn from is looked up here by an id that says what the file is.

The same id always means the same bytes, so that scenes can share them and nothing depends on when they came in.
"""

import hashlib


class Contents:
    """Contents of one kind. Their ids are `prefix` and the first sixteen digits of the SHA-256 of the content."""

    def __init__(self, prefix: str) -> None:
        self.prefix = prefix
        self._known: dict[str, bytes] = {}

    def id_of(self, data: bytes) -> str:
        """The id of a content."""
        return f"{self.prefix}{hashlib.sha256(data).hexdigest()[:16]}"

    def keep(self, data: bytes) -> str:
        """Keep a content for as long as the program runs, and give its id."""
        found = self.id_of(data)
        self._known.setdefault(found, data)
        return found

    def data_of(self, content_id: str) -> bytes:
        """The content with an id.

        Raises:
            KeyError: if no such content was kept.
        """
        return self._known[content_id]

    def has(self, content_id: str) -> bool:
        """Whether a content with this id was kept."""
        return content_id in self._known


#: Font files, TrueType or OpenType.
FONT_FILES = Contents("file-")
#: Pictures: PNG, JPEG or WebP.
PICTURE_FILES = Contents("picture-")
#: Sounds: WAV, MP3, Ogg, FLAC, AAC.
SOUND_FILES = Contents("sound-")
