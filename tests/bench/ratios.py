"""`make bench`: what the bars of the design cost here, as ratios to the least work that could do the same.

Each line gives the best of several runs, and its ratio to a plain NumPy pass over the same number of samples (or to the
encoder alone, for films). Times depend on the machine; ratios much less.
"""

import gc
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import av
import numpy as np
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from vine_swing.cli import COLLECTING
from vine_swing.formats import film_of
from vine_swing.formats.engine.pool import Pool
from vine_swing.formats.mp4 import write_mp4
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.edits.keys import SetKey
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import dump, load, parse
from vine_swing.store import SceneStore

FRAMES = 240
KEYED = ("x", "y", "rotation", "scale.x", "scale.y", "skew", "opacity", "stretch")
HEAVIEST = Path(__file__).resolve().parents[2] / "demo" / "scenes" / "12-morning-round.json"


def best(work: Callable[[], object], rounds: int = 5) -> float:
    """The shortest of several runs, in seconds."""
    times = []
    for _ in range(rounds):
        begun = time.perf_counter()
        work()
        times.append(time.perf_counter() - begun)
    return min(times)


def crowd(objects: int) -> Scene:
    """Objects with eight keyed channels of eight keys each; a third of them also swing, tremble and spring,
    and a tenth turn as their neighbour does, by a link."""
    rng = np.random.default_rng(1)
    eases = ["linear", "slow-out-in", "snap", {"bezier": [0.3, 0.1, 0.2, 1]}]
    keyed = {
        name.replace(".", "_"): channel(
            *((f, round(float(v), 3), eases[i % 4]) for i, (f, v) in enumerate(zip(range(0, FRAMES, 30), rng.uniform(0.2, 1, 8), strict=True))),
            after="loop",
        )
        for name in KEYED
    }
    swing = {"id": "o", "kind": "oscillator", "channels": ["x", "y"], "settings": {"amplitude": 5, "frequency": 1.5}}
    rules = [
        swing,
        {"id": "n", "kind": "noise", "channels": ["x", "y"], "settings": {"amplitude": 3}},
        {"id": "s", "kind": "spring", "channels": ["x", "y"], "settings": {"frequency": 3}},
    ]

    def of(n: int) -> list[dict[str, object]]:
        linked = [_link(f"value + {{O{n - 1}.rotation}} * 0.5")] if n % 10 == 5 else []
        return [*(rules if n % 3 == 0 else []), *linked]

    return scene(*(shape(f"o{n}", rules=of(n), **keyed) for n in range(objects)), length=FRAMES)


def _link(formula: str) -> dict[str, object]:
    return {"id": "l", "kind": "link", "channels": ["rotation"], "mode": "replace", "settings": {"formula": formula}}


def chain(links: int, *, linked: bool) -> Scene:
    """Objects whose rotations follow one another by links, or are still."""
    things = [shape(f"o{n}", rules=[_link(f"{{O{n - 1}.rotation}} + 1")] if linked else []) for n in range(1, links + 1)]
    return scene(shape("o0", rotation=channel((0, 0), (FRAMES, 360))), *things, length=FRAMES)


def _walker(n: int) -> dict[str, object]:
    """A figure on two legs that walks across the picture."""
    x = channel((0, 100, "slow-out-in"), (200, 1100 + n)).model_dump(by_alias=True)
    figure = STARTERS["two-legs"].figure
    gait = {"id": "g", "kind": "gait", "settings": GAITS["stroll"].for_figure(figure)}
    data = {"id": f"w{n}", "name": f"Walker {n}", "kind": "figure", "figure": figure.model_dump(mode="json")}
    return data | {"channels": {"x": x, "y": 10.0 * n}, "rules": [gait]}


def _follow(leader: str, given: dict[str, float]) -> dict[str, object]:
    return {"id": "f", "kind": "follow", "channels": ["x"], "settings": {"leader": leader, "delay": 2.0, **given}}


#: Cards that read many frames of the card before them, in a row.
CARDS = ("smooth", "spring", "smooth", "spring", "smooth", "retime", "spring", "smooth")
#: Rules that look at where their object goes or at its keys, with what they act on.
LOOKING = {
    "oscillator": ["x"],
    "roll": ["rotation"],
    "pendulum": ["rotation"],
    "face": ["rotation"],
    "squash-stretch": ["stretch", "stretch.angle"],
    "smooth": ["x"],
    "arc": ["x", "y"],
    "wind-up": ["x"],
    "overshoot": ["x"],
    "bounce": ["y"],
    "retime": ["x"],
    "steps": ["x"],
    "spring": ["x"],
}


def alike(objects: int, rules: list[dict[str, object]]) -> Scene:
    """Objects that travel and turn by keys, all with the same rules."""
    things = [
        shape(
            f"o{n}",
            x=channel((0, n, "slow-out-in"), (100, 500 + n), (200, 3)),
            y=channel((0, n), (100, 200), (200, 30)),
            rotation=channel((0, 0), (240, n)),
            rules=rules,
        )
        for n in range(objects)
    ]
    return scene(*things, length=FRAMES)


def own_eases(objects: int) -> Scene:
    """Objects of which every stretch has a Bezier curve of its own."""
    rng = np.random.default_rng(4)

    def curve() -> dict[str, list[float]]:
        return {"bezier": [round(float(v), 6) for v in rng.uniform(0, 1, 4)]}

    keyed = {name: [(f, float(rng.uniform(0, 9)), curve()) for f in range(0, FRAMES, 30)] for name in KEYED}
    return scene(*(shape(f"o{n}", **{name: channel(*((f, v, curve()) for f, v, _ in keys)) for name, keys in keyed.items()}) for n in range(objects)))


def one_channel(keys: int) -> Scene:
    """One object with this many keys on one channel."""
    return scene(shape("a", x=channel(*((n * FRAMES / keys, n % 7, "slow-out-in") for n in range(keys)))), length=FRAMES)


def looks_back(links: int) -> Scene:
    """Links that each read the one before at two earlier frames."""
    formula = "0.5 * {{O{n}.rotation @ -1f}} + 0.5 * {{O{n}.rotation @ -2f}}"
    return scene(
        shape("o0", rotation=channel((0, 0), (FRAMES, 360))),
        *(shape(f"o{n + 1}", rules=[_link(formula.format(n=n))]) for n in range(links)),
        length=FRAMES,
    )


def plain_pass(samples: int) -> float:
    """One multiply-add over as many samples: the least any bake could do."""
    values = np.random.default_rng(2).random(samples)
    return best(lambda: values * 1.5 + 0.5)


def line(what: str, seconds: float, against: float, unit: str) -> None:
    print(f"{what:<62} {seconds * 1000:9.1f} ms   {seconds / against:8.1f} × {unit}")


def main() -> None:
    for objects in (100, 1000):
        one = crowd(objects)
        least = plain_pass(objects * len(KEYED) * FRAMES)
        line(f"bake, {objects} objects × 8 keyed channels × {FRAMES} frames", best(lambda one=one: bake(one), 3), least, "NumPy pass")
        baked = bake(one)
        edit = SetKey(edit="set-key", object="o7", channel="x", frame=33.0, value=2.0)
        line(
            f"edit of one key there, {objects} objects",
            best(lambda one=one, baked=baked, edit=edit: bake(edit.apply(one), previous=baked)),
            plain_pass(FRAMES),
            "NumPy pass",
        )

    for what, given in (("", {}), (" on springs", {"spring": 3.0})):
        links = [shape(f"l{n}", rules=[_follow(f"l{n - 1}", given)]) for n in range(1, 31)]
        tail = scene(*links, shape("l0", x=channel((0, 0, "slow-out-in"), (60, 300), (180, 0))), length=FRAMES)
        line(f"a chain of 30 followers{what}, {FRAMES} frames", best(lambda tail=tail: bake(tail)), plain_pass(30 * FRAMES), "NumPy pass")

    alone, linked = chain(500, linked=False), chain(500, linked=True)
    line(f"a chain of 500 links, {FRAMES} frames", best(lambda: bake(linked), 9), best(lambda: bake(alone), 9), "bake without links")

    crew = scene(*(_walker(n) for n in range(50)), length=FRAMES)
    line(f"50 figures that walk, {FRAMES} frames", best(lambda: bake(crew), 7), plain_pass(50 * 31 * FRAMES), "NumPy pass")

    few, many = alike(200, _cards(3)), alike(200, _cards(8))
    line("200 objects with 8 rules that read far", best(lambda: bake(many), 7), best(lambda: bake(few), 7), "the same with 3")
    back = looks_back(400)
    line(f"400 links with two looks back each, {FRAMES} frames", best(lambda: bake(back), 2), plain_pass(400 * FRAMES), "NumPy pass")
    ten, eighty = own_eases(10), own_eases(80)
    line("80 objects, every stretch an ease of its own", best(lambda: bake(eighty)), best(lambda: bake(ten)), "10 such objects")
    short, long = one_channel(50), one_channel(2000)
    line("a channel of 2,000 keys", best(lambda: bake(long)), best(lambda: bake(short)), "one of 50")

    print("\nwhat a rule adds, in ns a sample, on 200 objects")
    without = alike(200, [])
    plain = best(lambda: bake(without))
    for kind, channels in LOOKING.items():
        ruled = alike(200, [{"id": "r", "kind": kind, "channels": channels}])
        print(f"  {kind:<18} {(best(lambda ruled=ruled: bake(ruled), 3) - plain) / (200 * FRAMES * len(channels)) * 1e9:8.0f}")
    print()
    for what, before, edits in many_edits():
        line(what, best(lambda before=before, edits=edits: apply_all(before, edits), 1), 1.0, "a second (bar 3)")
    large = large_file()
    gc.set_threshold(*COLLECTING)
    with tempfile.TemporaryDirectory() as folder:
        store = SceneStore(Path(folder) / "kept.db")
        line(f"a scene file of {len(large) / 1e6:.0f} MB, read, baked and kept", best(lambda: taken_in(large, store), 2), 1.0, "a second (bar 3)")
        store.close()

    with tempfile.TemporaryDirectory() as folder:
        heavy = film_of(load(HEAVIEST), ExportOptions(format="mp4", scale=1.5, last=119), Pool())
        pictures = [pixels.copy() for pixels in heavy.pictures()]
        alone = best(lambda: encode(pictures, Path(folder) / "alone.mp4"), 2)
        whole = best(lambda: write_mp4(heavy, Path(folder) / "film.mp4"), 2)
        line("1080p MP4 of 120 frames of the heaviest demo, painted and encoded", whole, alone, "encoder alone (bar 1.2)")


def _cards(count: int) -> list[dict[str, object]]:
    return [{"id": f"r{n}", "kind": kind, "channels": ["x"]} for n, kind in enumerate(CARDS[:count])]


def many_edits() -> list[tuple[str, Scene, list[Any]]]:
    """Edits of many objects at once: what they are called, the scene, and the edits."""
    edits = TypeAdapter(list[AnyEdit])
    crowd_of_500 = scene(*(shape(f"o{n}", x=n) for n in range(500)))
    figure = {"id": "fig", "name": "Fig", "kind": "figure", "figure": STARTERS["two-legs"].figure.model_dump(mode="json")}
    figure["rules"] = [{"id": "g", "kind": "gait", "settings": GAITS["stroll"].for_figure(STARTERS["two-legs"].figure)}]  # type: ignore[assignment]
    with_figure = scene(figure, *(shape(f"o{n}", x=n) for n in range(500)))
    long = scene(shape("a", x=channel(*((float(n), n % 9) for n in range(15_000)))), length=20_000)
    return [
        ("5,000 objects added", scene(), edits.validate_python([{"edit": "add-object", "object": shape(f"o{n}", x=n)} for n in range(5000)])),
        (
            "100 pivots moved among 500 objects",
            crowd_of_500,
            edits.validate_python([{"edit": "move-pivot", "id": f"o{n}", "frame": 0, "x": 5, "y": 5} for n in range(100)]),
        ),
        (
            "500 parts hung on bones",
            with_figure,
            edits.validate_python([{"edit": "hang-on-bones", "figure": "fig", "parts": {f"o{n}": "hips" for n in range(500)}}]),
        ),
        (
            "5,000 keys set on a channel of 15,000 more",
            long,
            edits.validate_python([{"edit": "set-key", "object": "a", "channel": "x", "frame": n + 0.5, "value": 1} for n in range(5000)]),
        ),
    ]


def large_file() -> str:
    """A scene file of 256,000 keys."""
    keyed = channel(*((2.0 * n, round(100 + 1.37 * n, 3), "slow-out-in") for n in range(320)))
    return dump(scene(*(shape(f"o{n}", x=keyed, y=keyed) for n in range(400)), length=640), indent=None)


def taken_in(text: str, store: SceneStore) -> None:
    """Read a scene file, compute its motion and keep it."""
    one = parse(text)
    bake(one)
    store.create(one)


def encode(pictures: list[np.ndarray], path: Path) -> None:
    """The encoder alone, with the settings exports use."""
    with av.open(str(path), "w") as file:
        stream = file.add_stream("libx264", rate=24, options={"crf": "16", "preset": "medium"})
        stream.width, stream.height, stream.pix_fmt = 1920, 1080, "yuv420p"
        for pixels in pictures:
            file.mux(stream.encode(av.VideoFrame.from_ndarray(pixels, format="rgba").reformat(format="yuv420p")))
        file.mux(stream.encode(None))


if __name__ == "__main__":
    main()
