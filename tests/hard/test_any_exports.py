"""Whatever was edited can be exported in every format (as sound, where there is any), and what holds a whole scene gives it back."""

import json
import random

import pytest

from tests.hard.any_changes import FIRST, ROUNDS, changes
from vine_swing.formats import EXPORTS, film_of
from vine_swing.formats.bundle import read_scene
from vine_swing.formats.engine.thread import ThreadEngine
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import MotionError

#: This many frames are exported, at this share of their size.
FRAMES, SCALE = 4, 0.1


@pytest.mark.parametrize("number", range(FIRST, FIRST + ROUNDS))
def test_every_format_is_written_and_scenes_are_read_back_as_they_were(tmp_path, number):
    draw = random.Random(number)
    *_, changed = changes(number)
    scene = changed.scene
    first = draw.randrange(scene.length)
    for name, written in EXPORTS.items():
        options = ExportOptions(format=name, scale=SCALE, first=first, last=min(scene.length, first + FRAMES) - 1)
        path = tmp_path / f"one{written.ends_with}"
        try:
            written.write(film_of(scene, options, ThreadEngine()), path)
        except Exception as error:
            if name != "wav" or not isinstance(error, MotionError):
                pytest.fail(f"{number}, {scene.name} as {name}: {error!r}: {json.dumps(changed.edits)[-2000:]}")
            continue
        assert path.stat().st_size > 0, name
        if name in ("scene", "bundle"):
            assert read_scene(path.read_bytes()) == scene, f"{number}, {scene.name} as {name}"
