"""Values of channels at a reader's own frames, as arrays with one row a frame, or a single row for all."""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics.limits import FARTHEST
from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.timing.evaluate import evaluate_colours

Array = NDArray[np.float64]


def read_values(reader: Reader, object_id: str, name: str) -> Array:
    """A channel at the reader's grid: (n,), or (n, 4) for colours; cut off where it reaches too far."""
    source = reader.filler.run(lambda: reader.final(object_id, name))
    row: Array = reader.filler.run(lambda: source.at(reader.grid))[0]
    if np.isfinite(row).all() and (not row.size or np.abs(row).max() <= FARTHEST):
        return row
    return np.clip(np.nan_to_num(row, nan=0.0), -FARTHEST, FARTHEST)


def read_setting(scene: Scene, reader: Reader, object_id: str, name: str) -> Array:
    """A setting of a rule that changes, at the reader's grid: (n,), or (n, 4) for colours."""
    setting = scene.by_id[object_id].moving_settings[name]
    return shrunk(evaluate_colours([setting], reader.grid[0])[0] if setting.keys_colours else read_values(reader, object_id, name))
