"""The fonts and pictures kept with a scene, so that no file goes missing, and which pictures an object shows."""

import base64
from functools import cached_property
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from vine_swing.motion.basics.contents import FONT_FILES, PICTURE_FILES
from vine_swing.motion.basics.values import Frozen, Name, Text

#: Pictures kept with one scene, and the characters that one takes as base64: sixty megabytes.
MAX_PICTURES, MAX_PICTURE_DATA = 2_000, 80_000_000
#: Font files kept with one scene, and the characters that one takes as base64: six megabytes.
MAX_FONTS, MAX_FONT_DATA = 20, 8_000_000


class OwnFont(Frozen):
    """A font file that somebody brought along, kept with the scene: TrueType or OpenType.

    id: `file-` and the first sixteen digits of the SHA-256 of its content. licence: a note of what allows its use. data: the file, in base64.
    """

    id: Annotated[str, Field(pattern=r"^file-[0-9a-f]{16}$")]
    name: Name
    licence: Annotated[Text, Field(min_length=1, max_length=20_000)]
    data: Annotated[str, Field(max_length=MAX_FONT_DATA)]

    @cached_property
    def content(self) -> bytes:
        """The file itself."""
        return base64.b64decode(self.data, validate=True)

    @model_validator(mode="after")
    def _is_what_its_id_says(self) -> Self:
        try:
            content = self.content
        except ValueError as error:
            raise ValueError(f"the data of the font '{self.name}' is no base64; keep the file again") from error
        if FONT_FILES.keep(content) != self.id:
            raise ValueError(f"the font '{self.name}' has the id '{self.id}', but its content is that of '{FONT_FILES.id_of(content)}'")
        return self


PictureId = Annotated[str, Field(pattern=r"^picture-[0-9a-f]{16}$")]


class KeptPicture(Frozen):
    """A picture that somebody brought along, kept with the scene: PNG, JPEG or WebP, of a size in px.

    id: `picture-` and the first sixteen digits of the SHA-256 of its content. data: the file, in base64; only in files, as the program looks
    contents up by their ids.
    """

    id: PictureId
    name: Name
    width: Annotated[int, Field(strict=True, ge=1, le=40_000)]
    height: Annotated[int, Field(strict=True, ge=1, le=40_000)]
    data: Annotated[str | None, Field(max_length=MAX_PICTURE_DATA)] = None

    @property
    def content(self) -> bytes:
        """The file itself."""
        return PICTURE_FILES.data_of(self.id)

    @model_validator(mode="before")
    @classmethod
    def _content_kept(cls, given: Any) -> Any:
        """Move the picture's content from the file into the content store."""
        return PICTURE_FILES.taken_from(given, "id", "picture")

    @model_validator(mode="after")
    def _has_content(self) -> Self:
        if not PICTURE_FILES.has(self.id):
            raise ValueError(f"the picture '{self.name}' has no content; bring the file in again")
        return self


class PictureBook(Frozen):
    """Which pictures an object shows, one at a time, and how.

    pictures: their ids, in the order of the pages.
    fit: whether a page lies inside the box or covers it, with its own proportions, or is stretched to fill it. What covers it is cropped.
    tile: whether the page, stretched over the box, is repeated beside itself forever: across, down, or both ways.
    smooth: whether pixels are blended where they are larger or smaller than the picture's own.
    """

    pictures: Annotated[tuple[PictureId, ...], Field(min_length=1, max_length=MAX_PICTURES)]
    fit: Literal["inside", "cover", "stretch"] = "inside"
    tile: Literal["none", "across", "down", "both"] = "none"
    smooth: bool = True
