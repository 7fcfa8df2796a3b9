"""Tables of what is read often: exact at whole frames, near between them, and of a cost that is linear in the number of cards."""

import math

import numpy as np
import pytest

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.baking import reading
from vine_swing.motion.baking.effort import Effort, TooMuchWork
from vine_swing.motion.baking.tables import Table, TableFiller

WAVY = channel((0, 0, "slow-out-in"), (30, 80, "overshoot"), (60, -20, "hold"), (75, 40), after="ping-pong")


def wave(hertz, fps=24.0):
    return lambda t: np.sin(2 * np.pi * hertz * t / fps)


def test_whole_frames_are_exact_whatever_was_read_before():
    read = []

    def counted(t):
        read.append(t.size)
        return wave(2)(t)

    table = Table(counted, TableFiller(), between=False)
    for frames in ([[5.0, 6.0, 7.0]], [[0.0, 3.0]], [[7.0, 5.0, 30.0]], [[-4.0]]):
        np.testing.assert_array_equal(table.at(np.array(frames)), wave(2)(np.array(frames)))
    before = sum(read)
    table.at(np.arange(-4.0, 30.0)[None, :])
    assert sum(read) == before, "what is known is not worked out again"


@pytest.mark.parametrize("hertz", [1, 3, 5])
def test_between_whole_frames_it_is_as_near_as_it_says(hertz):
    table = Table(wave(hertz), TableFiller(), between=True)
    t = np.random.default_rng(1).uniform(0, 48, (1, 500))
    assert np.abs(table.at(t) - wave(hertz)(t)).max() <= (2 * np.pi * hertz / 24) ** 5 / 30_240
    mixed = np.array([[3.0, 3.5, 4.0, 4.25]])
    np.testing.assert_array_equal(table.at(mixed)[0, [0, 2]], wave(hertz)(mixed)[0, [0, 2]])


def test_values_may_jump_at_whole_frames():
    steps = Table(lambda t: np.floor(t), TableFiller(), between=True)
    t = np.array([[1.0, 1.25, 1.999, 2.0, 2.001]])
    np.testing.assert_allclose(steps.at(t), np.floor(t), atol=1e-9)


def test_rows_at_frames_of_their_own():
    table = Table(lambda t: np.concatenate([wave(1)(t), 2 * wave(3)(t)]), TableFiller(), between=True)
    t = np.array([[1.0, 2.5, 9.0], [4.0, 0.25, 7.75]])
    np.testing.assert_allclose(table.at(t), np.stack([wave(1)(t[0]), 2 * wave(3)(t[1])]), atol=4e-5)


def test_frames_far_apart_fill_no_table_between_them():
    read = []

    def counted(t):
        read.append(t.size)
        return wave(1)(t)

    Table(counted, TableFiller(), between=True).at(np.array([[0.0, 1e6]]))
    assert sum(read) == 2


CHAIN = ["smooth", "spring", "retime", "smooth", "spring", "noise", "smooth", "spring"]


def cards(count):
    return [
        {"id": f"r{n}", "kind": kind, "channels": ["x"], "settings": {"delay": 2.5} if kind == "retime" else {}}
        for n, kind in enumerate(CHAIN[:count])
    ]


def spent(count):
    effort = Effort()
    bake(scene(shape("pod", x=WAVY, rules=cards(count)), length=96), effort=effort)
    return effort.spent


def test_a_row_of_cards_reads_in_line_with_its_length():
    assert spent(8) <= 3 * spent(3)


def test_what_is_read_from_tables_is_what_would_be_worked_out(monkeypatch):
    one = scene(shape("pod", x=WAVY, rules=cards(4)), length=96)
    tabled = bake(one)["Pod", "x"]
    monkeypatch.setattr(reading, "_EXPENSIVE", math.inf)
    np.testing.assert_allclose(tabled, bake(one)["Pod", "x"], atol=2e-3)


def two_looks(n):
    return [
        {
            "id": "l",
            "kind": "link",
            "channels": ["rotation"],
            "settings": {"formula": f"0.5 * {{O{n}.rotation @ -1f}} + 0.5 * {{O{n}.rotation @ -2f}}"},
        }
    ]


def test_hundreds_of_links_that_each_look_back_twice():
    count = 400
    things = [shape("o0", rotation=channel((0, 0), (240, 240))), *(shape(f"o{n + 1}", rules=two_looks(n)) for n in range(count))]
    effort = Effort()
    baked = bake(scene(*things, length=240), effort=effort)
    # A mean of one and two frames ago of something even is 1.5 frames late; near the beginning the steady value before the first key counts too.
    for n in (1, 2, 30):
        late = 1.5 * n
        np.testing.assert_allclose(baked[f"O{n}", "rotation"][2 * n :], np.arange(2 * n, 240) - late, atol=1e-9)
    assert effort.spent < 4 * count * (240 + 2 * count), "linear in the links, not doubled by each"


def test_thousands_of_followers_need_no_deep_recursion():
    rule = {"id": "f", "kind": "follow", "channels": ["x"]}
    things = [shape("l0", x=channel((0, 0), (60, 300)))]
    things += [shape(f"l{n}", rules=[rule | {"settings": {"leader": f"l{n - 1}", "delay": 1.0}}]) for n in range(1, 1500)]
    baked = bake(scene(*things, length=48))
    np.testing.assert_allclose(baked["L40", "x"], np.maximum(np.arange(48) - 40, 0) * 5.0, atol=1e-9)


def test_too_much_work_is_refused_in_words():
    far = {"id": "r", "kind": "retime", "channels": ["x"], "settings": {"speed": 100.0}}
    spring = {"id": "s", "kind": "spring", "channels": ["x"]}
    one = scene(shape("pod", x=WAVY, rules=[spring, far]), length=20_000)
    with pytest.raises(TooMuchWork, match="million numbers to work out; make it shorter"):
        bake(one, effort=Effort(most=1e6))


def test_work_is_watched():
    seen = []
    bake(scene(shape("pod", x=WAVY, rules=cards(2)), length=24), effort=Effort(watch=lambda: seen.append(1)))
    assert seen


OWN = {
    "roll": ("rotation", {"radius": 30.0}),
    "face": ("rotation", {"smooth": 3.0}),
    "squash-stretch": ("stretch", {"full_speed": 5.0, "impact": 0.5}),
    "arc": ("x", {"bulge": 0.4}),
    "wind-up": ("x", {"size": 0.3, "frames": 6.0}),
    "overshoot": ("y", {"size": 0.3, "frames": 9.0}),
    "bounce": ("y", {"floor": 400.0, "keep": 0.6}),
    "pendulum": ("rotation", {"damping": 0.1}),
}


@pytest.mark.parametrize("kind", sorted(OWN))
def test_rules_that_look_at_their_own_object_go_row_by_row_all_the_same(kind):
    name, settings = OWN[kind]
    rng = np.random.default_rng(3)
    things = []
    for n in range(30):
        x, y = (channel((0, float(rng.uniform(0, 99)), "slow-out-in"), (20 + n % 3, float(rng.uniform(0, 300))), (40, 12)) for _ in range(2))
        things.append(shape(f"o{n}", x=x, y=y, rules=[{"id": "r", "kind": kind, "channels": [name], "settings": settings}]))
    together = bake(scene(*things, length=48))
    for thing in things[::7]:
        alone = bake(scene(thing, length=48))[thing["name"], name]
        np.testing.assert_allclose(together[thing["name"], name], alone, rtol=1e-9, atol=1e-9)


@pytest.mark.parametrize("kind", sorted(OWN))
@pytest.mark.parametrize(("under", "over"), [(1, 1), (1, 2), (2, 0), (2, 1)])
def test_rules_that_look_at_their_own_object_read_it_from_tables_too(kind, under, over, monkeypatch):
    """Reading breaks off until a table is filled, and begins again: what a rule has kept until then must not be half of something."""
    name, settings = OWN[kind]
    soft = [{"kind": "smooth", "channels": ["x", "y"], "settings": {"frames": 3.0}}] * under
    softer = [{"kind": "smooth", "channels": [name], "settings": {"frames": 2.0}}] * over
    rules = [*soft, {"kind": kind, "channels": [name], "settings": settings}, *softer]
    pod = shape("pod", x=WAVY, y=channel((0, 0), (20, 90, "slow-out-in"), (60, 30)), rules=[rule | {"id": f"r{n}"} for n, rule in enumerate(rules)])
    tabled = bake(scene(pod, length=24))["Pod", name]
    monkeypatch.setattr(reading, "_EXPENSIVE", math.inf)
    np.testing.assert_allclose(tabled, bake(scene(pod, length=24))["Pod", name], atol=0.01 * max(1.0, np.abs(tabled).max()))


@pytest.mark.parametrize("kind", sorted(OWN))
def test_a_frame_baked_alone_is_that_of_the_whole(kind):
    """As in stills, onion skins and edits: also before it first moves, and where it goes straight up and down."""
    name, settings = OWN[kind]
    x, y = channel((0, 30), (8, 30), (14, -60, "slow-out-in"), after="ping-pong"), channel((0, 0), (5, 0, "hold"), (9, 90), after="loop")
    rules = [{"id": "r", "kind": kind, "channels": [name], "settings": settings}]
    one = scene(shape("pod", x=x, y=y, rules=rules), shape("lift", x=20, y=y, rules=rules), length=24)
    whole = bake(one)
    for frame in range(24):
        alone = bake(one, np.array([float(frame)]))
        for who in ("Pod", "Lift"):
            np.testing.assert_allclose(alone[who, name], whole[who, name][frame : frame + 1], atol=1e-9)


def test_straight_up_and_straight_down_are_one_direction_of_stretch():
    rules = [{"id": "r", "kind": "squash-stretch", "channels": ["stretch", "stretch.angle"], "settings": {"full_speed": 5.0}}]
    one = scene(shape("lift", x=20, y=channel((0, 0, "slow-out-in"), (12, 90, "slow-out-in"), (24, 0)), rules=rules), length=24)
    angle = bake(one)["Lift", "stretch.angle"]
    assert set(angle.tolist()) == {0.0, 90.0}, "0 where it is at rest, and never −90"


def test_a_dip_ends_at_the_last_key_before_its_move():
    held = channel((0, 0, "hold"), (1, 0, "hold"), (3, 0, "hold"), (4, 1, "hold"))
    one = scene(shape("pod", x=held, rules=[{"id": "w", "kind": "wind-up", "channels": ["x"]}]), length=6)
    np.testing.assert_array_equal(bake(one)["Pod", "x"][[0, 1, 3, 4]], [0, 0, 0, 1])
