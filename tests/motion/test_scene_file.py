"""Scene files: faults are named with their place, and what is written is read again."""

import copy
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import EXAMPLE, channels, scene, shape
from vine_swing.motion import SceneFileError, dump, parse


def broken(change):
    data = copy.deepcopy(EXAMPLE)
    change(data, data["objects"][0], data["objects"][0]["channels"]["x"])
    return data


CASES = [
    (lambda d, o, x: d.update(wobble=1), "wobble: this field is unknown"),
    (lambda d, o, x: o.update(colour="red"), "objects[0].colour: this field is unknown"),
    (
        lambda d, o, x: x["keys"][1].update(frame=1e12),
        "objects[0].channels.x.keys[1].frame: should be less than or equal to 1000000; it is 1000000000000.0",
    ),
    (lambda d, o, x: x["keys"][1].update(value=True), "objects[0].channels.x.keys[1].value"),
    (lambda d, o, x: x["keys"][1].update(value="#GG0000"), "objects[0].channels.x.keys[1].value"),
    (lambda d, o, x: x["keys"][1].update(value="#FF0000"), "'Mango', x: the key at frame 24 is '#FF0000'; it must be a number"),
    (
        lambda d, o, x: x["keys"][0].update(ease={"bezier": [2, 0, 0, 1]}),
        "objects[0].channels.x.keys[0].ease.bezier[0]: should be less than or equal to 1; it is 2",
    ),
    (lambda d, o, x: x["keys"][0].update(ease="floaty"), "objects[0].channels.x.keys[0].ease: should be 'hold', 'linear'"),
    (lambda d, o, x: x["keys"][0].pop("value"), "objects[0].channels.x.keys[0].value: this field is missing"),
    (lambda d, o, x: x["after"].update(times=-1), "objects[0].channels.x.after.times: should be greater than or equal to 0"),
    (lambda d, o, x: o.update(parent="tree"), "'Mango' has the parent 'tree', which is no object of this scene"),
    (lambda d, o, x: o.update(parent="mango"), "parents form a ring: Mango → Mango"),
    (lambda d, o, x: o["channels"].update(wdth=3), "'Mango' has no channel 'wdth'; it has path, x, y,"),
    (lambda d, o, x: o["channels"].update(fill=3), "'Mango', fill: the base is 3.0; it must be a colour such as '#F2932B'"),
    (lambda d, o, x: o.update(shape={"type": "blob"}), "objects[0].shape"),
    (lambda d, o, x: o.update(name="{x}"), "objects[0].name"),
    (lambda d, o, x: d["objects"].append(copy.deepcopy(o)), "two objects have the id 'mango'"),
    (lambda d, o, x: d["objects"].append(copy.deepcopy(o) | {"id": "other"}), "two objects are called 'Mango'"),
    (lambda d, o, x: d.update(size=[0, 10]), "size[0]: should be greater than or equal to 1; it is 0"),
    (lambda d, o, x: d.update(length=10**9), "length: should be less than or equal to 20000"),
    (lambda d, o, x: d.update(version=2), "version: should be 1"),
    (lambda d, o, x: d["dials"][0]["channel"].update(keys=[{"frame": 0, "value": "#FFF"}]), "dial 'Wind' has both numbers and colours"),
    (lambda d, o, x: o["rules"][0].update(kind="magic"), "there is no rule 'magic'; there is retime, steps, oscillator"),
]


@pytest.mark.parametrize(("change", "says"), CASES, ids=[says[:40] for _, says in CASES])
def test_a_fault_is_named_with_its_place(change, says):
    with pytest.raises(SceneFileError) as caught:
        parse(json.dumps(broken(change)))
    assert says in str(caught.value)
    assert not any(word in str(caught.value) for word in ("Input", "tagged", "function-", "Literal")), "no words of the checking library"


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "not JSON"),
        ("[1, 2]", "not a scene file"),
        ('{"format": "vine-swing-scene", "fps": NaN}', "NaN is not a number JSON knows"),
        (b"\xff\xfe\x00", "not UTF-8"),
        ("[" * 100_000, "JSON"),
    ],
)
def test_what_is_no_scene_file_at_all(text, says):
    with pytest.raises(SceneFileError, match=says):
        parse(text)


def test_only_the_first_faults_are_collected():
    data = broken(lambda d, o, x: o["channels"].update(x={"keys": [{"frame": f} for f in range(40)]}))
    with pytest.raises(SceneFileError) as caught:
        parse(json.dumps(data))
    assert caught.value.faults == ["objects[0].channels.x.keys[0].value: this field is missing"], "a list of keys reports its first fault only"
    data["objects"] = [{"id": f"o{n}", "name": f"O{n}", "kind": "shape"} for n in range(40)]
    with pytest.raises(SceneFileError) as caught:
        parse(json.dumps(data))
    assert len(caught.value.faults) == 21
    assert caught.value.faults[19:] == ["objects[19].shape: this field is missing", "and perhaps more"]


def test_a_long_ring_of_parents_is_named_whole():
    ring = [shape("a", parent="b"), shape("b", parent="c"), shape("c", parent="a"), shape("d", parent="a")]
    with pytest.raises(SceneFileError, match="parents form a ring: A → B → C → A"):
        scene(*ring)


@given(channels(least=0), channels(least=0), st.sampled_from(["ellipse", "star", "line"]))
def test_whatever_is_written_reads_the_same(x, rotation, kind):
    one = scene(shape("thing", x=x, rotation=rotation, type=kind))
    assert parse(dump(one)) == one
