-- Steps know which page made them, so that each of several pages takes back its own. `was` and `over` are of steps that were taken back: the number
-- they had, and that of the last step beneath; a step that is redone while nothing else happened gets its place again. Numbers are never given away
-- again, so that packed steps find theirs free.
CREATE TABLE new_step (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id),
  kind TEXT NOT NULL CHECK (kind IN ('undo', 'redo')),
  label TEXT NOT NULL,
  page TEXT,
  author TEXT,
  was INTEGER,
  over INTEGER
) STRICT;
INSERT INTO new_step (id, scene, kind, label) SELECT id, scene, kind, label FROM step;
DROP TABLE step;
ALTER TABLE new_step RENAME TO step;
CREATE INDEX step_by_scene ON step (scene, kind, id);

-- Old steps of a scene, many in one row, packed by zlib (store/packs.py).
CREATE TABLE pack (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id),
  steps INTEGER NOT NULL,
  content BLOB NOT NULL
) STRICT;
CREATE INDEX pack_by_scene ON pack (scene, id);
