"""Engines: this process, the processes of this machine, and a farm of workers give the same bytes; a worker that dies is replaced."""

import hashlib
import os
import re
import signal
import subprocess
import sys
import time
import warnings
from pathlib import Path

import numpy as np
import psutil
import pytest

from demo.make import SCENES
from vine_swing.formats.engine import Painting, ThreadEngine
from vine_swing.formats.engine.choice import engine_at
from vine_swing.formats.engine.painting import WINDOW
from vine_swing.formats.engine.pool import Pool, own_blocks
from vine_swing.motion import MotionError, load

FRAMES = WINDOW + 20


def painting(name="13-post-report", scale=0.2):
    scene = load(SCENES / f"{name}.json")
    return Painting(scene, np.arange(FRAMES) * (scene.length - 1) / FRAMES, scale)


def sums(engine, of, rows=None):
    """A digest of each picture."""
    return [hashlib.sha256(pixels.tobytes()).hexdigest() for pixels in engine.painted(of, rows if rows is not None else range(len(of.frames)))]


@pytest.fixture(scope="module")
def here():
    return sums(ThreadEngine(), painting())


def test_processes_paint_the_same_bytes_in_order(here):
    assert len(set(here)) > 20, "the pictures differ"
    assert sums(Pool(3), painting()) == here
    some = [5, 3, 130, 131, 0, 7, 7, 9, 100, 2]
    assert sums(Pool(2), painting(), some) == [here[row] for row in some]


def test_pictures_and_fonts_reach_the_processes():
    of = painting("18-hummingbird-courier", 0.1)
    assert sums(Pool(2), of) == sums(ThreadEngine(), of)


def test_a_painter_that_is_killed_is_replaced(here):
    found = []
    for pixels in Pool(2).painted(painting(), range(FRAMES)):
        found.append(hashlib.sha256(pixels.tobytes()).hexdigest())
        if len(found) == 12:
            for child in psutil.Process().children():
                if "resource_tracker" not in " ".join(child.cmdline()):
                    os.kill(child.pid, signal.SIGKILL)
    assert found == here


def test_who_stops_early_leaves_no_process_and_no_memory():
    pictures = Pool(2).painted(painting(), range(FRAMES))
    for _ in range(10):
        next(pictures)
    assert list(Path("/dev/shm").glob(f"{own_blocks()}*"))
    pictures.close()
    assert not list(Path("/dev/shm").glob(f"{own_blocks()}*"))
    # The fork server of the readers of foreign files belongs to the test run.
    running = [child for child in psutil.Process().children(recursive=True) if child.status() != psutil.STATUS_ZOMBIE]
    alive = [child for child in running if not {"resource_tracker", "forkserver"} & set(re.findall(r"\w+", " ".join(child.cmdline())))]
    psutil.wait_procs(alive, timeout=120)
    assert not [child for child in alive if child.is_running() and "pytest" in " ".join(child.cmdline())]


def test_memory_does_not_grow_with_length():
    """5,000 frames take no more than 1.2 times the memory of 250, each measured in a process of its own."""
    code = (
        "import resource, sys, numpy as np\n"
        "from vine_swing.motion import load\n"
        "from vine_swing.formats.engine import ThreadEngine, Painting\n"
        "scene = load(sys.argv[1]).copy_with(length=5000)\n"
        "for _ in ThreadEngine().painted(Painting(scene, np.arange(int(sys.argv[2])) * 1.0, 0.1), range(int(sys.argv[2]))): pass\n"
        "print(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss)\n"
    )
    peaks = [
        int(subprocess.run([sys.executable, "-c", code, str(SCENES / "05-mango-drop.json"), count], capture_output=True, check=True).stdout)
        for count in ("250", "5000")
    ]
    assert peaks[1] <= 1.2 * peaks[0]


@pytest.fixture(scope="module")
def farm():
    """A scheduler and two workers in processes of their own, as on three machines."""
    port = 21786 + os.getpid() % 1000
    commands = [
        ["distributed.cli.dask_scheduler", "--host", "127.0.0.1", "--port", str(port), "--no-dashboard", "--no-jupyter"],
        *[["distributed.cli.dask_worker", f"tcp://127.0.0.1:{port}", "--nthreads", "1", "--no-dashboard", "--no-nanny"]] * 2,
    ]
    quiet = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL, "cwd": "/tmp"}
    running = [subprocess.Popen([sys.executable, "-m", *command], **quiet) for command in commands]
    with warnings.catch_warnings():
        # What Dask warns of is not ours to mend.
        warnings.simplefilter("ignore")
        engine = None
        for _ in range(40):
            try:
                engine = engine_at(f"tcp://127.0.0.1:{port}")
                break
            except MotionError:
                time.sleep(0.5)
        assert engine is not None, "the scheduler did not begin"
        engine._client.wait_for_workers(2, timeout=120)
        yield engine, running
        engine.close()
        for one in running:
            one.kill()
            one.wait()


@pytest.mark.filterwarnings("ignore")
def test_a_farm_paints_the_same_bytes_even_when_a_worker_is_lost(farm, here):
    engine, running = farm
    assert sums(engine, painting()) == here
    found = []
    for pixels in engine.painted(painting(scale=0.2), range(FRAMES)):
        found.append(hashlib.sha256(pixels.tobytes()).hexdigest())
        if len(found) == 10:
            running[-1].kill()
    assert found == here


@pytest.mark.filterwarnings("ignore")
def test_no_farm_at_an_address_is_said():
    with pytest.raises(MotionError, match="there is no scheduler at 'nowhere'"):
        engine_at("nowhere")
