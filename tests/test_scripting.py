"""The package as scripts use it: the recipes of docs/python.md are run as they stand, and what does not fit is said."""

import re
from pathlib import Path

import pytest

from tests.motion.scenes import EXAMPLE
from vine_swing import MotionError, edit, export
from vine_swing.motion.scene.scene_file import from_data

ROOT = Path(__file__).resolve().parents[1]


def test_the_recipes_run_as_they_stand(tmp_path, monkeypatch):
    (tmp_path / "demo").symlink_to(ROOT / "demo")
    monkeypatch.chdir(tmp_path)
    known = {}
    for block in re.findall(r"```python\n(.*?)```", (ROOT / "docs" / "python.md").read_text(encoding="utf-8"), re.DOTALL):
        exec(compile(block, "docs/python.md", "exec"), known)
    assert sorted(one.name for one in tmp_path.iterdir()) == sorted(
        ["demo", *(f"version-{n}.svg" for n in (1, 2, 3)), "courier.webm", "courier.gif", "courier.pdf"],
    )
    assert known["between"][known["names"][0], "x"].shape == (3,)


def test_what_does_not_fit_is_a_sentence_and_leaves_no_file(tmp_path):
    scene = from_data(EXAMPLE)
    with pytest.raises(MotionError, match="edit 0"):
        edit(scene, {"edit": "no-such-edit"})
    with pytest.raises(MotionError, match="no object"):
        edit(scene, {"edit": "set-key", "object": "none", "channel": "x", "frame": 0, "value": 1})
    with pytest.raises(MotionError, match="option scale"):
        export(scene, tmp_path / "mango.gif", scale=-1)
    with pytest.raises(MotionError, match=r"'\.doc' is no format"):
        export(scene, tmp_path / "mango.doc")
    assert not list(tmp_path.iterdir())
