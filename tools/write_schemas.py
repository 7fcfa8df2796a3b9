"""Write down what is generated from the models: the scene file's JSON Schema and the service's OpenAPI document."""

import json
import tempfile
from pathlib import Path

from vine_swing.motion.model import Scene
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

DOCS = Path(__file__).resolve().parents[1] / "docs"


def documents() -> dict[str, str]:
    """File name → text."""
    with tempfile.TemporaryDirectory() as folder:
        store = SceneStore(Path(folder) / "x.db")
        openapi = create_app(store).openapi()
        store.close()
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **Scene.model_json_schema(), "title": "Vine Swing scene"}
    return {name: json.dumps(data, indent=1) + "\n" for name, data in (("scene.schema.json", schema), ("openapi.json", openapi))}


if __name__ == "__main__":
    for name, text in documents().items():
        (DOCS / name).write_text(text, encoding="utf-8")
