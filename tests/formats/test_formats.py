"""Exports and tables, read back."""

import csv
import io
import json
import re
import shutil
import subprocess
import zipfile

import av
import numpy as np
import pytest
from PIL import Image

from demo.make import SCENES
from tests.motion.scenes import EXAMPLE, channel, scene, shape
from vine_swing.formats import EXPORTS, film_of
from vine_swing.formats.export import Cancelled, never_cancelled
from vine_swing.formats.options import ExportOptions
from vine_swing.formats.sheet import exposures
from vine_swing.formats.straight import straight
from vine_swing.formats.table import write_csv
from vine_swing.motion import MotionError, bake, load
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.picture.paint import Painter


def rolling(size, fps=24, length=12):
    wide = size[0]
    return scene(
        shape("sun", x=channel((0, 10), (length - 1, wide - 10)), y=size[1] / 2, width=16, height=16, fill="#D0365B"),
        size=size,
        fps=fps,
        length=length,
        background="#CFE6D8",
    )


def written(name, path, one, progress=never_cancelled, **options):
    """Export a scene; gives back the remarks."""
    return EXPORTS[name].write(film_of(one, ExportOptions(format=name, **options)), path, progress=progress)


@pytest.mark.parametrize("name", ["mp4", "gif"])
@pytest.mark.parametrize(("size", "fps"), [((96, 54), 24), ((63, 41), 12.5), ((64, 64), 29.97)])
def test_films_have_their_size_pace_and_every_frame(tmp_path, name, size, fps):
    one = rolling(size, fps)
    path, told = tmp_path / "film", []
    remarks = written(name, path, one, lambda done: told.append(done) or True)
    assert told == list(range(1, 13))
    with av.open(str(path)) as film:
        stream = film.streams.video[0]
        frames = list(film.decode(stream))
        seconds = [float(frame.pts * frame.time_base) for frame in frames]
    # Sides of films in 4:2:0 are even; that one was made so is told.
    padded = tuple(side + side % 2 for side in size) if name == "mp4" else size
    assert (stream.width, stream.height) == padded
    assert bool(remarks) == (padded != size)
    assert len(frames) == 12
    np.testing.assert_allclose(seconds, np.arange(12) / fps, atol=0.006)
    painter = Painter(bake(one))
    for n in (0, 6, 11):
        got = frames[n].to_ndarray(format="rgb24").astype(int)[: size[1], : size[0]]
        assert np.abs(got - painter.frame(n)[..., :3]).mean() < 4, f"frame {n} shows what was painted"


def test_another_reader_agrees_on_what_a_film_is(tmp_path):
    """FFmpeg's own ffprobe, a program by itself, where it is installed with the browser's libraries."""
    probe = shutil.which("ffprobe")
    if probe is None:
        pytest.skip("there is no ffprobe on this machine")
    for name in ("mp4", "webm"):
        path = tmp_path / f"film.{name}"
        written(name, path, rolling((96, 54), 25, length=30), fps=50)
        asked = [
            probe,
            "-v",
            "error",
            "-count_frames",
            "-show_entries",
            "stream=width,height,nb_read_frames,r_frame_rate:format=duration",
            "-of",
            "json",
        ]
        said = json.loads(subprocess.run([*asked, str(path)], capture_output=True, check=True).stdout)
        (stream,) = said["streams"]
        assert (stream["width"], stream["height"], stream["r_frame_rate"], stream["nb_read_frames"]) == (96, 54, "50/1", "60")
        assert float(said["format"]["duration"]) == pytest.approx(1.2, abs=0.03)


SEE_THROUGH = [("webm", 6), ("apng", 1), ("webp", 6)]


@pytest.mark.parametrize(("name", "off"), SEE_THROUGH)
@pytest.mark.parametrize(("size", "fps", "background"), [((96, 54), 24, "#CFE6D8"), ((64, 48), 12.5, "#00000000"), ((80, 60), 30, "#CFE6D880")])
def test_films_that_can_be_seen_through(tmp_path, name, off, size, fps, background):
    """Size, frames, pace and every pixel's alpha, read back by FFmpeg; colours where there are any."""
    one = rolling(size, fps).copy_with(background=background)
    path, told = tmp_path / f"film.{name}", []
    written(name, path, one, lambda done: told.append(done) or True)
    assert told == list(range(1, 13))
    pictures, seconds = decoded(path)
    assert len(pictures) == 12
    np.testing.assert_allclose(np.diff(seconds), 1 / fps, atol=0.006)
    painter = Painter(bake(one))
    for n in (0, 6, 11):
        wanted, got = straight(painter.frame(n)).astype(int), pictures[n].astype(int)
        assert got.shape == wanted.shape
        assert np.abs(got[..., 3] - wanted[..., 3]).mean() < off, "alpha"
        seen = wanted[..., 3] > 200
        if seen.any():
            assert np.abs(got - wanted)[seen][:, :3].mean() < off + 3, "colours"


def decoded(path, loops=0):
    """The pictures of a film with alpha, and when each is shown, s."""
    if path.suffix == ".webm":
        # The decoder that knows of the second picture beside each has to be asked for.
        with av.open(str(path)) as film:
            stream = film.streams.video[0]
            decoder = av.CodecContext.create("libvpx-vp9", "r")
            decoder.extradata = stream.codec_context.extradata
            frames = [frame for packet in film.demux(stream) for frame in decoder.decode(packet)]
            seconds = [float(frame.pts * stream.time_base) for frame in frames]
        assert {name.lower(): value for name, value in stream.metadata.items()}["alpha_mode"] == "1"
        return [frame.to_ndarray(format="rgba") for frame in frames], seconds
    with Image.open(path) as film:
        pictures, at, seconds = [], 0.0, []
        for n in range(film.n_frames):
            film.seek(n)
            pictures.append(np.asarray(film.convert("RGBA")))
            seconds.append(at)
            at += film.info["duration"] / 1000
        assert film.info.get("loop", 0) == loops
    return pictures, seconds


@pytest.mark.parametrize(("name", "loops", "said"), [("apng", 3, 3), ("webp", 2, 2), ("gif", 3, 2), ("gif", 0, 0)])
def test_how_often_it_plays_is_written_down(tmp_path, name, loops, said):
    """GIF says how often it is repeated after the first time."""
    path = tmp_path / f"film.{name}"
    written(name, path, rolling((32, 24)), loops=loops)
    assert len(decoded(path, said)[0]) == 12


@pytest.mark.parametrize("fps", [100, 110, 120])
def test_a_gif_of_more_pictures_than_it_counts_hundredths_keeps_its_pace(tmp_path, fps):
    """What would begin in one hundredth of a second with the picture before is left out."""
    path, length = tmp_path / "film.gif", fps // 2
    assert any("50 pictures a second" in one for one in written("gif", path, rolling((32, 24), fps, length)))
    starts = sorted({round(n * 100 / fps) for n in range(length)})
    pictures, seconds = decoded(path, 0)
    assert len(pictures) == len(starts) <= 50
    np.testing.assert_allclose(seconds, np.array(starts) / 100, atol=1e-9)


def test_a_gif_without_a_background_is_seen_through(tmp_path):
    path = tmp_path / "film.gif"
    assert any("hard edges" in one for one in written("gif", path, rolling((96, 54)), background="none"))
    with Image.open(path) as film:
        film.seek(5)
        alpha = np.asarray(film.convert("RGBA"))[..., 3]
    assert set(np.unique(alpha)) == {0, 255}
    painted = Painter(bake(rolling((96, 54))), background=False).frame(5)[..., 3]
    assert ((alpha > 0) == (painted >= 128)).mean() > 0.995


def test_dithering_mixes_colours_only_where_it_is_asked_for(tmp_path):
    """Of a soft blend, colours that the palette has not are mixed of neighbours: more steps between pixels than without."""
    steps = {}
    for how in ("none", "ordered", "diffused"):
        path = tmp_path / f"{how}.gif"
        written("gif", path, load(SCENES / "20-mist-over-the-gorge.json"), dither=how, scale=0.25, last=2)
        with Image.open(path) as film:
            pixels = np.asarray(film.convert("RGB")).astype(int)
        steps[how] = (np.diff(pixels, axis=1) != 0).any(axis=2).mean()
    assert steps["none"] < steps["ordered"]
    assert steps["none"] < steps["diffused"]


def test_quality_and_size_go_together(tmp_path):
    for name in ("mp4", "webm", "webp"):
        sizes = []
        for quality in ("small", "good", "best"):
            path = tmp_path / f"{quality}.{name}"
            written(name, path, rolling((160, 90), length=24), quality=quality)
            sizes.append(path.stat().st_size)
        assert sizes[0] < sizes[-1], name
        assert sizes == sorted(sizes), name


def test_another_pace_takes_what_lies_between_the_frames(tmp_path):
    one = rolling((96, 54), 24, length=12)
    options = ExportOptions(format="flipbook", fps=60, first=2, last=9, background="own")
    np.testing.assert_allclose(film_of(one, options).frames, 2 + np.arange(20) * 0.4)
    written("flipbook", tmp_path / "book.zip", one, fps=60, first=2, last=9, background="own")
    with zipfile.ZipFile(tmp_path / "book.zip") as book:
        names = book.namelist()
        third = np.asarray(Image.open(io.BytesIO(book.read(names[3]))))
    assert len(names) == 20
    np.testing.assert_array_equal(third, straight(Painter(bake(one, np.array([3.2]))).frame(0)))


def test_a_flipbook_has_every_picture_see_through_and_the_same_twice(tmp_path):
    one = rolling((96, 54))
    for name in ("a", "b"):
        written("flipbook", tmp_path / name, one)
    assert (tmp_path / "a").read_bytes() == (tmp_path / "b").read_bytes()
    with zipfile.ZipFile(tmp_path / "a") as book:
        pictures = [np.asarray(Image.open(io.BytesIO(book.read(name)))).astype(int) for name in book.namelist()]
    assert len(pictures) == 12
    painter = Painter(bake(one), background=False)
    for n, got in enumerate(pictures):
        painted = painter.frame(n).astype(int)
        np.testing.assert_array_equal(got[..., 3], painted[..., 3])
        assert np.abs(got[..., :3] * got[..., 3:] / 255 - painted[..., :3]).max() <= 1
    assert pictures[0][27, 10].tolist() == [0xD0, 0x36, 0x5B, 255]
    assert pictures[0][27, 80, 3] == 0


def test_one_picture(tmp_path):
    one = rolling((96, 54))
    written("png", tmp_path / "one.png", one, first=7, scale=2.0)
    np.testing.assert_array_equal(np.asarray(Image.open(tmp_path / "one.png")), straight(Painter(bake(one), scale=2).frame(7)))


def test_a_contact_sheet_has_every_frame_and_the_keys_beside_them(tmp_path):
    one = rolling((96, 54), length=60)
    written("sheet", tmp_path / "sheet.pdf", one, columns=3, every=2)
    data = (tmp_path / "sheet.pdf").read_bytes()
    assert data.startswith(b"%PDF-")
    per_page = len(re.findall(rb"/Subtype\s*/Image", data)), len(re.findall(rb"/Type\s*/Page\b", data))
    assert per_page[0] >= 30
    assert per_page[1] >= 2
    assert exposures(one) == [(0.0, "Sun: x"), (59.0, "Sun: x")]


@pytest.mark.parametrize("name", ["mp4", "gif", "flipbook", "webm", "apng", "webp"])
def test_stopping_stops_at_once(tmp_path, name):
    told = []
    with pytest.raises(Cancelled):
        written(name, tmp_path / "film", rolling((64, 36), length=500), lambda done: told.append(done) or done < 3)
    assert told == [1, 2, 3]


@pytest.mark.parametrize("options", [{"scale": 8.0}, {"first": 500}, {"first": 5, "last": 4}, {"format": "doc"}, {"under": "#12345678"}])
def test_what_cannot_be_exported_is_said_before_anything_is_made(options):
    with pytest.raises(MotionError):
        film_of(rolling((4096, 2160)), ExportOptions(**{"format": "mp4"} | options))


def test_what_would_be_too_large_says_what_fits():
    with pytest.raises(MotionError, match=r"193 % of the scene's size would fit"):
        film_of(rolling((4096, 2160)), ExportOptions(format="png", scale=4.0))


def table(one, **how):
    text = io.StringIO()
    write_csv(one, text, **how)
    return list(csv.reader(io.StringIO(text.getvalue())))


def test_the_table_has_moving_channels_at_full_precision():
    lines = table(from_data(EXAMPLE))
    assert lines[0] == ["frame", "Mango.x", "Mango.rotation"]
    assert len(lines) == 121
    baked = bake(from_data(EXAMPLE))
    assert [float(line[2]) for line in lines[1:]] == baked["Mango", "rotation"].tolist()


def test_sub_frames_world_and_colours():
    parent = shape("tree", x=100, rotation=channel((0, 350), (2, 370)))
    child = shape("leaf", parent="tree", x=10, fill=channel((0, "#FF0000"), (2, "#0000FF")))
    lines = table(scene(parent, child, length=3), every=0.5, world=True)
    assert lines[0] == [
        "frame",
        "Tree.rotation",
        "Tree.world.x",
        "Tree.world.y",
        "Tree.world.rotation",
        "Leaf.fill",
        "Leaf.world.x",
        "Leaf.world.y",
        "Leaf.world.rotation",
    ]
    assert [line[0] for line in lines[1:]] == ["0.0", "0.5", "1.0", "1.5", "2.0"]
    assert [float(line[6]) for line in lines[1:]] == pytest.approx([100 + 10 * np.cos(np.radians(a)) for a in (350, 355, 360, 365, 370)])
    assert np.diff([float(line[8]) for line in lines[1:]]) == pytest.approx([5] * 4), "never wrapped"
    assert lines[3][5] == "#8C53A2"


@pytest.mark.parametrize("every", [0, -1, float("nan"), 1e-9])
def test_steps_that_cannot_be(every):
    with pytest.raises(MotionError):
        table(from_data(EXAMPLE), every=every)
