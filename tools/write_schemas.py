"""Write down what is generated from the models: the scene file's JSON Schema and the service's OpenAPI document."""

import json
import tempfile
from pathlib import Path

from vine_swing.motion.scene.scene_file import json_schema
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

DOCS = Path(__file__).resolve().parents[1] / "docs"


def documents() -> dict[str, str]:
    """File name → text."""
    with tempfile.TemporaryDirectory() as folder:
        store = SceneStore(Path(folder) / "x.db")
        openapi = create_app(store).openapi()
        store.close()
    return {name: json.dumps(data, indent=1) + "\n" for name, data in (("scene.schema.json", json_schema()), ("openapi.json", openapi))}


if __name__ == "__main__":
    for name, text in documents().items():
        (DOCS / name).write_text(text, encoding="utf-8")
