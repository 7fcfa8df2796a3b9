"""Motion blur: what moves is smeared by how far it goes while the shutter is open, and no light is lost."""

import numpy as np
import pytest

from tests.motion.test_insets import dot, edited, inset, keyed, scene
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.scene.timeline import MotionBlur
from vine_swing.picture.blur import BlurredPainter, mean_of, moments, painter_of
from vine_swing.picture.paint import Painter


def linear(pixels):
    """sRGB codes to linear light, by IEC 61966-2-1."""
    codes = pixels[..., :3] / 255
    return np.where(codes <= 0.04045, codes / 12.92, ((codes + 0.055) / 1.055) ** 2.4)


def disc(speed, **blur):
    """A white disc of 40 px on black that goes this many px a frame."""
    moving = dot(x=keyed((0, 100), (10, 100 + 10 * speed)), y=60.0, width=40.0, height=40.0, fill="#FFFFFF")
    return scene(moving, size=[640, 120], background="#000000", length=11, **({"blur": blur} if blur else {}))


def wide(pixels):
    """How many px of the middle row are lit at all."""
    return int((pixels[60, :, 0] > 0).sum())


@pytest.mark.parametrize(("speed", "shutter"), [(24, 180), (40, 360), (12, 720)])
def test_a_disc_smears_as_far_as_it_goes_while_the_shutter_is_open(speed, shutter):
    sharp = Painter(bake(disc(speed))).frame(5)
    blurred = painter_of(bake(disc(speed, samples=64, shutter=float(shutter)))).frame(5)
    smear = speed * shutter / 360
    # The outermost of 64 moments lie half a moment within the ends.
    assert wide(blurred) - wide(sharp) == pytest.approx(smear * 63 / 64, abs=1.5)
    assert linear(blurred).sum() == pytest.approx(linear(sharp).sum(), rel=0.005)
    # Evenly: the middle of the smear is as bright as the share of time that something was there.
    assert linear(blurred)[60, 100 + 5 * speed, 0] == pytest.approx(min(1.0, 40 / smear), abs=0.02)


def test_fewer_moments_come_near_to_many():
    many = linear(painter_of(bake(disc(20, samples=64, shutter=180.0))).frame(5))
    few = linear(painter_of(bake(disc(20, samples=16, shutter=180.0))).frame(5))
    assert np.abs(many - few).mean() < 0.002


def test_the_moments_lie_evenly_around_the_frame():
    assert moments(7.0, MotionBlur(samples=4, shutter=180.0)).tolist() == [6.8125, 6.9375, 7.0625, 7.1875]


def test_what_rests_is_painted_as_without_blur():
    still = edited(disc(0), {"edit": "set-blur", "blur": {"samples": 8, "shutter": 180.0}})
    assert np.array_equal(painter_of(bake(still)).frame(3), Painter(bake(still)).frame(3))


def test_an_object_can_be_kept_sharp_with_all_that_hangs_on_it():
    one = disc(24, samples=16, shutter=360.0)
    sharp = edited(one, {"edit": "blur-object", "id": "eye", "blurred": False})
    assert np.array_equal(painter_of(bake(sharp)).frame(5), Painter(bake(sharp)).frame(5))
    assert not np.array_equal(painter_of(bake(one)).frame(5), Painter(bake(one)).frame(5))
    painter = painter_of(bake(sharp))
    assert isinstance(painter, BlurredPainter)
    # Also of frames that are baked together with others.
    assert np.array_equal(painter.frame(7), Painter(bake(sharp)).frame(7))


def test_what_is_inside_an_inset_is_blurred_in_its_own_time():
    inner = {
        "id": "in",
        "name": "In",
        "size": [640, 120],
        "length": 11,
        "objects": [disc(24).objects[0].model_dump(mode="json", exclude_defaults=True)],
    }
    outer = scene(inset("frog", "in", x=320.0, y=60.0), insets=[inner], size=[640, 120], background="#000000", length=11)
    blurred = edited(outer, {"edit": "set-blur", "blur": {"samples": 16, "shutter": 180.0}})
    alone = painter_of(bake(disc(24, samples=16, shutter=180.0))).frame(5).astype(int)
    assert np.abs(painter_of(bake(blurred)).frame(5).astype(int) - alone).max() <= 2


def test_see_through_pictures_keep_their_colour_at_blurred_edges():
    one = edited(disc(24), {"edit": "set-blur", "blur": {"samples": 16, "shutter": 360.0}})
    pixels = painter_of(bake(one), background=False).frame(5)
    part = (pixels[..., 3] > 20) & (pixels[..., 3] < 235)
    assert part.sum() > 100
    straight = pixels[part][:, :3] / pixels[part][:, 3:] * 255
    # White all over: not darkened by what is not there.
    assert straight.min() > 240


def test_light_is_averaged_and_not_its_codes():
    black, white = (np.full((1, 1, 4), (code, code, code, 255), np.uint8) for code in (0, 255))
    assert mean_of([black, white])[0, 0].tolist() == [188, 188, 188, 255]
