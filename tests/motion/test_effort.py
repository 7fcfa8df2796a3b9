"""How far work has come: parts of parts, and what a bake tells while it works."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.scene.scene_file import load
from vine_swing.picture.drawable import drawn_scene

SCENES = Path(__file__).resolve().parents[2] / "demo" / "scenes"


class Watched(Effort):
    """Keeps the shares it has told."""

    def __init__(self) -> None:
        self.told: list[float] = []
        super().__init__()

    @property
    def share(self) -> float:
        return self.told[-1]

    @share.setter
    def share(self, share: float) -> None:
        self.told.append(share)


def test_parts_of_parts_add_up():
    effort = Effort()
    with effort.part(0.5):
        effort.advance(0.5)
        assert effort.share == pytest.approx(0.25)
        with effort.part(0.2):
            effort.advance(0.5)
            assert effort.share == pytest.approx(0.3)
        assert effort.share == pytest.approx(0.35)
    assert effort.share == pytest.approx(0.5)
    effort.advance(0.25)
    assert effort.share == pytest.approx(0.75)


def test_a_part_that_is_stopped_leaves_the_ones_around_it_in_order():
    effort = Effort()
    with pytest.raises(ZeroDivisionError), effort.part(0.5), effort.part(0.5):
        raise ZeroDivisionError
    effort.advance(0.1)
    assert effort.share == pytest.approx(0.6)


@given(st.recursive(st.floats(0, 2), lambda inner: st.lists(st.tuples(st.floats(0, 1), inner), max_size=4)))
def test_the_share_never_falls_and_never_passes_one(steps):
    effort = Watched()

    def go(step) -> None:
        if isinstance(step, float):
            effort.advance(step)
            return
        for of, inner in step:
            with effort.part(of):
                go(inner)

    with effort.part(1):
        go(steps)
    assert effort.told == sorted(effort.told)
    assert effort.told[0] >= 0
    assert effort.told[-1] == 1


RULED = [{"id": "s", "kind": "spring", "channels": ["x"]}]


def linked(n: int) -> list[dict[str, object]]:
    return [{"id": "l", "kind": "link", "channels": ["x"], "settings": {"formula": f"{{O{n - 1}.x}} + 1"}}]


@pytest.mark.parametrize(
    ("what", "steps"),
    [
        ("rules", [shape(f"o{n}", x=channel((0, 0), (40, n)), rules=RULED) for n in range(3000)]),
        ("links", [shape("o0", x=channel((0, 0), (40, 9))), *(shape(f"o{n}", rules=linked(n)) for n in range(1, 40))]),
    ],
)
def test_a_bake_tells_how_far_it_has_come_many_times(what, steps):
    effort = Watched()
    bake(scene(*steps, length=48), effort=effort)
    between = {round(share, 2) for share in effort.told if 0 < share < 1}
    assert len(between) >= 3, what
    assert effort.told == sorted(effort.told)
    assert effort.told[-1] == pytest.approx(1)


@pytest.mark.parametrize("name", ["12-morning-round", "15-stamp-sheet", "22-bamboo-chimes"])
def test_a_demo_scene_comes_from_nothing_to_all(name):
    effort = Watched()
    baked = bake(load(SCENES / f"{name}.json"), effort=effort)
    assert effort.told[0] == 0
    assert effort.told[-1] == pytest.approx(1)
    assert effort.told == sorted(effort.told)
    drawing = Watched()
    drawn_scene(baked, None, drawing)
    assert drawing.told[0] == 0
    assert drawing.told == sorted(drawing.told)
