"""Generated requests against the service's own OpenAPI document: never a 5xx, and every refusal a problem document."""

import schemathesis
from hypothesis import HealthCheck, Phase, given, settings

from tests.motion.scenes import EXAMPLE
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

#: Starting films by the dozen would test the encoder, not the door.
LEFT_OUT = {"/api/scenes/{scene_id}/exports", "/api/scenes/{scene_id}/exports/look", "/api/scenes/{scene_id}/exports/size"}


def test_no_request_breaks_the_service(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    app = create_app(store)
    scene_id = store.create(from_data(EXAMPLE))
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers={"host": "127.0.0.1"})
    reached = set()
    for result in schema.get_all_operations():
        operation = result.ok()
        if operation.path in LEFT_OUT:
            continue

        @settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck), phases=[Phase.generate], database=None)
        @given(case=operation.as_strategy())
        def check(case):
            if case.path_parameters and "scene_id" in case.path_parameters and case.method != "DELETE":
                case.path_parameters["scene_id"] = scene_id
            answer = case.call(headers={"host": "127.0.0.1"})
            assert answer.status_code < 500, f"{case.method} {case.path}: {answer.text}"
            if answer.status_code >= 400:
                assert answer.headers["content-type"] == ["application/problem+json"], answer.text
                assert answer.json()["detail"]
            reached.add((case.method, case.path))

        check()
    assert len(reached) >= 15
    app.state.exports.close()
    store.close()
