"""What a page or a part of it looks like, as pixels."""

import io
from typing import Any

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from playwright.sync_api import Error, Locator, Page

#: How often a picture is asked for: the browser gives none at a moment at which it shows none, as just after a file was opened.
TRIES = 5


def pixels_of(shown: Page | Locator, size: tuple[int, int] | None = None) -> NDArray[np.int_]:
    """The picture of a page, of `size` px from its corner, or of an element: (height, width, 3), 0…255."""
    how: dict[str, Any] = {} if size is None else {"clip": {"x": 0, "y": 0, "width": size[0], "height": size[1]}}
    for left in reversed(range(TRIES)):
        try:
            shot = shown.screenshot(**how)
            return np.asarray(Image.open(io.BytesIO(shot)).convert("RGB")).astype(int)
        except Error as error:
            if left == 0 or "Unable to capture screenshot" not in str(error):
                raise
            (shown if isinstance(shown, Page) else shown.page).wait_for_timeout(200)
    raise AssertionError("the last try gives a picture or raises")
