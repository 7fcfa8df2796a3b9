"""Pictures brought in: what is kept as it is, what is turned into pages, and what is refused."""

import io
import struct
import zlib

import numpy as np
import pytest
from PIL import Image, ImageCms

from tests.pictures import moving, numbered, png, saved
from vine_swing.cli import main
from vine_swing.formats.bring_in import MOST_PAGES, bring_in, reduced
from vine_swing.motion import MotionError


def opened(data):
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA"))


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
def test_a_plain_picture_is_kept_as_it_is(kind):
    data = saved(Image.new("RGB", (30, 20), (200, 10, 30)), kind)
    found = bring_in(data, "leaf")
    (page,) = found.pages
    assert (page.data, page.width, page.height, found.seconds) == (data, 30, 20, None)


def test_transparency_is_kept():
    (page,) = bring_in(saved(numbered(3), "PNG"), "leaf").pages
    np.testing.assert_array_equal(opened(page.data), np.asarray(numbered(3)))


def test_what_a_camera_turned_is_put_upright():
    exif = Image.Exif()
    exif[0x0112] = 6
    (page,) = bring_in(saved(Image.new("RGB", (30, 20)), "JPEG", exif=exif), "photo").pages
    assert (page.width, page.height) == (20, 30)


def test_a_colour_profile_is_respected():
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("LAB")).tobytes()
    plain = Image.new("RGB", (4, 4), (120, 60, 30))
    wide = saved(plain, "PNG", icc_profile=ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    np.testing.assert_allclose(opened(bring_in(wide, "photo").pages[0].data)[0, 0], [120, 60, 30, 255], atol=1)
    # One that does not fit the picture is none.
    odd = saved(plain, "PNG", icc_profile=profile)
    assert opened(bring_in(odd, "photo").pages[0].data)[0, 0, 3] == 255


@pytest.mark.parametrize("kind", ["GIF", "WEBP", "PNG"])
def test_moving_pictures_become_pages_with_their_pace(kind):
    found = bring_in(moving(kind, 5, 80), "wing")
    assert len(found.pages) == 5
    assert found.seconds == pytest.approx(0.08)
    for number, page in enumerate(found.pages):
        assert (opened(page.data)[0, :, 3] > 128).sum() == 4 * number + 4


def test_a_film_becomes_pages(tmp_path):
    (tmp_path / "s.json").write_text('{"format": "vine-swing-scene", "version": 1, "length": 6, "size": [64, 48], "objects": []}', encoding="utf-8")
    main(["export", str(tmp_path / "s.json"), str(tmp_path / "film.mp4")])
    found = bring_in((tmp_path / "film.mp4").read_bytes(), "film")
    assert len(found.pages) == 6
    assert (found.pages[0].width, found.pages[0].height) == (64, 48)
    assert found.seconds == pytest.approx(1 / 24)


def bomb(width, height):
    """A PNG that says it is very large and holds nothing."""
    head = struct.pack(">IIBBBBB", width, height, 8, 6, 0, 0, 0)

    def part(name, data):
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    return b"\x89PNG\r\n\x1a\n" + part(b"IHDR", head) + part(b"IDAT", zlib.compress(b"")) + part(b"IEND", b"")


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "no picture"),
        (b"nonsense", "no picture"),
        (b"%PDF-1.7 nothing", "no picture"),
        (png(size=(50, 50))[:60], "damaged"),
        (saved(Image.new("RGB", (400, 300), (1, 2, 3)), "JPEG")[:400], "damaged"),
        (bomb(100_000, 100_000), "pixels"),
        (bomb(9_000, 9_000), "million"),
        (b"\x00\x00\x00\x20ftypisom" + b"x" * 200, "damaged"),
    ],
)
def test_hostile_files_are_refused_in_plain_words(data, says):
    with pytest.raises(MotionError, match=says) as refused:
        bring_in(data, "leaf.png")
    assert "leaf.png" in str(refused.value)


def test_too_many_pages_are_refused():
    pages = [Image.new("L", (1, 1), n % 2 * 255) for n in range(MOST_PAGES + 1)]
    data = saved(pages[0], "GIF", save_all=True, append_images=pages[1:], duration=20)
    with pytest.raises(MotionError, match="pages"):
        bring_in(data, "long.gif")


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
def test_large_pictures_are_halved_as_often_as_leaves_them_wide_enough(kind):
    across = np.linspace(0, 255, 2200)[None, :, None].repeat(300, axis=0).repeat(3, axis=2).astype(np.uint8)
    data = saved(Image.fromarray(across), kind, **({"lossless": True} if kind == "WEBP" else {"quality": 95} if kind == "JPEG" else {}))
    small = np.asarray(Image.open(io.BytesIO(reduced(data, 512))).convert("RGB")).astype(int)
    assert small.shape == (75, 550, 3)
    # The mean of each sixteen pixels, up to what JPEG makes of it.
    means = across.reshape(75, 4, 550, 4, 3).mean(axis=(1, 3))
    assert np.abs(small - means).max() <= (4 if kind == "JPEG" else 1)
    assert reduced(data, 2048) is data


def test_see_through_pixels_do_not_bleed_into_the_edges_of_smaller_pictures():
    image = Image.new("RGBA", (1024, 8), (0, 0, 0, 0))
    image.paste((255, 0, 0, 255), (0, 0, 513, 8))
    small = np.asarray(Image.open(io.BytesIO(reduced(saved(image, "PNG"), 512))))
    assert small.shape[1] == 512
    assert small[0, 256].tolist() == [255, 0, 0, 128]
