"""Exports and tables, read back."""

import csv
import io
import zipfile
from functools import partial

import av
import numpy as np
import pytest
from PIL import Image

from tests.motion.scenes import EXAMPLE, channel, scene, shape
from vine_swing.formats.apng import APNG
from vine_swing.formats.export import Cancelled
from vine_swing.formats.film import write_film
from vine_swing.formats.flipbook import write_flipbook
from vine_swing.formats.gif import write_gif
from vine_swing.formats.mp4 import write_mp4
from vine_swing.formats.straight import straight
from vine_swing.formats.table import write_csv
from vine_swing.formats.webm import WEBM
from vine_swing.formats.webp import WEBP
from vine_swing.motion import MotionError, bake
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


@pytest.mark.parametrize("write", [write_mp4, write_gif])
@pytest.mark.parametrize(("size", "fps"), [((96, 54), 24), ((63, 41), 12.5), ((64, 64), 29.97)])
def test_films_have_their_size_pace_and_every_frame(tmp_path, write, size, fps):
    baked = bake(rolling(size, fps))
    path = tmp_path / "film"
    told = []
    write(baked, path, progress=lambda done: told.append(done) or True)
    assert told == list(range(1, 13))
    with av.open(str(path)) as film:
        stream = film.streams.video[0]
        frames = list(film.decode(stream))
        seconds = [float(frame.pts * frame.time_base) for frame in frames]
    assert (stream.width, stream.height) == size
    assert len(frames) == 12
    np.testing.assert_allclose(seconds, np.arange(12) / fps, atol=0.006)
    painter = Painter(baked)
    for n in (0, 6, 11):
        got = frames[n].to_ndarray(format="rgb24").astype(int)
        assert np.abs(got - painter.frame(n)[..., :3]).mean() < 4, f"frame {n} shows what was painted"


SEE_THROUGH = [(WEBM, 6), (APNG, 1), (WEBP, 6)]


@pytest.mark.parametrize(("film", "off"), SEE_THROUGH, ids=["webm", "apng", "webp"])
@pytest.mark.parametrize(("size", "fps", "background"), [((96, 54), 24, "#CFE6D8"), ((64, 48), 12.5, "#00000000"), ((80, 60), 30, "#CFE6D880")])
def test_films_that_can_be_seen_through(tmp_path, film, off, size, fps, background):
    """Size, frames, pace and every pixel's alpha, read back by FFmpeg; colours where there are any."""
    baked = bake(rolling(size, fps).but(background=background))
    path, told = tmp_path / f"film.{film.container}", []
    write_film(film, baked, path, progress=lambda done: told.append(done) or True)
    assert told == list(range(1, 13))
    pictures, seconds = decoded(path)
    assert len(pictures) == 12
    np.testing.assert_allclose(np.diff(seconds), 1 / fps, atol=0.006)
    painter = Painter(baked)
    for n in (0, 6, 11):
        wanted, got = straight(painter.frame(n)).astype(int), pictures[n].astype(int)
        assert got.shape == wanted.shape
        assert np.abs(got[..., 3] - wanted[..., 3]).mean() < off, "alpha"
        seen = wanted[..., 3] > 200
        if seen.any():
            assert np.abs(got - wanted)[seen][:, :3].mean() < off + 3, "colours"


def decoded(path):
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
        assert film.info.get("loop", 0) == 0
    return pictures, seconds


def test_a_flipbook_has_every_picture_see_through_and_the_same_twice(tmp_path):
    one = bake(rolling((96, 54)))
    for name in ("a", "b"):
        write_flipbook(one, tmp_path / name)
    assert (tmp_path / "a").read_bytes() == (tmp_path / "b").read_bytes()
    with zipfile.ZipFile(tmp_path / "a") as book:
        pictures = [np.asarray(Image.open(io.BytesIO(book.read(name)))).astype(int) for name in book.namelist()]
    assert len(pictures) == 12
    painter = Painter(one, background=False)
    for n, got in enumerate(pictures):
        painted = painter.frame(n).astype(int)
        np.testing.assert_array_equal(got[..., 3], painted[..., 3])
        assert np.abs(got[..., :3] * got[..., 3:] / 255 - painted[..., :3]).max() <= 1
    assert pictures[0][27, 10].tolist() == [0xD0, 0x36, 0x5B, 255]
    assert pictures[0][27, 80, 3] == 0


@pytest.mark.parametrize(
    "write", [write_mp4, write_gif, write_flipbook, partial(write_film, WEBM), partial(write_film, APNG), partial(write_film, WEBP)]
)
def test_stopping_stops_at_once(tmp_path, write):
    told = []
    with pytest.raises(Cancelled):
        write(bake(rolling((64, 36), length=500)), tmp_path / "film", progress=lambda done: told.append(done) or done < 3)
    assert told == [1, 2, 3]


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
