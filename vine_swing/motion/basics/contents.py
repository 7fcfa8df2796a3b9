"""Files that people bring, by their content: what scenes are drawn from is looked up here by an id that says what the file is.

The same id always means the same bytes, so that scenes can share them and nothing depends on when they came in.
"""

import base64
import hashlib
from typing import Any


class Contents:
    """Contents of one kind. Their ids are `prefix` and the first sixteen digits of the SHA-256 of the content."""

    def __init__(self, prefix: str) -> None:
        self.prefix = prefix
        self._known: dict[str, bytes] = {}
        self._checked: set[str] = set()

    def id_of(self, data: bytes) -> str:
        """The id of a content."""
        return f"{self.prefix}{hashlib.sha256(data).hexdigest()[:16]}"

    def keep(self, data: bytes, *, checked: bool = False) -> str:
        """Keep a content for as long as the program runs; return its id.

        Args:
            data: the content.
            checked: whether a reader has accepted it, so that it can be decoded without precautions.
        """
        content_id = self.id_of(data)
        self._known.setdefault(content_id, data)
        if checked:
            self._checked.add(content_id)
        return content_id

    def is_checked(self, content_id: str) -> bool:
        """True if a reader has accepted the content with this id."""
        return content_id in self._checked

    def data_of(self, content_id: str) -> bytes:
        """The content with an id.

        Raises:
            KeyError: if no such content was kept.
        """
        return self._known[content_id]

    def taken_from(self, values: Any, id_field: str, what: str) -> Any:
        """Return the fields of a stored file with its base64 `data` moved into this store; other values are returned unchanged.

        Args:
            values: the fields of the object as they were read.
            id_field: the field that holds the id of the content.
            what: what errors call the object.

        Raises:
            ValueError: if the data is no base64, or not the content that the id says.
        """
        if not isinstance(values, dict) or not isinstance(values.get("data"), str):
            return values
        name, message = values.get("name"), values.get(id_field)
        try:
            content = base64.b64decode(values["data"], validate=True)
        except ValueError as error:
            raise ValueError(f"the data of the {what} '{name}' is no base64; keep the file again") from error
        if self.keep(content) != message:
            raise ValueError(f"the {what} '{name}' has the id '{message}', but its content is that of '{self.id_of(content)}'")
        return values | {"data": None}

    def has(self, content_id: str) -> bool:
        """Whether a content with this id was kept."""
        return content_id in self._known


#: Font files, TrueType or OpenType.
FONT_FILES = Contents("file-")
#: Pictures: PNG, JPEG or WebP.
PICTURE_FILES = Contents("picture-")
#: Sounds: WAV, MP3, Ogg, FLAC, AAC.
SOUND_FILES = Contents("sound-")
