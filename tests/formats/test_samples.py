"""Tables brought in: delimiters, decimal commas, heads, kinds of columns, and the one that counts time."""

import pytest

from vine_swing.formats.samples import MOST_ROWS, read_table
from vine_swing.motion import MotionError


def table(text):
    return read_table(text.encode(), "it.csv")


@pytest.mark.parametrize(
    "text",
    [
        "time,wind\n0,3.5\n0.5,4\n",
        "time;wind\n0;3,5\n0,5;4\n",
        "time\twind\n0\t3.5\n0.5\t4\n",
        "time|wind\r\n0|3.5\r\n0.5|4\r\n",
        "\ufefftime,wind\n0,3.5\n0.5,4\n",
    ],
)
def test_the_same_table_in_every_way_of_writing_it(text):
    found = table(text)
    assert [(one.name, one.kind, one.cells) for one in found.columns] == [("time", "number", (0.0, 0.5)), ("wind", "number", (3.5, 4.0))]
    assert (found.time, found.unit, found.rows) == (0, "seconds", 2)


def test_a_table_without_a_head_has_numbered_columns():
    found = table("0,10\n1,20\n2,15\n")
    assert [one.name for one in found.columns] == ["Column 1", "Column 2"]
    assert (found.time, found.unit) == (0, "frames")
    assert table("4\n2\n7\n").time is None


def test_moments_become_seconds_and_colours_are_known():
    found = table("when,sky,who\n2026-05-01T06:00:00,#F2932B,Ana\n2026-05-01T06:00:30,#2F6B4F,Bo\n")
    assert found.columns[0].cells == (0.0, 30.0)
    assert [one.kind for one in found.columns] == ["moment", "colour", "words"]
    assert (found.time, found.unit) == (0, "seconds")
    assert table("t,v\n0:10,1\n1:10,2\n").columns[0].cells == (0.0, 60.0)


def test_odd_and_empty_cells_are_left_out_and_told():
    found = table("f,v\n0,1\n1,\n2,calm\n3,4\n4,5\n5,6\n6,1\n7,2\n")
    assert found.columns[1].cells[:4] == (1.0, None, None, 4.0)
    assert "1 cells are no numbers" in " ".join(found.remarks)
    assert "1 cells are empty" in " ".join(found.remarks)


@pytest.mark.parametrize(
    ("data", "says"), [(b"", "empty"), (b"a,b\n", "no rows"), (b"\x89PNG\0\0", "no table"), (b"1\n" * (MOST_ROWS + 1), "at most 100000")]
)
def test_what_is_no_table_is_said(data, says):
    with pytest.raises(MotionError, match=says):
        read_table(data, "it.csv")


def test_a_clock_of_thousands_of_digits_is_words():
    table = read_table(b"when,a\n" + b"9" * 5_000 + b":1:1,2\n1:2:3,4\n", "a.csv")
    assert table.columns[0].kind == "words"
