"""The browser's own engines as a second opinion: on eases, and on what a painted frame looks like."""

import base64
import io
import re

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import expect
from pydantic import TypeAdapter

from demo.make import SCENES
from tests.journeys.workspace import Workspace
from tests.picture.test_agreement_sees import differ
from vine_swing.motion import bake, load
from vine_swing.motion.timing.ease import FEELS, BezierEase, Ease, PointsEase, build
from vine_swing.picture.paint import Painter

ADAPTER: TypeAdapter[Ease] = TypeAdapter(Ease)
BEZIERS = [[0.42, 0, 0.58, 1], [0, 0, 1, 1], [1, 0, 0, 1], [0, 1, 1, 0], [0.3, -1.5, 0.7, 2.5], [0, 0, 0, 1], [0.99, 0.01, 0.01, 0.99]]
POINTS = [[[0, 0], [0.25, 0.75], [0.5, 0.5], [0.5, 0.9], [1, 1]], [[0, 0.2], [1, 0.8]], [[0.25, 0], [0.75, 1]]]
PROGRESS = """([easing, us]) => {
  const animation = document.body.animate([{ opacity: 0 }, { opacity: 1 }], { duration: 1000, easing, fill: 'both' });
  animation.pause();
  return us.map((u) => { animation.currentTime = u * 1000; return animation.effect.getComputedTiming().progress; });
}"""


def css(ease):
    match ease:
        case BezierEase(bezier=b):
            return f"cubic-bezier({', '.join(map(str, b))})"
        case PointsEase(points=points):
            return f"linear({', '.join(f'{p} {u * 100}%' for u, p in points)})"


CASES = [{"bezier": b} for b in BEZIERS] + [{"points": p} for p in POINTS]
CASES += [feel.ease.model_dump() for feel in FEELS.values() if isinstance(feel.ease, BezierEase)]


def test_eases_are_those_of_the_browser(page):
    page.goto("about:blank")
    u = np.linspace(0, 0.9995, 200)
    for written in CASES:
        ease = ADAPTER.validate_python(written)
        theirs = page.evaluate(PROGRESS, [css(ease), u.tolist()])
        np.testing.assert_allclose(build(ease).at(u), theirs, atol=1e-4, err_msg=str(written))


def test_colours_blend_as_in_the_browser(page):
    from vine_swing.motion.basics import colour

    page.goto("about:blank")
    mix = """([a, b, share]) => {
      const probe = document.createElement('div');
      document.body.append(probe);
      probe.style.color = `color(from color-mix(in oklab, ${b} ${share * 100}%, ${a}) srgb r g b / alpha)`;
      return getComputedStyle(probe).color.match(/[-\\d.e]+/g).map(Number);
    }"""
    for a, b in (("#FF0000", "#0000FF"), ("#F2932B", "#2F6B4F40"), ("#00000000", "#D0365B"), ("#FFFFFF80", "#102030C0")):
        for share in (0.1, 0.5, 0.8):
            ours = colour.from_oklab((1 - share) * colour.to_oklab(colour.parse_hex(a)) + share * colour.to_oklab(colour.parse_hex(b)))
            theirs = page.evaluate(mix, [a, b, share])
            np.testing.assert_allclose(ours, [*np.clip(theirs[:3], 0, 1), *(theirs[3:] or [1])], atol=2e-3)


@pytest.mark.parametrize("name", [path.stem for path in sorted(SCENES.glob("*.json"))])
def test_page_and_export_paint_the_same_frame(page, server, name):
    scene = load(SCENES / f"{name}.json")
    page.set_viewport_size({"width": 1280 + 700, "height": 720 + 520})
    page.goto(server.address)
    page.get_by_label("Scene file").set_input_files(SCENES / f"{name}.json")
    page.wait_for_url("**/scenes/*")
    w = Workspace(page, server.address)
    page.get_by_role("button", name=re.compile(r"^Zoom \d")).click()
    page.get_by_role("menuitem", name="100 %").click()
    expect(page.get_by_role("button", name=re.compile(r"^Zoom \d"))).to_have_text("100 %")
    painter = Painter(bake(scene))
    for frame in (0, 17, scene.length - 1):
        w.go_to(str(frame))
        data = page.get_by_test_id("picture-canvas").evaluate("(c) => c.toDataURL('image/png')")
        theirs = np.asarray(Image.open(io.BytesIO(base64.b64decode(data.split(",")[1]))).convert("RGB")).astype(int)
        ours = painter.frame(frame)[..., :3].astype(int)
        assert theirs.shape == ours.shape
        far = np.sort(np.abs(theirs - ours).max(axis=2), axis=None)[::-1]
        assert not differ(theirs, ours), f"frame {frame}: pixels differ by up to {far[:5].tolist()} … of 255"
