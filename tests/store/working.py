"""Working on a kept scene, as one of several pages does."""

from pydantic import TypeAdapter

from vine_swing.motion.edits import AnyEdit, apply_all, label_of
from vine_swing.store import Author

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
PAGES = {"a": Author("a", "Heron"), "b": Author("b", "Otter")}


def others(page, here):
    return frozenset(here) - {page}


def edit(store, scene_id, page, *made, here="ab"):
    now, edits = store.load(scene_id), EDITS.validate_python(list(made))
    after, label = apply_all(now.scene, edits), label_of(now.scene, edits)
    return store.save(scene_id, now.scene, after, label=label, revision=now.revision, author=PAGES.get(page), others=others(page, here)).scene


def back(store, scene_id, kind, page, here="ab"):
    stored = store.step_back(scene_id, kind, revision=store.revision(scene_id), others=others(page, here))
    return stored.scene if stored is not None else None


def key(thing, frame, value):
    return {"edit": "set-key", "object": thing, "channel": "x", "frame": frame, "value": value}
