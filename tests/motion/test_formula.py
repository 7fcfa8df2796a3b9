"""Formulas against Python itself; what is hostile or wrong ends in a sentence."""

import gc
import math
import random
import time

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vine_swing.motion.formula import FormulaError, checked, evaluate, first_without_answer, read, references, renamed, split

T = np.arange(0.0, 48.0)[None, :]
FPS = 24


def worked(text, value=0.0, look=None, t=T):
    return evaluate(read(text), t, FPS, lambda: np.full((1, 1), value), look or (lambda one: np.zeros((1, 1))))[0]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("1 + 2 * 3", 7),
        ("-2 ^ 2", -4),
        ("2 ^ 3 ^ 2", 512),
        ("2 ^ -1", 0.5),
        ("(1 + 2) * 3", 9),
        ("10 - 4 - 3", 3),
        ("-7 % 3", 2),
        ("7 / 2 / 2", 1.75),
        ("1 if 2 > 1 else 5", 1),
        ("1 if 0 else 2 if 0 else 3", 3),
        ("3 < 2", 0),
        ("2 == 2.0", 1),
        ("sin(90) + cos(0)", 2),
        ("atan2(1, 0)", 90),
        ("max(1, 5, 3) - min(4, 2)", 3),
        ("clamp(12, 0, 10)", 10),
        ("mix(10, 20, 0.25)", 12.5),
        ("step(5, 5) + step(5, 4.9)", 1),
        ("smoothstep(0, 2, 1)", 0.5),
        ("round(2.5) + floor(-0.5) + ceil(0.2)", 2),
        ("value * 2", 14),
        ("sqrt(2) ^ 2", 2),
        ("pi", math.pi),
        (".5e1", 5),
    ],
)
def test_what_formulas_are_worth(text, expected):
    assert worked(text, value=7.0) == pytest.approx(np.full(48, expected))


def test_time_is_in_seconds_and_frames():
    np.testing.assert_allclose(worked("t * 24 - f"), 0, atol=1e-12)
    np.testing.assert_allclose(worked("f"), T[0])


def test_references_know_their_time():
    found = references(read("{Mill wheel.rotation @ -6f} + {Wind} * {Bee.x @ -0.25s}"))
    assert [(one.text, one.frames, one.seconds, one.at) for one in found] == [
        ("Mill wheel.rotation", -6, 0, 0),
        ("Wind", 0, 0, 30),
        ("Bee.x", 0, -0.25, 39),
    ]
    np.testing.assert_allclose(worked("{Wheel.rotation} / 2", look=lambda one: T * 4), T[0] * 2)


numbers = st.floats(-50, 50).map(lambda v: round(v, 3))
leaves = numbers.map(lambda v: f"({v})") | st.sampled_from(["t", "f", "value"])
trees = st.recursive(
    leaves,
    lambda inner: st.one_of(
        st.tuples(inner, st.sampled_from(["+", "-", "*"]), inner).map(lambda p: f"({p[0]} {p[1]} {p[2]})"),
        st.tuples(inner, st.sampled_from(["<", "<=", ">", ">=", "==", "!="]), inner).map(lambda p: f"({p[0]} {p[1]} {p[2]})"),
        st.tuples(inner, inner, inner).map(lambda p: f"({p[0]} if {p[1]} else {p[2]})"),
        inner.map(lambda p: f"-{p}"),
        st.tuples(st.sampled_from(["abs", "floor", "ceil", "sin", "cos", "atan"]), inner).map(lambda p: f"{p[0]}({p[1]})"),
        st.tuples(st.sampled_from(["min", "max", "hypot", "atan2"]), inner, inner).map(lambda p: f"{p[0]}({p[1]}, {p[2]})"),
    ),
    max_leaves=12,
)
PYTHON = {
    "abs": abs,
    "floor": math.floor,
    "ceil": math.ceil,
    "sin": lambda x: math.sin(math.radians(x)),
    "cos": lambda x: math.cos(math.radians(x)),
    "atan": lambda x: math.degrees(math.atan(x)),
    "min": min,
    "max": max,
    "hypot": math.hypot,
    # Whole zeros have no sign in Python; formulas do not tell −0 from 0 here.
    "atan2": lambda y, x: math.degrees(math.atan2(y + 0.0, x + 0.0)),
}


@settings(max_examples=200)
@given(trees, numbers)
def test_formulas_agree_with_python(text, value):
    frames = np.array([[0.0, 3.0, 7.25, 40.0]])
    found = worked(text, value=value, t=frames)
    for got, f in zip(found, frames[0].tolist(), strict=True):
        # The text is our own, made above of numbers and the names given here.
        expected = float(eval(text, {"__builtins__": {}}, {**PYTHON, "t": f / FPS, "f": f, "value": value}))
        assert got == pytest.approx(expected, rel=1e-9, abs=1e-6)


@settings(max_examples=50)
@given(trees, numbers)
def test_many_frames_at_once_are_each_frame_alone(text, value):
    together = worked(text, value=value)
    alone = [worked(text, value=value, t=T[:, n : n + 1])[0] for n in (0, 13, 47)]
    assert together[[0, 13, 47]].tolist() == pytest.approx(alone, rel=1e-12, abs=1e-12)


@pytest.mark.parametrize(
    ("text", "at", "says"),
    [
        ("", 0, "the formula is empty"),
        ("1 +", 3, "ends too early"),
        ("sin(30", 6, "ends too early"),
        ("2 x 3", 2, "'x' does not fit here"),
        ("1 = 2", 2, "to compare, write =="),
        ("f)", 1, "no ( it could close"),
        ("sni(30)", 0, "did you mean sin?"),
        ("sin(1, 2)", 0, "sin is given 2 values; it takes 1"),
        ("clamp(1)", 0, "it takes 3"),
        ("wind * 2", 0, "'wind' is no name a formula knows"),
        ("sin * 2", 0, "sin is a function"),
        ("{}", 0, "a name is missing"),
        ("{Bee.x @ later}", 7, "@ -6f or @ -0.25s"),
        ("__import__('os')", 0, "does not fit here"),
        ("f.__class__", 1, "does not fit here"),
        ("1e999", 0, "too large"),
        ("(" * 500 + "1" + ")" * 500, 60, "nested more than 60 deep"),
        ("-" * 500 + "1", 60, "nested more than 60 deep"),
        ("1" * 1_000_000, 2000, "it may have 2000"),
    ],
)
def test_what_is_wrong_is_told_with_its_place(text, at, says):
    with pytest.raises(FormulaError) as caught:
        read(text)
    assert says in str(caught.value)
    assert caught.value.at == at


@settings(max_examples=300, deadline=None)
@given(st.text(alphabet="0123456789.+-*/%^()<>=!{}@,;:'\"_abcdefinstv \n\\x", max_size=80))
def test_no_text_does_anything_but_end_soon(text):
    begun = time.thread_time()
    at = 0
    try:
        worked(text)
    except FormulaError as error:
        at = error.at
    assert 0 <= at <= len(text)
    assert time.thread_time() - begun < 0.5


#: Pieces that make formulas deep, large, unknown, without an answer, or an attempt at something else.
PIECES = [
    *(
        "1",
        "0",
        "2.5",
        "f",
        "t",
        "value",
        "1e308",
        "9^9",
        "(-8)^(1/3)",
        "1/0",
        "log(0)",
        "sqrt(-1)",
        "{Wind}",
        "{Nobody.x}",
        "{Bee.x @ -6f}",
        "unknown",
    ),
    *("__import__('os').system('ls')", "().__class__.__bases__", "f.__dict__", "lambda: 1", "open('/etc/passwd')", "{f.__class__}", "{0.x!r}"),
    *("sin(", "min(", "(", ")", "-", "+", "*", "/", "%", "^", "<", "==", " if ", " else ", ",", "{", "}", "@", "'", "\\", "\0", "é", "\n"),
    *("(" * 70, "-" * 70, "^2" * 70, "1+" * 900, "9" * 2001, "x" * 1_000_000, "noise(f, f)", "exp(exp(exp(f)))", "2^2^2^2^2^2"),
]


@pytest.fixture
def no_collection():
    """Without the garbage collector, which would go through all that other tests have left while one formula is timed."""
    gc.disable()
    yield
    gc.enable()


def test_ten_thousand_hostile_formulas_end_soon_in_a_value_or_a_plain_error(no_collection):
    chance = random.Random(20)
    seen = set()
    for _ in range(10_000):
        text = "".join(chance.choice(PIECES) for _ in range(chance.randint(1, 9)))
        # What this thread works, not how long it takes on a machine that does something else besides.
        begun = time.thread_time()
        ended = _end_of(text)
        assert time.thread_time() - begun < 0.05, f"took too long: {text[:80]!r}"
        if isinstance(ended, FormulaError):
            assert 0 <= ended.at <= len(text)
            assert len(str(ended)) < 300, "the error is plain, however long the text"
        else:
            assert np.isfinite(ended[~np.isnan(ended)]).all()
        seen.add(type(ended))
    assert seen == {np.ndarray, FormulaError}


def _end_of(text):
    try:
        return worked(text)
    except FormulaError as error:
        return error


@pytest.mark.parametrize("text", ["9^9^9^9", "1/0", "log(0)", "sqrt(-1)", "(-8)^(1/3)", "5 % 0", "exp(exp(exp(9)))"])
def test_what_has_no_answer_is_not_a_number(text):
    assert np.isnan(worked(text)).all()


def test_the_first_frame_without_an_answer_is_found():
    tree = read("1 + 2 / (f - 7)")
    found = first_without_answer(tree, T, FPS, lambda: T, lambda one: T)
    assert found is not None
    assert (found.frame, found.at) == (7, 6)
    assert "dividing by 0 has no answer at frame 7" in str(found)
    assert first_without_answer(read("1 / f if f > 0 else 0"), T, FPS, lambda: T, lambda one: T) is None


def test_names_are_found_checked_and_renamed():
    channels = {"Mill": ["x"], "Mill.old": ["x", "scale.x"], "Bee": ["y"]}
    assert split("Mill.old.scale.x", channels) == ("Mill.old", "scale.x")
    assert split("Mill.x", channels) == ("Mill", "x")
    assert len(checked("{Mill.x} + {Wind} + {Bee.y @ -2f}", channels, ["Wind"])) == 3
    for text, at, says in (
        ("2 * {Mil.x}", 5, "did you mean 'Mill'?"),
        ("{Bee.z}", 5, "'Bee' has no channel 'z'"),
        ("{Wnd}", 1, "did you mean 'Wind'?"),
    ):
        with pytest.raises(FormulaError) as caught:
            checked(text, channels, ["Wind"])
        assert says in str(caught.value)
        assert caught.value.at == at
    assert renamed("{Mill.x} + {Mill.old.x@ -6f} + {Wind}", channels, objects={"Mill": "Great mill"}) == "{Great mill.x} + {Mill.old.x@ -6f} + {Wind}"
    assert renamed("{Mill.old.x @ -6f}", channels, objects={"Mill.old": "Ruin"}) == "{Ruin.x @ -6f}"
    assert renamed("{Wind} * 2", channels, dials={"Wind": "Gale"}) == "{Gale} * 2"
    # An object and a dial may have one name.
    assert renamed("{Mill} + {Mill.x}", channels, dials={"Mill": "Grind"}) == "{Grind} + {Mill.x}"
    assert renamed("{Mill} + {Mill.x}", channels, objects={"Mill": "Ruin"}) == "{Mill} + {Ruin.x}"
    # Names that go round are changed once.
    assert renamed("{Mill.x} - {Mill.old.x}", channels, objects={"Mill": "Mill.old", "Mill.old": "Mill"}) == "{Mill.old.x} - {Mill.x}"


def test_noise_is_smooth_seeded_and_bounded():
    a, b = worked("noise(f / 10, 1)"), worked("noise(f / 10, 2)")
    assert np.abs(a).max() <= 1
    assert np.abs(np.diff(a)).max() < 0.5
    assert not np.allclose(a, b)
