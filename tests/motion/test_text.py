"""Text against HarfBuzz's advances, fontTools' outlines, and what is in Unicode's annexes."""

import numpy as np
import pytest
import uharfbuzz as hb
from fontTools.pens.recordingPen import DecomposingRecordingPen
from fontTools.ttLib import TTFont
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, text
from vine_swing.motion import bake
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.curves.outline import CUBIC
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.outlines import MakeOutline
from vine_swing.motion.outline.drawing import check_drawn, missing_in
from vine_swing.motion.outline.text import FAMILIES, Setting, typeset
from vine_swing.motion.outline.text.families import FONTS
from vine_swing.motion.outline.text.numbers import with_number
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.picture.drawable import drawables

PLAIN = Setting("figtree", 400, "left", None, 0.0, 1.2)


def setting(**changes):
    return Setting(**(PLAIN.__dict__ | changes))


@pytest.mark.parametrize("family", FAMILIES)
@pytest.mark.parametrize("weight", [400, 650])
def test_widths_are_the_advances_of_harfbuzz(family, weight):
    words = "AVATAR Tjy difficult"
    data = (FONTS / family / "latin.ttf").read_bytes()
    font = hb.Font(hb.Face(data))
    font.set_variations({"wght": weight})
    buffer = hb.Buffer()
    buffer.add_str(words)
    buffer.guess_segment_properties()
    hb.shape(font, buffer)
    advance = sum(one.x_advance for one in buffer.glyph_positions) / font.face.upem
    assert typeset(words, setting(font=family, weight=weight)).width == pytest.approx(advance, abs=1e-9)


@pytest.mark.parametrize("end", ["minValue", "maxValue"])
@pytest.mark.parametrize("family", FAMILIES)
def test_outlines_are_those_of_fonttools(family, end):
    font = TTFont(FONTS / family / "latin.ttf")
    # Between the ends of the axis, HarfBuzz rounds where it stands to 1/16384 as OpenType asks, and fontTools does not.
    weight = int(getattr(font["fvar"].axes[0], end))
    glyphs = font.getGlyphSet(location={"wght": weight})
    em = font["head"].unitsPerEm
    for letter in "gQ8&é":
        pen = DecomposingRecordingPen(glyphs)
        glyphs[font.getBestCmap()[ord(letter)]].draw(pen)
        # End points of every segment; curves are compared by their ends and by how many there are.
        ends = [arguments[-1] for operation, arguments in pen.value if operation in ("moveTo", "lineTo", "curveTo") and arguments]
        quadratic = [arguments for operation, arguments in pen.value if operation == "qCurveTo"]
        one = typeset(letter, setting(font=family, weight=weight)).outlines[0]
        assert one.verbs.count(CUBIC) == sum(len(arguments) - 1 for arguments in quadratic)
        ours = one.points * [em, -em]
        for x, y in [*ends, *(arguments[-1] for arguments in quadratic if arguments[-1] is not None)]:
            assert np.abs(ours - [x, y]).max(axis=1).min() < 1e-3, f"{letter} of {family} passes {x}, {y}"


def test_text_lies_on_its_baseline_where_it_is_aligned():
    for align, left in (("left", 0.0), ("middle", -0.5), ("right", -1.0)):
        one = typeset("HHHH", setting(align=align))
        assert one.places[0, 0] == pytest.approx(left * one.width)
        low = one.outline(1.0).bounds()
        assert low[3] == pytest.approx(0.0, abs=1e-9)
    assert typeset("H\nH", PLAIN).places[1, 1] == pytest.approx(1.2)


def test_tracking_stands_between_letters_and_keeps_marks_on_theirs():
    loose = setting(tracking=0.25)
    assert typeset("nest", loose).width == pytest.approx(typeset("nest", PLAIN).width + 3 * 0.25)
    marked = typeset("e\u0323\u0301", loose)
    assert marked.count("letters") == 1
    # Without tracking, f and i may share a glyph; with it they never do.
    assert typeset("fi", loose).count("letters") == 2


def test_lines_wrap_at_spaces_and_hyphens():
    width = typeset("parcel for", PLAIN).width
    one = typeset("parcel for the tree-frog", setting(wrap=width))
    assert one.count("lines") == 3
    assert one.width <= width + 1e-9
    assert typeset("tree-frog", setting(wrap=typeset("tree-", PLAIN).width)).count("lines") == 2
    # A word wider than a line stands alone on it.
    assert typeset("an unbelievable nut", setting(wrap=0.1)).count("lines") == 3


def test_letters_words_and_lines_are_counted_in_reading_order():
    one = typeset("to the\nfrogs", PLAIN)
    assert [one.count(by) for by in ("letters", "words", "lines")] == [10, 3, 2]
    assert one.letters.tolist() == sorted(one.letters)
    parts = [one.part("words", number, 40.0) for number in range(3)]
    assert sum(len(part.points) for part in parts) == len(one.outline(40.0).points)


def test_right_to_left_is_read_from_the_right():
    hebrew = typeset("אבג", PLAIN)
    assert (np.diff(hebrew.places[:, 0]) < 0).all(), "the first letter stands furthest to the right"
    # A number within stays the right way round (UAX #9).
    mixed = typeset("אב 12", PLAIN)
    one, two = mixed.places[-2:, 0]
    assert two > one
    assert mixed.places[0, 0] > two
    # Brackets are mirrored: they open towards what they hold.
    brackets = typeset("(א)", PLAIN)
    left = brackets.outlines[int(np.argmin(brackets.places[:, 0]))]
    np.testing.assert_allclose(left.points, typeset("(", PLAIN).outlines[0].points)


def test_arabic_letters_are_joined():
    alone = typeset("ب", setting(font="vazirmatn")).width
    assert typeset("ببب", setting(font="vazirmatn")).width < 3 * alone * 0.8


def test_marks_sit_on_their_letters():
    composed, decomposed = typeset("é", PLAIN), typeset("e\u0301", PLAIN)
    assert composed.width == pytest.approx(decomposed.width)
    np.testing.assert_allclose(composed.outline(1.0).bounds(), decomposed.outline(1.0).bounds(), atol=1e-9)


def test_what_no_font_has_is_named():
    assert typeset("a☃b☃", PLAIN).missing == ("☃",)
    assert missing_in(TextShape(type="text", text="Здравствуй, שלום, مرحبا, ő")) == []


@pytest.mark.parametrize(
    ("words", "number", "shown"),
    [
        ("{number}", 12.6, "13"),
        ("{number:,.1f} letters", 12345.67, "12,345.7 letters"),
        ("{number:.0%}", 0.256, "26%"),
        ("{number:+d}", 4.4, "+4"),
        ("{number:05.1f}", -0.01, "000.0"),
        ("{number}", -0.3, "0"),
        ("{other} {} {{number}}", 2, "{other} {} {2}"),
    ],
)
def test_numbers_follow_pythons_format_rules(words, number, shown):
    assert with_number(words, number) == shown


@given(st.floats(-1e9, 1e9, allow_nan=False), st.sampled_from([",.2f", ".3e", "08.2f", "_d", ">12,.1f", "x", ".1%"]))
def test_formats_are_pythons_own(number, spec):
    value = round(number) if spec[-1] in "dx" else number
    expected = format(value, spec)
    nothing = {format(-0.0, spec): format(0.0, spec)} if spec[-1] not in "dx" else {}
    assert with_number(f"{{number:{spec}}}", number) == nothing.get(expected, expected)


@given(st.text(max_size=40))
def test_any_text_can_be_set(words):
    one = typeset(words, setting(wrap=4.0))
    assert one.width >= 0
    assert np.isfinite(one.outline(60.0).points).all()
    assert one.count("letters") <= len(words)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"font": "papyrus-leaf"}, "'Title': there is no font 'papyrus-leaf'; there is figtree"),
        ({"text": "{number:__}"}, "format that is none"),
        ({"text": "{number:999999999f}"}, "format that is none"),
    ],
)
def test_what_cannot_be_set_is_refused_with_a_sentence(change, says):
    one = scene(text(shape=change))
    with pytest.raises(MotionError, match=says):
        check_drawn(one)


def test_a_keyed_number_counts_and_a_keyed_size_grows():
    one = scene(text("{number}", number=channel((0, 0), (20, 10)), text_size=40), length=21)
    track = drawables(bake(one))["title"].outline
    assert len(track.outlines) == 11, "frames that show the same number share an outline"
    grown = drawables(bake(scene(text("O", text_size=channel((0, 40), (20, 80))), length=21)))["title"].outline
    first, last = (grown.outlines[grown.which[at]] for at in (0, 20))
    np.testing.assert_allclose(last.points, 2 * first.points, atol=1e-9)


def test_a_text_made_an_outline_looks_the_same():
    one = scene(text("Mango {number}", number=channel((0, 0), (10, 90)), text_size=50, shape={"weight": 700}), length=21)
    outlined = apply_all(one, [MakeOutline(edit="make-outline", id="title", frame=10.0)])
    before = drawables(bake(one))["title"]
    after = drawables(bake(outlined))["title"]
    np.testing.assert_allclose(after.outline.outlines[0].points, before.outline.outlines[before.outline.which[10]].points, atol=1e-5)
    np.testing.assert_allclose(after.fill, before.fill)
    assert outlined.objects[0].shape.type == "outline"
    parse_path(outlined.objects[0].shape.d)
