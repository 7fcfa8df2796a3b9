"""The case files: small paint lists that page and export both paint."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any, get_args

from vine_swing.motion.basics.values import Blend
from vine_swing.motion.curves.svg_path import parse_path

FOLDER = Path(__file__).parent / "cases"


def cases() -> Iterator[tuple[str, dict[str, Any]]]:
    """Each case by its name; that of blend modes once for each mode."""
    for path in sorted(FOLDER.glob("*.json")):
        data = json.loads(path.read_text(encoding="utf-8"))
        for outline in data.get("outlines", {}).values():
            outline["bounds"] = [parse_path(d).bounds() for d in outline["outlines"]]
        if path.stem != "group-blend":
            yield path.stem, data
            continue
        for mode in get_args(Blend):
            steps = [step | {"blend": mode} if "blend" in step else step for step in data["steps"]]
            yield f"{path.stem}-{mode}", data | {"steps": steps}


def operations(steps: list[dict[str, Any]]) -> set[str]:
    """The operations that some steps use."""
    inner = [one for step in steps for one in (step.get("steps", []), *step.get("each", []))]
    return {step["op"] for step in steps} | {op for one in inner for op in operations(one)}
