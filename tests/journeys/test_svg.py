"""Exported SVG and HTML in Chromium: what they show at any moment is what was baked and what Skia paints."""

import numpy as np
import pytest

from demo.make import SCENES
from tests.journeys.shots import pixels_of
from tests.picture.looks import LOOKS, alone, looked, pairs
from vine_swing.formats import EXPORTS, film_of
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import bake, load
from vine_swing.picture.paint import Painter

#: Pixels that may differ by more than a tenth of full: edges are smoothed in other ways.
MOST_FAR = 0.02
SEEK = """async (seconds) => {
  const drawn = () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
  await drawn();
  for (const svg of document.querySelectorAll("svg")) if (!svg.ownerSVGElement) { svg.pauseAnimations(); svg.setCurrentTime(seconds); }
  for (const one of document.getAnimations()) { one.pause(); one.currentTime = 1000 * seconds; }
  await drawn();
}"""
#: Of everything drawn, by object: where the origin and the unit points of its space are in the picture.
PLACES = """() => [...document.querySelectorAll("path[data-object], g[data-object]")].map((one) => {
  const m = one.getCTM();
  return [one.dataset.object, [m.a, m.b, m.c, m.d, m.e, m.f]];
})"""


@pytest.fixture
def page(browser):
    """A page that lets animations take their time, unlike that of other journeys."""
    one = browser.new_page()
    yield one
    one.close()


def opened(page, path, kind, scene, **options):
    """Write a scene and open the file."""
    film = film_of(scene, ExportOptions(format=kind, **options))
    told = EXPORTS[kind].write(film, path)
    page.set_viewport_size({"width": scene.size[0], "height": scene.size[1]})
    page.goto(f"file://{path}")
    return told


def pictured(page, scene):
    return pixels_of(page, scene.size)


@pytest.mark.parametrize(
    ("name", "kind"),
    [
        *((name, "svg") for name in ("01-thrown-mango", "09-sorting-mill", "17-flag-and-kettle", "20-mist-over-the-gorge", "22-bamboo-chimes")),
        # Both are written by the same hands: what differs is how they move.
        *((name, "html") for name in ("01-thrown-mango", "09-sorting-mill", "14-hypnotic-hibiscus")),
    ],
)
def test_a_moving_file_shows_what_was_painted_and_baked(page, tmp_path, name, kind):
    scene = load(SCENES / f"{name}.json").copy_with(blur=None)
    opened(page, tmp_path / f"it.{kind}", kind, scene)
    baked = bake(scene)
    painter = Painter(baked)
    # Those in copies are seen in the picture alone.
    alone = baked.objects.keys() - baked.plan.below(set(baked.parades))
    for n, frame in enumerate(np.linspace(0, scene.length - 1, 10).astype(int)):
        page.evaluate(SEEK, (frame + 1e-3) / scene.fps)
        for owner, there in page.evaluate(PLACES):
            if owner in alone:
                _near(baked, owner, frame, there)
        if n % 3 == 0:
            far = np.abs(pictured(page, scene) - painter.frame(frame)[..., :3]).max(axis=2) > 25
            assert far.mean() < MOST_FAR, f"frame {frame}: {100 * far.mean():.2f} % of pixels differ"


def _near(baked, owner, frame, there):
    one = baked.objects[owner]
    view = one.view[min(frame, len(one.view) - 1)]
    a, b, c, d, e, f = there
    assert np.hypot(e - view[4], f - view[5]) < 0.25, f"{owner} at frame {frame}"
    size = max(one.channels[name].max() if name in one.channels else 0 for name in ("width", "height")) / 2
    for x, y in ((size, 0), (0, size)):
        gap = np.hypot(a * x + c * y + e - (view[0] * x + view[2] * y + view[4]), b * x + d * y + f - (view[1] * x + view[3] * y + view[5]))
        assert gap < 0.25, f"a point of {owner} at frame {frame} is {gap:.2f} px off"


def test_every_look_alone_and_in_pairs_is_a_filter_or_a_mask(page, tmp_path):
    scenes = {"+".join(names): looked(*names) for names in [*((name,) for name in LOOKS), *list(pairs())[::12]]}
    scenes |= {f"{name} through a camera": alone(name, zoomed=True) for name in LOOKS}
    wrong = []
    for name, scene in scenes.items():
        told = opened(page, tmp_path / "look.svg", "still", scene)
        off = np.abs(pictured(page, scene) - Painter(bake(scene)).frame(0)[..., :3])
        far = (off.max(axis=2) > 25).mean()
        # Only one look has no exact likeness, and says so.
        assert ("fringe-outward" in name) == any("outward" in one for one in told)
        if far > (0.1 if "fringe-outward" in name else MOST_FAR):
            wrong.append(f"{name}: {100 * far:.2f} % of pixels")
    assert not wrong, "\n".join(wrong)
