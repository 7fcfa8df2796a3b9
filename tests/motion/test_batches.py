"""Alike channels are computed together, and nobody can tell: but for the last digit it is as if each were computed alone."""

from dataclasses import replace
from types import SimpleNamespace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import channel, channels, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.baking.keyed import batch_key
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.rules import retime, steps
from vine_swing.motion.scene.graph import followers_of, in_order, reads_of

KINDS = {
    "oscillator": {"amplitude": st.floats(-50, 50), "frequency": st.floats(-4, 4), "phase": st.floats(0, 360), "start": st.integers(0, 20)},
    "noise": {"amplitude": st.floats(0, 50), "frequency": st.floats(0, 4), "octaves": st.integers(1, 4), "seed": st.integers(0, 99)},
    "spring": {"frequency": st.floats(0.1, 6), "damping": st.floats(0, 3)},
    "smooth": {"frames": st.floats(0, 20)},
    "limit": {"low": st.floats(-50, 0), "high": st.floats(0, 50), "softness": st.floats(0, 9)},
    "retime": {"delay": st.floats(-9, 9), "speed": st.floats(-2, 2)},
    "steps": {"every": st.floats(0.5, 9), "offset": st.integers(0, 3)},
}
FRAMES = np.arange(0, 48, 0.5)


@st.composite
def alike(draw):
    """Up to five objects with the same cards, whose numbers differ."""
    kinds = draw(st.lists(st.sampled_from(sorted(KINDS)), min_size=1, max_size=3))
    keyed = draw(st.booleans())
    things = []
    for n in range(draw(st.integers(2, 5))):
        rules = []
        for i, kind in enumerate(kinds):
            given = {name: float(draw(values)) for name, values in KINDS[kind].items()}
            if keyed:
                name = sorted(given)[0]
                given[name] = channel((0, given[name]), (20, float(draw(KINDS[kind][name])))).model_dump(by_alias=True)
            rules.append({"id": f"r{i}", "kind": kind, "channels": ["x", "rotation"], "settings": given})
        things.append(shape(f"o{n}", x=draw(channels(most=4)), rotation=draw(st.floats(-90, 90)), rules=rules))
    return things


@settings(max_examples=60)
@given(alike())
def test_nothing_depends_on_what_is_baked_beside_it(things):
    together = bake(scene(*things, length=48), FRAMES)
    for thing in things:
        alone = bake(scene(thing, length=48), FRAMES)
        for name in ("x", "rotation"):
            size = 1 + np.abs(alone[thing["name"], name]).max()
            np.testing.assert_allclose(together[thing["name"], name], alone[thing["name"], name], rtol=1e-11, atol=1e-12 * size)


def test_what_has_the_same_cards_is_alike():
    one = {"id": "r", "kind": "oscillator", "channels": ["x"], "settings": {"amplitude": 3}}
    keyed = one | {"settings": {"amplitude": channel((0, 1), (5, 2)).model_dump(by_alias=True)}}
    between = one | {"settings": {"amplitude": channel((0, 1), (5.5, 2)).model_dump(by_alias=True)}}
    square = one | {"settings": {"amplitude": 3, "wave": "square"}}
    rules = [one, one | {"settings": {"amplitude": 9}}, keyed, between, square, one | {"mode": "multiply"}, one | {"kind": "noise"}]
    some = scene(*(shape(f"o{n}", x=channel((0, n), (9, 3)), rules=[rule]) for n, rule in enumerate(rules)), length=24)
    kinds = [batch_key(thing, "x", Reader(some).timing) for thing in some.objects]
    assert kinds[0] == kinds[1]
    assert len(set(kinds)) == len(kinds) - 1


def test_noise_on_two_channels_is_two_noises_in_a_batch_as_alone():
    rules = [{"id": "n", "kind": "noise", "channels": ["x", "y"], "settings": {"amplitude": 10.0, "seed": 3.0}}]
    things = [shape(f"o{n}", x=100.0, y=100.0, rules=rules) for n in range(3)]
    together, alone = bake(scene(*things)), bake(scene(things[0]))
    name = things[0]["name"]
    assert np.abs(together[name, "x"] - together[name, "y"]).max() > 1
    assert np.abs(alone[name, "x"] - alone[name, "y"]).max() > 1
    for channel_name in ("x", "y"):
        np.testing.assert_allclose(together[name, channel_name], alone[name, channel_name], atol=1e-9)


def test_a_long_row_of_cards_costs_no_more_than_their_sum():
    """Each card is read at most a few times as often as it is asked: smoothing a smoothing does not multiply."""
    x = channel((0, 0), (20, 100, "hold"), (40, 5))
    one = scene(shape("pod", x=x, rules=[{"id": f"r{n}", "kind": "smooth", "channels": ["x"]} for n in range(6)]), length=96)
    read = 0

    def counted(t):
        nonlocal read
        read += t.size
        return keyed.at(t)

    reader = Reader(one)
    keyed = reader.keyed([(one.objects[0], "x")])
    source = replace(keyed, at=counted)
    for rule in one.objects[0].rules:
        source = replace(source, at=rule.spec.prepare(source, _Settings(), "add"))
    source.at(np.arange(96.0)[None, :])
    assert read < 8 * (96 + 6 * 2 * 4) + 100


class _Settings:
    def number(self, name, t):
        return np.full((1, 1), 4.0)


def test_cards_explained_end_where_the_bake_does():
    rules = [{"id": f"r{n}", "kind": kind, "channels": ["x"]} for n, kind in enumerate(["smooth", "spring", "noise", "smooth", "retime", "spring"])]
    one = scene(shape("pod", x=channel((0, 0), (30, 80)), rules=rules), length=60)
    np.testing.assert_allclose(explain(one, "pod", "x")[-1].values, bake(one)["Pod", "x"], atol=1e-9)


def test_the_graph_knows_paths_and_keyed_settings():
    keyed = channel((0, 1), (9, 2)).model_dump(by_alias=True)
    swing = {"id": "s", "kind": "oscillator", "channels": ["x"], "settings": {"amplitude": keyed, "frequency": 2}}
    path = {"keys": [{"frame": 0, "value": [0, 0]}, {"frame": 9, "value": [50, 20]}]}
    one = scene(shape("leaf", path=path, rules=[swing]), shape("stone", x=4), length=24)
    leaf = one.by_id["leaf"]
    assert reads_of(one, leaf, "x") == (("leaf", "path"), ("leaf", "s:amplitude"))
    assert reads_of(one, leaf, "y") == (("leaf", "path"),)
    assert reads_of(one, one.by_id["stone"], "x") == ()
    assert followers_of(one, [("leaf", "path")]) == {("leaf", "path"), ("leaf", "x"), ("leaf", "y")}
    assert followers_of(one, [("leaf", "s:amplitude")]) == {("leaf", "s:amplitude"), ("leaf", "x")}
    assert in_order(one) == {}, "no rule here looks at other channels"


@pytest.mark.parametrize("rule", [retime, steps], ids=lambda rule: rule.SPEC.kind)
def test_rows_with_equal_settings_are_read_at_one_row_of_frames(rule):
    """What is computed of the frames alone, such as where a spring is in its swing, is then computed once for all rows."""
    read = []
    source = SimpleNamespace(at=lambda t: read.append(t) or np.zeros((3, t.shape[1])))
    frames = np.arange(0, 9, 0.5)[None, :]
    for values in ([2.0, 2.0, 2.0], [2.0, 2.0, 4.0]):
        given = SimpleNamespace(number=lambda name, t, values=values: np.array(values)[:, None], breaks=lambda name: None)
        rule.apply(source, given, "replace", frames)
    assert [len(t) for t in read] == [1, 3]
    np.testing.assert_array_equal(read[0], read[1][:1])
