"""The command line, as it is typed."""

import csv
import json
import math

import av
import pytest

from tests.motion.scenes import EXAMPLE
from vine_swing.cli import main


@pytest.fixture
def mango(tmp_path):
    path = tmp_path / "mango.json"
    path.write_text(json.dumps(EXAMPLE), encoding="utf-8")
    return path


def test_bake_gives_the_values_of_hand_calculation(mango, tmp_path):
    out = tmp_path / "out.csv"
    assert main(["bake", str(mango), "--csv", str(out), "--every", "0.5"]) == 0
    lines = list(csv.DictReader(out.read_text(encoding="utf-8").splitlines()))
    assert len(lines) == 239
    for line in lines:
        f = float(line["frame"])
        turn = f % 48
        assert float(line["Mango.x"]) == pytest.approx(100 + 10 * (turn if turn <= 24 else 48 - turn), abs=1e-9)
        assert float(line["Mango.rotation"]) == pytest.approx(15 * math.sin(2 * math.pi * 0.6 * f / 24), abs=1e-9)


def test_bake_to_standard_output(mango, capsys):
    assert main(["bake", str(mango), "--csv", "-", "--world"]) == 0
    assert capsys.readouterr().out.startswith("frame,Mango.x,Mango.rotation,Mango.world.x,Mango.world.y,Mango.world.rotation")


def test_export_by_the_ending_of_the_name(mango, tmp_path):
    for name in ("film.mp4", "film.GIF"):
        assert main(["export", str(mango), str(tmp_path / name), "--scale", "0.1"]) == 0
        with av.open(str(tmp_path / name)) as film:
            assert (film.streams.video[0].width, film.streams.video[0].height) == (128, 72)


def test_check(mango, capsys):
    assert main(["check", str(mango)]) == 0
    assert "'Example' is in order: 1 objects, 120 frames" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["check", "{dir}/none.json"], "No such file"),
        (["check", "{dir}/bad.json"], "not JSON"),
        (["export", "{dir}/mango.json", "{dir}/film.doc"], "'.doc' is no format to export to; name the file with .mp4 or .gif"),
        (["export", "{dir}/mango.json", "{dir}/film.mp4", "--scale", "0"], "--scale is 0"),
        (["bake", "{dir}/mango.json", "--csv", "{dir}/no/where.csv"], "No such file"),
        (["serve", "--data", "{dir}/mango.json/x"], ""),
    ],
)
def test_what_is_wrong_is_said_on_one_line(mango, tmp_path, capsys, arguments, says):
    (tmp_path / "bad.json").write_text("{")
    assert main([part.format(dir=tmp_path) for part in arguments]) == 1
    said = capsys.readouterr().err
    assert said.startswith("vine-swing: ")
    assert says in said
    assert said.count("\n") == 1
