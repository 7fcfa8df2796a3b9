"""Every look, and every pair of looks, painted by the page's painter and by the export's: the same picture."""

import base64
import io

import numpy as np
from PIL import Image

from tests.journeys.shots import pixels_of
from tests.picture.gradients import GRADIENTS, THREE, blended
from tests.picture.looks import LOOKS, alone, as_case, looked, pairs
from vine_swing.motion import bake
from vine_swing.picture.paint import Painter

#: How far two pictures may differ: on average, and how many pixels may do so by more than how much of 255.
MEAN, FAR, MOST_FAR = 1.5, 12, 0.005


def apart(painting, scene):
    """How far the two pictures of a scene's first frame differ, by pixel and channel."""
    painter = Painter(bake(scene))
    url = painting.evaluate("(data) => paintCase(data, 0)", as_case(painter.list))
    theirs = np.asarray(Image.open(io.BytesIO(base64.b64decode(url.split(",")[1]))).convert("RGB")).astype(int)
    ours = painter.frame(0)[..., :3].astype(int)
    assert np.ptp(ours) > 50, "it shows nothing"
    return np.abs(theirs - ours)


def test_page_and_export_paint_every_pair_of_looks_alike(painting):
    scenes = {" then ".join(names): looked(*names) for names in pairs()}
    scenes |= {f"{name} of one shape": alone(name) for name in LOOKS}
    scenes |= {f"{name} through a camera": alone(name, zoomed=True) for name in LOOKS}
    wrong = []
    for name, scene in scenes.items():
        off = apart(painting, scene)
        far = (off.max(axis=2) > FAR).mean()
        if off.mean() > MEAN or far > MOST_FAR:
            wrong.append(f"{name}: {off.mean():.2f} on average, {100 * far:.2f} % of pixels by more than {FAR}, up to {off.max()}")
    assert not wrong, "\n".join(wrong)


def test_page_and_export_paint_gradients_alike(painting):
    for name, scene in GRADIENTS.items():
        off = apart(painting, scene)
        assert off.mean() <= 0.5, f"{name}: {off.mean():.2f} on average"
        assert (off.max(axis=2) > FAR).mean() <= MOST_FAR, name


def test_gradients_are_those_of_css(painting):
    """The browser's own gradients, which blend opaque colours as we do."""
    stops = ", ".join(f"{colour} {place * 100}%" for place, colour in THREE)
    styles = {
        "linear": (f"linear-gradient(90deg, {stops})", (-100, 0, 100, 0)),
        "radial": (f"radial-gradient(circle 90px at 100px 70px, {stops})", (0, 0, 90, 0)),
    }
    for kind, (style, ends) in styles.items():
        painting.set_content(f'<div style="position:fixed;left:20px;top:20px;width:200px;height:140px;background:{style}"></div>')
        theirs = pixels_of(painting, (240, 180))
        ours = Painter(bake(blended(kind, THREE, ends))).frame(0)[..., :3].astype(int)
        off = np.abs(theirs - ours)[21:159, 21:219]
        assert off.mean() <= 1, f"{kind}: {off.mean():.2f} on average"
        assert off.max() <= 3, kind
