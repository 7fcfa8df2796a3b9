"""Scenes for journeys, kept by the service before the page opens them."""

import json
import urllib.request
from pathlib import Path

from playwright.sync_api import Page

from tests.journeys.workspace import Workspace


def kept(address: str, folder: Path | None = None, name: str = "") -> str:
    """Keep a shipped scene of a folder, by its name, or an empty one; the address of its page."""
    found = (
        next((text for path in sorted(folder.glob("*.json")) if json.loads(text := path.read_text(encoding="utf-8"))["name"] == name), None)
        if folder
        else "{}"
    )
    assert found is not None, f"there is no scene '{name}'"
    request = urllib.request.Request(
        f"{address}/api/scene-files" if folder else f"{address}/api/scenes", found.encode(), {"content-type": "application/json"}
    )
    with urllib.request.urlopen(request) as answer:
        return f"{address}/scenes/{json.load(answer)['id']}"


def opened(page: Page, address: str, **scene) -> Workspace:
    """Keep a scene and open it in the workspace."""
    data = {"format": "vine-swing-scene", "version": 1, "name": "Journey", "fps": 24, "length": 96, "size": [1280, 720]} | scene
    request = urllib.request.Request(f"{address}/api/scenes", json.dumps(data).encode(), {"content-type": "application/json"})
    with urllib.request.urlopen(request) as answer:
        scene_id = json.load(answer)["id"]
    page.goto(f"{address}/scenes/{scene_id}")
    return Workspace(page, address)


def keys(*stops: tuple[float, object]) -> dict:
    """A channel with keys, from frames and values."""
    return {"keys": [{"frame": frame, "value": value} for frame, value in stops]}


def shape(name: str, kind: str = "ellipse", rules: list | None = None, **channels) -> dict:
    """A drawn object; channel names are written with `_` for the dot."""
    named = {key.replace("_", "."): value for key, value in channels.items()}
    return {"id": name.lower().replace(" ", "-"), "name": name, "kind": "shape", "shape": {"type": kind}, "channels": named, "rules": rules or []}
