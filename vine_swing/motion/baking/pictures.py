"""How large pictures are shown: their boxes, filled (cropped or stretched) or with the proportions of the page that is shown."""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.inputs import Inputs
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics.specs import PICTURE_CHANNELS, limited
from vine_swing.motion.scene.kept import KeptPicture
from vine_swing.motion.scene.model import Scene

Array = NDArray[np.float64]


def with_pictures(objects: Mapping[str, BakedObject], scene: Scene, old: Mapping[str, BakedObject]) -> dict[str, BakedObject]:
    """Some baked objects, those that show pictures with the size of what is shown, (n, 2) or (1, 2)."""
    result = dict(objects)
    for object_id, obj in objects.items():
        book = obj.source.pictured
        if book is None:
            continue
        was = old.get(object_id)
        if was is not None and was.shown_size is not None and _inputs(obj).same_as(_inputs(was)):
            if obj is not was:
                result[object_id] = replace(obj, shown_size=was.shown_size, pages=was.pages)
            continue
        pages = [scene.pictures_by_id[picture] for picture in book.pictures]
        box = np.stack(np.broadcast_arrays(*(limited(obj.source.specs[name], obj.channels[name]) for name in ("width", "height"))), axis=-1)
        shown = box if book.fit != "inside" else _inside(box, pages, page_of(obj.channels["page"], len(pages)))
        result[object_id] = replace(obj, shown_size=shown, pages=tuple(pages))
    return result


def page_of(page: Array, count: int) -> NDArray[np.intp]:
    """Which of this many pages is shown: the whole part of the channel, modulo their number."""
    result: NDArray[np.intp] = limited(PICTURE_CHANNELS["page"], page).astype(np.int64) % count
    return result


def _inside(box: Array, pages: list[KeptPicture], shown: NDArray[np.intp]) -> Array:
    """The largest size with the proportions of each page that fits into the box."""
    sizes = np.array([(page.width, page.height) for page in pages], float)
    own = sizes[:1] if (sizes == sizes[0]).all() else sizes[shown]
    result: Array = own * np.min(box / own, axis=-1, keepdims=True)
    return result


def _inputs(baked: BakedObject) -> Inputs:
    """Return the inputs of the displayed size."""
    return Inputs(tuple(baked.channels[name] for name in ("width", "height", "page")), (baked.source.pictured,))
