"""A store of its own for each test."""

import pytest

from vine_swing.store import SceneStore


@pytest.fixture
def store(tmp_path):
    kept = SceneStore(tmp_path / "kept.db")
    yield kept
    kept.close()
