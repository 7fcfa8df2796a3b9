"""Damaged and hostile files and edits: always a sentence, never a broken service, nothing that takes long or much.

Files of every format that comes in, and edits, are cut, stretched and bent at random. Few in CI; `make hard` sends thousands (`INPUTS`).
"""

import io
import json
import os
import random
import resource
import time
import zipfile
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from tests.hard.any_edits import AnyEdits
from tests.motion.scenes import EXAMPLE
from tests.sounds import struck, wav
from vine_swing.motion.scene.scene_file import from_data

#: Inputs of each kind.
INPUTS = int(os.environ.get("INPUTS", "40"))
#: Seconds of this process's own time, and bytes it may have come to need by the end.
LONGEST, MOST_MEMORY = 2.0, 500_000_000
SVG = b"""<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60" viewBox="0 0 90 60"><defs><linearGradient id="g"><stop offset="0" stop-color="red"/>
<stop offset="1"/></linearGradient></defs><g transform="translate(3 4) rotate(20)"><path d="M0 0 C10 20 30 40 50 0 A 4 5 0 1 1 9 9 Z" fill="url(#g)"/><rect
x="1" y="2" width="30" height="20" rx="3" style="stroke:#123;stroke-width:2"/></g><text x="4" y="5" font-size="12">Post</text><use href="#g"/></svg>"""
CSV = b"time,wind,level\n" + b"".join(f"{n / 24},{n * 0.5},{(n * 7) % 13}\n".encode() for n in range(60))
NUMBERS = (0, -1, 1e308, -1e308, 5e-324, 2**31, 2**63, 10**40, 0.1, True, None, "", "NaN", [], {})


def picture(kind: str) -> bytes:
    held = io.BytesIO()
    pixels = np.random.default_rng(3).integers(0, 255, (24, 32, 4), np.uint8)
    Image.fromarray(pixels).convert("P" if kind == "GIF" else "RGB" if kind == "JPEG" else "RGBA").save(held, kind)
    return held.getvalue()


def bundle(client: TestClient, scene_id: str) -> bytes:
    held = io.BytesIO()
    with zipfile.ZipFile(held, "w") as packed:
        packed.writestr("scene.json", client.get(f"/api/scenes/{scene_id}/file").content)
    return held.getvalue()


def bent(data: bytes, draw: random.Random) -> bytes:
    """Some bytes of a file changed, cut out, repeated or put in."""
    work = bytearray(data)
    for _ in range(draw.randint(1, 6)):
        at = draw.randrange(len(work) + 1)
        match draw.randrange(6):
            case 0 if work:
                work[min(at, len(work) - 1)] = draw.randrange(256)
            case 1:
                del work[at : at + draw.randint(1, 1 + len(work) // 3)]
            case 2:
                work[at:at] = work[at : at + draw.randint(1, 200)] * draw.randint(1, 50)
            case 3:
                work[at:at] = bytes(draw.randrange(256) for _ in range(draw.randint(1, 40)))
            case 4:
                work[at : at + 4] = draw.choice([b"\xff\xff\xff\xff", b"\x00\x00\x00\x00", b"\x7f\xff\xff\xff", b"1e99"])
            case _:
                del work[at:]
    return bytes(work)


def bent_data(data: Any, draw: random.Random) -> Any:
    """JSON with one of its parts replaced, left out, repeated or nested."""
    if isinstance(data, dict) and data and draw.random() < 0.8:
        name = draw.choice(list(data))
        changed = dict(data)
        match draw.randrange(5):
            case 0:
                del changed[name]
            case 1:
                changed[name + draw.choice(["", "\u0000", "é", "x" * 5000])] = changed.pop(name)
            case _:
                changed[name] = bent_data(data[name], draw)
        return changed
    if isinstance(data, list) and data and draw.random() < 0.8:
        at = draw.randrange(len(data))
        return data[:at] + draw.choice([[], [bent_data(data[at], draw)], [data[at]] * 300]) + data[at + 1 :]
    if isinstance(data, str) and draw.random() < 0.5:
        return draw.choice([data * 4000, data + "\u0000", "{" * 400, "9" * 500, "../" * 9, "{{n}}", "\ud800", data[::-1]])
    return draw.choice(NUMBERS)


def sent(client: TestClient, address: str, body: bytes, kind: str, what: str) -> int:
    """Send it; the answer is in time and, where it is a refusal, a sentence."""
    began = time.process_time()
    answer = client.post(address, content=body, headers={"content-type": kind})
    took = time.process_time() - began
    assert answer.status_code < 500, f"{what}: {answer.status_code} {answer.text[:300]}"
    assert took < LONGEST, f"{what} took {took:.1f} s"
    if answer.status_code >= 400:
        assert answer.headers["content-type"] == "application/problem+json", what
        assert len(answer.json()["detail"]) > 10, what
    return answer.status_code


FILES: dict[str, tuple[str, Callable[[TestClient, str], bytes]]] = {
    "scene": ("/api/scene-files", lambda client, scene_id: client.get(f"/api/scenes/{scene_id}/file").content),
    "bundle": ("/api/bundles?name=a.vine", bundle),
    "drawing": ("/api/drawings?name=a.svg", lambda client, scene_id: SVG),
    "table": ("/api/tables?name=a.csv", lambda client, scene_id: CSV),
    "sound": ("/api/sounds?name=a.wav", lambda client, scene_id: wav(struck([0.1, 0.3], 0.6))),
    "png": ("/api/pictures?name=a.png", lambda client, scene_id: picture("PNG")),
    "gif": ("/api/pictures?name=a.gif", lambda client, scene_id: picture("GIF")),
    "webp": ("/api/pictures?name=a.webp", lambda client, scene_id: picture("WEBP")),
    "jpeg": ("/api/pictures?name=a.jpg", lambda client, scene_id: picture("JPEG")),
}


@pytest.mark.parametrize("kind", FILES)
def test_files_that_are_damaged_are_read_or_refused_in_words(client, kind):
    scene_id = client.post("/api/scenes", json=EXAMPLE).json()["id"]
    address, made = FILES[kind]
    data, media = made(client, scene_id), "application/json" if kind == "scene" else "application/octet-stream"
    assert sent(client, address, data, media, f"a sound {kind}") in (200, 201)
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024
    answers = [sent(client, address, bent(data, random.Random(f"{kind} {n}")), media, f"{kind} {n}") for n in range(INPUTS)]
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024 - before < MOST_MEMORY
    # Much of what is bent can still be read; what is no such file at all cannot.
    assert set(answers) <= {200, 201, 400, 413, 422}
    assert sent(client, address, b"\x00\x01\x02" * 40, media, f"no {kind}") >= 400
    # And the service still works as it should.
    assert sent(client, address, data, media, f"a sound {kind}") in (200, 201)


def test_edits_that_make_no_sense_are_refused_in_words(client):
    scene = from_data(EXAMPLE)
    scene_id = client.post("/api/scenes", json=EXAMPLE).json()["id"]
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024
    refused = 0
    for n in range(6 * INPUTS):
        draw = random.Random(n)
        edit = bent_data(AnyEdits(draw).edit(scene), draw)
        revision = client.get(f"/api/scenes/{scene_id}").json()["revision"]
        body = json.dumps({"revision": revision, "edits": [edit]}).encode("utf-8", "surrogatepass")
        status = sent(client, f"/api/scenes/{scene_id}/edits", body, "application/json", f"edit {n}: {str(edit)[:300]}")
        refused += status >= 400
        if status == 200:
            assert client.get(f"/api/scenes/{scene_id}/motion").status_code == 200
    assert refused > INPUTS
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024 - before < MOST_MEMORY
