"""Scenes for journeys, kept by the service before the page opens them."""

import json
import urllib.request

from playwright.sync_api import Page

from tests.journeys.workspace import Workspace


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
