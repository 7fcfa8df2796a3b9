"""The command line, as it is typed."""

import csv
import json
import math
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import av
import numpy as np
import pytest

from tests.formats.test_drawing import STAMP
from tests.motion.scenes import EXAMPLE
from tests.sounds import kept, struck, wav
from vine_swing.cli import main
from vine_swing.faults import faults
from vine_swing.formats import EXPORTS
from vine_swing.motion import dump, load
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.store import SceneStore


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


def test_every_format_by_its_ending_with_its_options(mango, tmp_path):
    endings = {one.ends_with for one in EXPORTS.values()}
    mango.write_text(dump(load(mango).copy_with(sounds=(kept(struck([0.1], 0.5)),))), encoding="utf-8")
    for ending in sorted(endings):
        out = tmp_path / f"film{ending}"
        assert main(["export", str(mango), str(out), "--width", "64", "--frames", "3-9", "--every", "2"]) == 0, ending
        assert out.stat().st_size > 60
    assert (tmp_path / "film.csv").read_text(encoding="utf-8").splitlines()[1:][0].startswith("4.0,")
    again = tmp_path / "again.json"
    assert main(["import", str(tmp_path / "film.vine"), str(again)]) == 0
    assert dump(load(again)) == dump(load(mango))
    assert not list(tmp_path.glob("*.part"))


def test_export_to_standard_output_and_its_progress_in_lines(mango):
    command = [sys.executable, "-m", "vine_swing", "export", str(mango), "-", "--format", "png", "--frames", "5", "--scale", "0.1"]
    done = subprocess.run(command, capture_output=True, check=True)
    assert done.stdout.startswith(b"\x89PNG")
    done = subprocess.run([*command[:5], str(mango.parent / "none" / "film.gif"), "--scale", "0.05"], capture_output=True, text=True)
    assert done.returncode == 1
    out = mango.with_suffix(".gif")
    done = subprocess.run([*command[:5], str(out), "--scale", "0.05", "--fps", "12"], capture_output=True, text=True, check=True)
    assert done.stderr.splitlines()[-1] == f"{out}: 60 of 60 frames"
    assert len(done.stderr.splitlines()) <= 10


def test_a_drawing_comes_in_as_a_scene_or_into_one_and_what_is_left_out_is_told(mango, tmp_path, capsys):
    (tmp_path / "stamp.svg").write_bytes(STAMP)
    assert main(["import", str(tmp_path / "stamp.svg"), str(tmp_path / "stamp.json")]) == 0
    told = capsys.readouterr()
    assert "left out: filters" in told.err
    assert "objects, " in told.out
    stamp = load(tmp_path / "stamp.json")
    assert "Toucan" in stamp.by_name
    assert main(["import", str(tmp_path / "stamp.svg"), str(tmp_path / "both.json"), "--into", str(mango)]) == 0
    both = load(tmp_path / "both.json")
    assert len(both.objects) == len(stamp.objects) + 1
    assert both.by_name["Mango"] == load(mango).by_name["Mango"]


def test_a_table_drives_what_its_columns_are_said_to_drive(mango, tmp_path, capsys):
    (tmp_path / "wind.csv").write_text("seconds,wind,gust\n0,1,5\n0.5,4,6\n1,2,7\n", encoding="utf-8")
    command = ["import", str(tmp_path / "wind.csv"), str(tmp_path / "out.json"), "--into", str(mango)]
    assert main(command) == 1
    assert "it has seconds, wind, gust" in capsys.readouterr().err
    assert main([*command, "--column", "wind=Mango.y", "--first", "10"]) == 0
    assert [(key.frame, key.value) for key in load(tmp_path / "out.json").by_name["Mango"].channels["y"].keys] == [(10, 1), (22, 4), (34, 2)]
    assert main([*command, "--column", "wind=Mango.y", "--unit", "frames", "--time", "gust"]) == 0
    assert [key.frame for key in load(tmp_path / "out.json").by_name["Mango"].channels["y"].keys] == [5, 6, 7]
    for wrong, says in (("rain=Mango.y", "there is no column 'rain'"), ("wind=Papaya.y", "there is no 'Papaya' in the scene"), ("wind=Mango.z", "z")):
        assert main([*command, "--column", wrong]) == 1
        assert says in capsys.readouterr().err


def test_a_sound_drives_what_its_levels_and_beats_are_said_to_drive(mango, tmp_path):
    (tmp_path / "drum.wav").write_bytes(wav(struck([0.5, 1.5], 2.5)))
    columns = ["--column", "beats=Mango.opacity", "--column", "low=Wind"]
    assert main(["import", str(tmp_path / "drum.wav"), str(tmp_path / "out.json"), "--into", str(mango), *columns]) == 0
    scene = load(tmp_path / "out.json")
    beats = [key.frame for key in scene.by_name["Mango"].channels["opacity"].keys if key.value == 1]
    assert beats == pytest.approx([12, 36], abs=1)
    assert max(key.value for key in scene.dials_by_name["Wind"].channel.keys) == 1


def test_a_sound_is_heard_with_a_scene_of_its_own_or_with_another(mango, tmp_path, capsys):
    (tmp_path / "drum.wav").write_bytes(wav(struck([0.5, 1.5], 2.5)))
    assert main(["import", str(tmp_path / "drum.wav"), str(tmp_path / "own.json")]) == 0
    own = load(tmp_path / "own.json")
    assert (own.name, own.length, own.sounds[0].seconds) == ("drum", 60, 2.5)
    assert main(["import", str(tmp_path / "drum.wav"), str(tmp_path / "two.json"), "--into", str(tmp_path / "own.json"), "--first", "9"]) == 0
    assert [(one.name, one.first) for one in load(tmp_path / "two.json").sounds] == [("drum", 0), ("drum 2", 9)]
    (tmp_path / "odd.mp3").write_bytes(b"no sound")
    assert main(["import", str(tmp_path / "odd.mp3"), str(tmp_path / "out.json")]) == 1
    assert "'odd.mp3' cannot be read as a sound" in capsys.readouterr().err


def test_keys_go_from_one_scene_into_another(mango, tmp_path, capsys):
    assert main(["export", str(mango), str(tmp_path / "mango.keys.json")]) == 0
    bare = json.loads(mango.read_text(encoding="utf-8"))
    bare["objects"][0]["channels"]["x"] = {"base": 0}
    (tmp_path / "bare.json").write_text(json.dumps(bare), encoding="utf-8")
    assert main(["import", str(tmp_path / "mango.keys.json"), str(tmp_path / "out.json")]) == 1
    assert "name the scene they are for with --into" in capsys.readouterr().err
    assert main(["import", str(tmp_path / "mango.keys.json"), str(tmp_path / "out.json"), "--into", str(tmp_path / "bare.json")]) == 0
    assert load(tmp_path / "out.json").by_name["Mango"].channels["x"].keys == load(mango).by_name["Mango"].channels["x"].keys


def test_check(mango, capsys):
    assert main(["check", str(mango)]) == 0
    assert "'Example' is in order: 1 objects, 120 frames" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["check", "{dir}/none.json"], "No such file"),
        (["check", "{dir}/bad.json"], "not JSON"),
        (["export", "{dir}/mango.json", "{dir}/film.doc"], "'.doc' is no format to export to; name the file with .mp4 or .gif"),
        (["export", "{dir}/mango.json", "{dir}/film.mp4", "--scale", "0"], "--scale is 0.0; it should be greater than 0"),
        (["export", "{dir}/mango.json", "{dir}/film.mp4", "--frames", "3-x"], "--frames is '3-x'"),
        (["export", "{dir}/mango.json", "{dir}/film.mp4", "--frames", "90-300"], "the scene has frames 0 to 119"),
        (["export", "{dir}/mango.json", "-"], "name one with --format"),
        (["bake", "{dir}/mango.json", "--csv", "{dir}/no/where.csv"], "No such file"),
        (["import", "{dir}/picture.png", "{dir}/out.json"], "picture.png"),
        (["serve", "--data", "{dir}/mango.json/x"], ""),
    ],
)
def test_what_is_wrong_is_said_on_one_line(mango, tmp_path, capsys, arguments, says):
    (tmp_path / "bad.json").write_text("{")
    (tmp_path / "picture.png").write_bytes(b"\x89PNG\r\n\x1a\n")
    assert main([part.format(dir=tmp_path) for part in arguments]) == 1
    said = capsys.readouterr().err
    assert said.startswith("vine-swing: ")
    assert says in said
    assert said.count("\n") == 1


def test_check_names_what_is_not_there_with_the_nearest_name(mango, tmp_path, capsys):
    data = json.loads(mango.read_text(encoding="utf-8"))
    data["objects"][0]["rules"] = [
        {"id": "l", "kind": "link", "channels": ["y"], "settings": {"formula": "{Mangoo.x} + {Mango.rotatoin}"}},
        {"id": "f", "kind": "follow", "channels": ["x"], "settings": {"leader": "mangos"}},
    ]
    mango.write_text(json.dumps(data), encoding="utf-8")
    assert main(["check", str(mango)]) == 0
    said = capsys.readouterr().err
    assert "there is no 'Mangoo.x'; did you mean 'Mango.x'?" in said
    assert "there is no 'Mango.rotatoin'; did you mean 'Mango.rotation'?" in said
    assert "there is no object 'mangos'; did you mean 'mango'?" in said
    assert main(["check", str(mango), "--strict"]) == 1
    assert main(["bake", str(mango), "--csv", str(tmp_path / "out.csv")]) == 0
    assert "did you mean 'Mango.x'?" in capsys.readouterr().err


def test_a_scene_in_order_passes_a_strict_check(mango, capsys):
    assert main(["check", str(mango), "--strict"]) == 0
    assert capsys.readouterr().err == ""


def test_a_see_through_background_gets_a_colour_under_it_in_videos(mango, tmp_path):
    data = json.loads(mango.read_text(encoding="utf-8")) | {"background": "#00000080", "length": 2, "objects": []}
    mango.write_text(json.dumps(data), encoding="utf-8")
    assert main(["export", str(mango), str(tmp_path / "film.mp4"), "--scale", "0.1", "--under", "#FF0000"]) == 0
    with av.open(str(tmp_path / "film.mp4")) as film:
        picture = next(film.decode(video=0)).to_ndarray(format="rgb24")
    assert np.abs(picture.reshape(-1, 3).mean(axis=0) - [127, 0, 0]).max() < 4
    assert main(["export", str(mango), str(tmp_path / "film.mp4"), "--under", "#FF000080"]) == 1


@pytest.mark.parametrize("port", ["0", "65536", "-1"])
def test_a_port_out_of_range_is_said(tmp_path, capsys, port):
    assert main(["serve", "--data", str(tmp_path), "--port", port]) == 1
    assert "it must be between 1 and 65535" in capsys.readouterr().err


def test_the_real_command_serves_says_where_and_refuses_a_port_in_use(tmp_path):
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    command = [sys.executable, "-m", "vine_swing", "serve", "--port", str(port), "--data"]
    server = subprocess.Popen([*command, str(tmp_path / "one")], stdout=subprocess.PIPE, text=True)
    try:
        assert f"http://127.0.0.1:{port}/" in server.stdout.readline()
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/scenes", timeout=1).close()
                break
            except OSError:
                time.sleep(0.05)
        second = subprocess.run([*command, str(tmp_path / "two")], capture_output=True, text=True, check=False)
        assert second.returncode == 1
        assert f"port {port} cannot be used" in second.stderr
        assert second.stdout == ""
        third = subprocess.run(
            [*command[:-2], str(port + 1 if port < 65535 else port - 1), "--data", str(tmp_path / "one")], capture_output=True, text=True, check=False
        )
        assert third.returncode == 1
        assert "another Vine Swing" in third.stderr
    finally:
        server.send_signal(signal.SIGINT)
        server.wait(20)
        server.stdout.close()


def test_notes_are_listed_and_the_exit_status_says_whether_there_are_any(tmp_path, capsys):
    for which, status in (("fault", 1), ("sound", 0)):
        path = tmp_path / f"{which}.json"
        path.write_text(dump(getattr(faults()["seam"], which)), encoding="utf-8")
        assert main(["notes", str(path), "--json"]) == status
        told = json.loads(capsys.readouterr().out)
        assert len(told) == status
        assert main(["notes", str(path)]) == status
        said = capsys.readouterr().out
        if which == "fault":
            (note,) = told
            assert list(note) == ["kind", "object", "channel", "frames", "text", "sure"]
            assert (note["kind"], note["object"], note["channel"], note["frames"]) == ("seam", "Leaf", "rotation", [0, 24])
            assert said == f"seam: {note['text']}\n"
        else:
            assert "nothing to remark" in said


def test_notes_on_scenes_inside_say_where(tmp_path, capsys):
    inner = to_data(faults()["seam"].fault)
    part = {name: inner[name] for name in ("name", "objects", "length", "size")} | {"id": "inner"}
    outer = {"length": 48, "insets": [part], "objects": [{"id": "raft", "name": "Raft", "kind": "inset", "inset": {"scene": "inner"}}]}
    path = tmp_path / "outer.json"
    path.write_text(json.dumps({"format": "vine-swing-scene", "version": 1} | outer), encoding="utf-8")
    assert main(["notes", str(path), "--json"]) == 1
    assert [note["inside"] for note in json.loads(capsys.readouterr().out)] == ["Fault"]


def test_a_closed_output_does_not_end_the_server(tmp_path):
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    command = [sys.executable, "-m", "vine_swing", "serve", "--port", str(port), "--data", str(tmp_path)]
    reader, writer = os.pipe()
    os.close(reader)
    server = subprocess.Popen(command, stdout=writer, stderr=subprocess.PIPE, text=True)
    os.close(writer)
    try:
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/scenes", timeout=1).close()
                break
            except OSError:
                assert server.poll() is None, server.stderr.read()
                time.sleep(0.05)
    finally:
        server.send_signal(signal.SIGINT)
        _, errors = server.communicate(timeout=20)
    assert (server.returncode, errors) == (0, "")


@pytest.mark.skipif(os.getuid() == 0 and not Path("/usr/bin/setpriv").exists(), reason="root may write everywhere")
def test_a_folder_that_cannot_be_written_to_suggests_what_helps(tmp_path):
    SceneStore(tmp_path / "data" / "vine-swing.db").close()
    for path in (tmp_path / "data" / "vine-swing.db", tmp_path / "data" / "vine-swing.db.lock"):
        path.chmod(0o444)
    (tmp_path / "data").chmod(0o555)
    for folder in [tmp_path, *tmp_path.parents][:3]:
        folder.chmod(0o755)
    command = [sys.executable, "-m", "vine_swing", "serve", "--data", str(tmp_path / "data"), "--port", "18131"]
    unprivileged = ["/usr/bin/setpriv", "--reuid=65534", "--regid=65534", "--clear-groups"] if os.getuid() == 0 else []
    done = subprocess.run([*unprivileged, *command], capture_output=True, text=True, check=False, timeout=60)
    (tmp_path / "data").chmod(0o755)
    if "ModuleNotFoundError" in done.stderr or "Permission denied: '/root" in done.stderr or "failed to execute" in done.stderr:
        pytest.skip("another user cannot run this Python")
    assert done.returncode == 1
    assert "allow writing to this file and its folder" in done.stderr
    assert "--bring-back" not in done.stderr
