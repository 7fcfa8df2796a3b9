"""What a farm of machines gives: pictures a second for 1 to 100 workers, simulated from what painting, sending and encoding cost here.

Run with `python -m tests.bench.farm`. Every cost is measured on this machine: painting and packing by the very task that workers run, the
way of a task through scheduler and sockets by such a cluster, unpacking and encoding by the very writer of MP4 files. Only the speed of the network
between the machines is assumed, and said. At the end the simulation is held against a real cluster of one and two workers.
"""

import heapq
import tempfile
import time
import zlib
from collections import deque
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

import numpy as np

from tests.bench.ratios import HEAVIEST, encode
from vine_swing.formats import film_of
from vine_swing.formats.engine.farm import AHEAD, AT_ONCE, Farm, paint
from vine_swing.formats.engine.thread import ThreadEngine
from vine_swing.formats.film import Film
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import load
from vine_swing.motion.scene.scene_file import dump

#: Pictures that are painted to tell what one costs, and that a simulated film has.
MEASURED, LENGTH = 24, 2400
WORKERS = (1, 2, 4, 8, 16, 32, 64, 100)
#: Networks that are assumed, bytes a second.
NETWORKS = {"1 Gbit/s": 125e6, "10 Gbit/s": 1.25e9}


@dataclass(frozen=True)
class Costs:
    """Seconds a picture takes to be painted and packed by a worker, and to be unpacked and encoded by whoever takes it; the bytes of a packed one.

    task: seconds that a task takes on its way besides painting and sending. scene: bytes that every worker is sent once. ready: seconds until a
    worker has read the scene and baked it.
    """

    paint: float
    encode: float
    packed: float
    task: float
    scene: float
    ready: float


def simulated(workers: int, costs: Costs, network: float, *, length: int = LENGTH) -> float:
    """Pictures a second that a farm gives, from the beginning to the last one encoded.

    Tasks are handed out as `Farm` does: this many ahead of the encoder for each worker, accepted order. The way to the encoder is one line on which one
    answer is sent after the other; the encoder works on one picture after the other.
    """
    sent = costs.scene * workers / network
    free = [sent + costs.ready] * workers
    heapq.heapify(free)
    ahead: deque[tuple[float, int]] = deque()
    line = handed = encoded = 0.0
    left = length
    while left or ahead:
        while left and len(ahead) < AHEAD * workers:
            count = min(AT_ONCE, left)
            left -= count
            begun = max(heapq.heappop(free), handed + costs.task)
            done = begun + count * costs.paint
            heapq.heappush(free, done)
            ahead.append((done, count))
        done, count = ahead.popleft()
        # Answers are sent as they are asked for, in order.
        line = max(line, done) + count * costs.packed / network
        handed = max(line, encoded)
        encoded = handed + count * costs.encode
    return length / encoded


def measured(film: Film, folder: Path) -> Costs:
    """What it costs here."""
    scene = dump(film.scene, indent=None).encode()
    given = (scene, film.frames.tobytes(), film.options.scale, True)
    begun = time.perf_counter()
    paint(film.scene.name, *given, [0])
    ready = time.perf_counter() - begun
    rows = [list(range(at, at + AT_ONCE)) for at in range(0, MEASURED, AT_ONCE)]
    begun = time.perf_counter()
    packed = [paint(film.scene.name, *given, part) for part in rows]
    painted = (time.perf_counter() - begun) / MEASURED
    begun = time.perf_counter()
    width, height = film.size
    pictures = [picture for one in packed for picture in np.frombuffer(zlib.decompress(one), np.uint8).reshape(-1, height, width, 4)]
    unpacked = time.perf_counter() - begun
    begun = time.perf_counter()
    encode(pictures, folder / "alone.mp4")
    encoding = time.perf_counter() - begun
    size = sum(len(one) for one in packed) / MEASURED
    return Costs(painted, (unpacked + encoding) / MEASURED, size, _way(), len(scene), ready)


def _way() -> float:
    """Seconds of a task that does nothing, through the scheduler and the sockets of a real cluster of one worker."""
    from distributed import Client, LocalCluster

    with LocalCluster(n_workers=1, threads_per_worker=1, processes=True, dashboard_address=None) as cluster, Client(cluster) as client:
        client.submit(int, 0).result()
        begun = time.perf_counter()
        for number in range(100):
            client.submit(int, number, pure=False).result()
        return (time.perf_counter() - begun) / 100


def really(film: Film, workers: int) -> float:
    """Pictures a second that a real cluster of this machine paints and packs, taken but not encoded: the encoder would want its cores."""
    from distributed import LocalCluster

    with LocalCluster(n_workers=workers, threads_per_worker=1, processes=True, dashboard_address=None) as cluster:
        farm = Farm(cluster.scheduler_address)
        # The first film is not counted: workers still import what paints.
        _taken(film.part(slice(0, AT_ONCE * workers)), farm)
        begun = time.perf_counter()
        count = _taken(film, farm)
        seconds = time.perf_counter() - begun
        farm.close()
    return count / seconds


def _taken(film: Film, farm: Farm) -> int:
    return sum(1 for _ in Film(film.scene, film.options, film.frames, film.size, farm).pictures())


def told(path: Path, *, compared: bool = False, **options: Any) -> None:
    """Print what a scene costs and gives, compared with a real cluster if wanted."""
    film = film_of(load(path), ExportOptions.model_validate({"format": "mp4", "scale": 1.5, "last": 47, **options}), ThreadEngine())
    with tempfile.TemporaryDirectory() as folder:
        costs = measured(film, Path(folder))
    print(f"'{film.scene.name}' at {film.size[0]} × {film.size[1]} px, a picture:")
    print(f"  painted and packed by one worker {1e3 * costs.paint:.0f} ms; packed {costs.packed / 1e3:.0f} kB")
    print(f"  unpacked and encoded {1e3 * costs.encode:.0f} ms; a task's way {1e3 * costs.task:.1f} ms")
    print(f"  the scene {costs.scene / 1e3:.0f} kB, once a worker; read and baked in {costs.ready:.1f} s\n")
    print("pictures a second   " + "".join(f"{workers:>7}" for workers in WORKERS) + "   workers")
    light = replace(costs, encode=0.0)
    for name, network in NETWORKS.items():
        print(f"{name}, MP4".ljust(20) + "".join(f"{simulated(one, costs, network):7.1f}" for one in WORKERS))
        print(f"{name}, painting".ljust(20) + "".join(f"{simulated(one, light, network):7.1f}" for one in WORKERS))
    for workers in (1, 2) if compared else ():
        said = simulated(workers, light, NETWORKS["10 Gbit/s"], length=len(film.frames))
        print(f"{workers} worker(s) of this machine, painting: {really(film, workers):.1f} a second, simulated {said:.1f}")
    print()


def main() -> None:
    """The heaviest of the demo scenes, and one of soft mist whose motion blur paints each picture 32 times."""
    told(HEAVIEST, compared=True)
    told(HEAVIEST.parent / "20-mist-over-the-gorge.json", blur=32)


if __name__ == "__main__":
    main()
