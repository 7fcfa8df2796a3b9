"""Every step of the paint list, painted by the page's painter and by the export's: the same picture."""

import base64
import io

import numpy as np
from PIL import Image

from tests.picture.cases import cases
from vine_swing.picture.list_data import read
from vine_swing.picture.paint import Painter

#: Edges are smoothed by two programs: no channel of a pixel differs by more than FARTHEST of 255, and few by more than NEAR.
FARTHEST, NEAR, MOST_BEYOND_NEAR = 12, 4, 0.001


def test_page_and_export_paint_every_case_alike(painting):
    for name, data in cases():
        painter = Painter(read(data))
        for frame in data["frames"]:
            url = painting.evaluate("([data, frame]) => paintCase(data, frame)", [data, frame])
            theirs = np.asarray(Image.open(io.BytesIO(base64.b64decode(url.split(",")[1]))).convert("RGB")).astype(int)
            ours = painter.frame(frame)[..., :3].astype(int)
            assert np.ptp(ours) > 50, f"{name} at frame {frame} shows nothing"
            far = np.abs(theirs - ours).max(axis=2)
            assert far.max() <= FARTHEST, f"{name} at frame {frame}: {(far > FARTHEST).sum()} pixels differ by up to {far.max()} of 255"
            assert (far > NEAR).mean() <= MOST_BEYOND_NEAR, f"{name} at frame {frame}: {(far > NEAR).sum()} pixels differ by more than {NEAR} of 255"
