"""How far long work has come is told to who asks, while it is under way."""

import threading
import time

from tests.motion.scenes import channel, scene, shape

RULES = [{"id": f"s{n}", "kind": "spring", "channels": ["x"]} for n in range(4)]


def heavy() -> dict[str, object]:
    """A scene that takes a while."""
    things = [shape(f"o{n}", x=channel((0, 0), (400, n)), rules=RULES) for n in range(400)]
    return scene(*things, length=1200).model_dump(mode="json", by_alias=True)


def test_work_that_nobody_does_has_no_share(client):
    answer = client.get("/api/work/nobody")
    assert (answer.status_code, answer.json()) == (200, {"share": None})


def test_the_share_of_a_scene_that_is_made_grows_until_it_is_answered(client):
    body = heavy()
    answers: list[int] = []

    def make() -> None:
        answers.append(client.post("/api/scenes", json=body, headers={"x-work": "mine"}).status_code)

    making = threading.Thread(target=make)
    making.start()
    told: list[float] = []
    while making.is_alive():
        share = client.get("/api/work/mine").json()["share"]
        if share is not None:
            told.append(share)
        time.sleep(0.02)
    making.join()
    assert answers == [201]
    assert told == sorted(told)
    assert len({share for share in told if 0 < share < 1}) >= 2
    assert client.get("/api/work/mine").json() == {"share": None}


def test_a_name_for_work_that_is_none_is_refused(client):
    assert client.get("/api/work/no name").status_code == 422
    answer = client.post("/api/scenes", json={}, headers={"x-work": "a b"})
    assert answer.status_code == 422
    assert "x-work" in answer.json()["detail"]
