"""What notes cost: a scene of 300 objects looked through, and again after one edit. Run by hand: `python -m tests.bench.notes`."""

import time

from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.notes import find_notes

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def main() -> None:
    """Print both in milliseconds, the best of five."""
    sway = {"id": "sway", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 10, "frequency": 0.7}}
    things = (
        shape(
            f"s{n}",
            x=channel((0, n), (100 + n % 50, 900), (200, 3 * n)),
            y=50 + n % 600,
            opacity=channel((0, 0), (20, 1)),
            rules=[sway] if n % 3 else [],
        )
        for n in range(300)
    )
    one = scene(*things, length=240)
    baked = bake(one)
    whole, again = [], []
    for n in range(5):
        begun = time.perf_counter()
        found = find_notes(baked)
        whole.append(time.perf_counter() - begun)
        edit = {"edit": "set-key", "object": "s7", "channel": "x", "frame": 10.0 + n, "value": 5}
        after = bake(apply_all(one, EDITS.validate_python([edit])), previous=baked)
        begun = time.perf_counter()
        find_notes(after, found)
        again.append(time.perf_counter() - begun)
    print(f"300 objects looked through   {1000 * min(whole):7.1f} ms   (bar 1,000)")
    print(f"again after one edit         {1000 * min(again):7.1f} ms   (bar 50)")


if __name__ == "__main__":
    main()
