"""What looks cost: playing many of them in the page, and exporting blurred frames. Run with `python -m tests.bench.looks` after the page is built."""

import tempfile
import time
from pathlib import Path
from typing import Any

from demo.make import SCENES
from tests.bench.browser import page_and_server
from tests.bench.page import playing
from tests.journeys.scenes import opened
from vine_swing.formats import film_of
from vine_swing.formats.engine.pool import Pool
from vine_swing.formats.mp4 import write_mp4
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import load

#: Frames that are exported to tell what one costs.
FRAMES = range(12)


def to_and_fro(start: float) -> dict[str, Any]:
    """A channel that goes from a value to another and back, forever."""
    return {"keys": [{"frame": 0, "value": start, "ease": "slow-out-in"}, {"frame": 24, "value": start + 60}], "after": {"mode": "ping-pong"}}


def looks() -> list[dict[str, Any]]:
    """60 stars with shadows, and ten objects that are masked by what moves."""
    found: list[dict[str, Any]] = []

    def add(name: str, kind: str, rules: list[dict[str, Any]], *, shown: bool = True, **channels: Any) -> None:
        shape = {"kind": "shape", "shape": {"type": kind}, "shown": shown}
        found.append({"id": name, "name": name, **shape, "channels": {c.replace("_", "."): v for c, v in channels.items()}, "rules": rules})

    for n in range(60):
        shadow = {"id": "s", "kind": "shadow", "settings": {}}
        x, y = to_and_fro(60 + n % 10 * 115), 70 + n // 10 * 110
        add(f"star{n}", "star", [shadow], x=x, y=y, width=80, height=80, rotation=to_and_fro(0), stroke_width=4)
    for n in range(10):
        add(f"hole{n}", "ellipse", [], shown=False, x=to_and_fro(100 + n * 110), y=360, width=120, height=160)
        mask = {"id": "k", "kind": "mask", "settings": {"by": f"hole{n}", "feather": 6}}
        add(f"masked{n}", "rectangle", [mask], x=100 + n * 115, y=360, width=140, height=140, fill="#2F6B8F")
    return found


def blurred_share(folder: Path) -> float:
    """What exporting a blurred frame at 1080p costs, to as many frames without blur as it has samples."""
    scene = load(SCENES / "22-bamboo-chimes.json")
    assert scene.blur is not None
    seconds = []
    for one in (scene, scene.copy_with(blur=None)):
        film = film_of(one.copy_with(length=len(FRAMES)), ExportOptions(format="mp4", scale=1.5), Pool())
        begun = time.perf_counter()
        write_mp4(film, folder / "chimes.mp4")
        seconds.append(time.perf_counter() - begun)
    return seconds[0] / (seconds[1] * scene.blur.samples)


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        print(f"a blurred 1080p frame exported, to its samples times one that is not: {blurred_share(Path(folder)):.2f}")
    with page_and_server() as (page, server):
        pictures, slow = playing(opened(page, server.address, objects=looks()))
        print(f"60 shadows and ten masks: {pictures:.0f} pictures/s, 95 of 100 within {slow:.0f} ms")


if __name__ == "__main__":
    main()
