"""The service in process, as a hostile client meets it: what it does not foresee is an answer, not an exception."""

import pytest
from fastapi.testclient import TestClient

from vine_swing.service.app import create_app
from vine_swing.store import SceneStore


@pytest.fixture
def client(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137", raise_server_exceptions=False) as one:
        yield one
    store.close()
