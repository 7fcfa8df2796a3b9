"""Font files that people bring along: kept with the scene, brought back by undo, refused where they are none."""

import base64

import pytest

from tests.motion.scenes import scene, text
from vine_swing.motion import MotionError, bake, dump
from vine_swing.motion.basics.contents import FONT_FILES
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.fonts import AddFont, RemoveFont
from vine_swing.motion.edits.objects import SetShape
from vine_swing.motion.outline.text.families import FONTS
from vine_swing.motion.scene.kept import OwnFont
from vine_swing.motion.scene.scene_file import parse
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.picture.drawable import drawables
from vine_swing.store import SceneStore

HAND = (FONTS / "caveat" / "latin.ttf").read_bytes()


def font(data=HAND, name="Hand"):
    return OwnFont(id=FONT_FILES.id_of(data), name=name, licence="SIL Open Font License", data=base64.b64encode(data).decode())


def with_hand(one):
    shape = TextShape(type="text", text="Canopy Post", font=FONT_FILES.id_of(HAND))
    return apply_all(one, [AddFont(edit="add-font", font=font()), SetShape(edit="set-shape", id="title", shape=shape)])


def test_a_text_set_in_it_looks_as_in_the_same_font_shipped():
    brought = drawables(bake(with_hand(scene(text()))))["title"].outline.outlines[0]
    shipped = drawables(bake(scene(text(shape={"font": "caveat"}))))["title"].outline.outlines[0]
    assert (brought.points == shipped.points).all()


def test_the_scene_file_holds_it(tmp_path):
    one = with_hand(scene(text()))
    again = parse(dump(one))
    assert again == one
    assert bake(again).objects


def test_it_is_kept_with_its_history(tmp_path):
    store = SceneStore(tmp_path / "a.db")
    made = store.create(scene(text()))
    made_id = made.id if hasattr(made, "id") else made
    now = store.load(made_id)
    store.save(made_id, now.scene, with_hand(now.scene), label="font", revision=now.revision)
    assert store.load(made_id).scene.fonts == (font(),)
    gone = store.undo(made_id, revision=store.load(made_id).revision)
    assert gone.scene.fonts == ()
    back = store.redo(made_id, revision=gone.revision)
    assert back.scene == with_hand(now.scene)
    store.close()
    reopened = SceneStore(tmp_path / "a.db")
    assert reopened.load(made_id).scene.fonts == (font(),)
    reopened.close()


def test_one_that_is_used_cannot_be_taken_out():
    one = with_hand(scene(text()))
    with pytest.raises(EditError, match="'Title' is set in this font"):
        apply_all(one, [RemoveFont(edit="remove-font", id=FONT_FILES.id_of(HAND))])


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"wOF2" + HAND[4:], "is a font for web pages"),
        (b"not a font at all", "is no font that can be read"),
        (HAND[:400], "is no font that can be read"),
        (b"\x00\x01\x00\x00", "is no font that can be read"),
    ],
)
def test_what_is_no_font_is_refused(data, says):
    with pytest.raises(MotionError, match=says):
        apply_all(scene(text()), [AddFont(edit="add-font", font=font(data))])


def test_a_font_is_what_its_id_says():
    with pytest.raises(ValueError, match="its content is that of"):
        OwnFont(id=FONT_FILES.id_of(b"other"), name="Hand", licence="ours", data=base64.b64encode(HAND).decode())
    with pytest.raises(ValueError, match="is no base64"):
        OwnFont(id=FONT_FILES.id_of(b"other"), name="Hand", licence="ours", data="???")
