"""Kinds of object. KINDS is the one table that store, painter, menus and page ask; nothing else tells kinds apart by their names."""

from dataclasses import dataclass

from vine_swing.motion.scene.objects import (
    CameraObject,
    FigureObject,
    GroupObject,
    InsetObject,
    ParadeObject,
    PictureObject,
    SceneObject,
    ShapeObject,
)


@dataclass(frozen=True)
class Kind:
    """One kind of object.

    name: as in the scene file.
    icon: the name of one of the page's drawings.
    model: what an object of the kind is read with.
    content: the field in which it keeps what only its kind has, and the column of the data file it is kept in; None if it has nothing of the sort.
    is_whole: whether a click in the picture on something that is attached to it picks the whole.
    is_drawn: whether something is painted for it, and not only for its children.
    """

    name: str
    icon: str
    model: type[SceneObject]
    content: str | None = None
    is_whole: bool = False
    is_drawn: bool = False


KINDS: dict[str, Kind] = {
    kind.name: kind
    for kind in (
        Kind("shape", "ellipse", ShapeObject, content="shape", is_drawn=True),
        Kind("group", "group", GroupObject, is_whole=True),
        Kind("figure", "figure", FigureObject, content="figure", is_whole=True),
        Kind("parade", "parade", ParadeObject, content="parade", is_whole=True),
        Kind("picture", "picture", PictureObject, content="picture", is_drawn=True),
        Kind("camera", "camera", CameraObject),
        Kind("inset", "inset", InsetObject, content="inset", is_drawn=True),
    )
}

#: The columns of the data file that hold contents.
CONTENT_COLUMNS: tuple[str, ...] = tuple(kind.content for kind in KINDS.values() if kind.content is not None)
