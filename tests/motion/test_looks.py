"""How objects are painted: lines with ends, corners and dashes, and how they are composited onto what lies below."""

import numpy as np
import pytest

from tests.motion.test_insets import dot, edited, group, keyed, scene
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics.errors import EditError, SceneFileError
from vine_swing.motion.scene.scene_file import dump, parse
from vine_swing.picture.listing import paint_list
from vine_swing.picture.paint import Painter
from vine_swing.picture.paint_list import Fill, Group, Stroke


def line(**more):
    channels = {"x": 20.0, "y": 40.0, "end.x": 160.0, "stroke": "#000000", "stroke.width": 10.0} | more.pop("channels", {})
    return {"id": "rope", "name": "Rope", "kind": "shape", "shape": {"type": "line"}, "channels": channels} | more


def painted(one, frame=0):
    return Painter(bake(one)).frame(frame)[..., 0]


def stage(*objects, **more):
    return scene(*objects, size=[200, 80], background="#FFFFFF", length=25, **more)


def test_ends_of_lines_are_round_cut_off_or_square():
    lengths = {}
    for cap in ("butt", "square", "round"):
        row = painted(stage(line(line={"cap": cap})))[40]
        lengths[cap] = int((row < 128).sum())
    assert lengths == {"butt": 160, "square": 170, "round": 170}
    corner = painted(stage(line(line={"cap": "square"})))[36:45, 15:20]
    assert (corner < 128).all()


def test_dashes_lie_along_the_line_and_crawl():
    dashed = line(line={"cap": "butt", "dash": [10, 6]}, channels={"dash.offset": keyed((0, 0), (24, 48))})
    rows = [painted(stage(dashed), frame)[40] < 128 for frame in (0, 4)]
    assert [bool(rows[0][x]) for x in (22, 28, 33, 38)] == [True, True, False, True]
    # Two px a frame: what was at 38 is at 30 after four.
    assert np.array_equal(rows[1][21:160], rows[0][29:168])
    # An odd number of lengths is missing through twice, as SVG has it.
    (step,) = paint_list(bake(stage(line(line={"dash": [4, 2, 1]})))).steps
    assert isinstance(step, Stroke)
    assert step.dash == (4, 2, 1, 4, 2, 1)


def test_an_object_blends_as_one_picture_with_all_that_hangs_on_it():
    one = stage(dot("back", x=100.0, y=40.0, width=80.0, height=80.0, fill="#808080"), group("both") | {"blend": "multiply"})
    parts = [dot(name, x=100.0 + 10 * n, y=40.0, width=40.0, height=40.0, fill="#808080") | {"parent": "both"} for n, name in enumerate("ab")]
    one = one.copy_with(objects=(*one.objects, *stage(*parts, group("both")).objects[:2]))
    back, blended = paint_list(bake(one)).steps
    assert isinstance(back, Fill)
    assert isinstance(blended, Group)
    assert (blended.blend, len(blended.children)) == ("multiply", 2)
    # By W3C's formula for multiply; where both parts lie, they are one.
    assert painted(one)[40, 105] == pytest.approx(0x80 * 0x80 / 255, abs=1)


def test_lines_and_blends_are_edited_kept_and_refused():
    one = stage(line(), group("empty"))
    style = {"cap": "square", "join": "miter", "dash": [3, 4.5]}
    changed = edited(one, {"edit": "set-line", "id": "rope", "line": style}, {"edit": "set-blend", "id": "rope", "blend": "screen"})
    assert parse(dump(changed)) == changed
    assert changed.by_id["rope"].line_style.dash == (3, 4.5)
    with pytest.raises(EditError, match="has no line of its own"):
        edited(one, {"edit": "set-line", "id": "empty", "line": style})
    with pytest.raises(SceneFileError, match="dashes and gaps of no length"):
        stage(line(line={"dash": [0, 0]}))
    # What consists of a line is as the line was drawn.
    cut = edited(one, {"edit": "set-line", "id": "rope", "line": {"cap": "butt"}}, {"edit": "outline-line", "object": "rope", "frame": 0.0})
    assert (
        np.abs(painted(cut).astype(int) - painted(edited(one, {"edit": "set-line", "id": "rope", "line": {"cap": "butt"}})).astype(int)).mean() < 0.2
    )
