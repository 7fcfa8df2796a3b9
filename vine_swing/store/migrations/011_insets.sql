-- Which inner scene an object shows, as JSON.
ALTER TABLE object ADD COLUMN inset TEXT CHECK (inset IS NULL OR json_valid(inset));

-- Scenes inside others are rows of `scene` too: `within` is the scene they are kept with, `part` their id there. What only the Shelf asks for
-- (`made`, `changed`) is empty for them, and undo can put such a row back without it.
CREATE TABLE new_scene (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  fps REAL NOT NULL,
  length INTEGER NOT NULL,
  width INTEGER NOT NULL,
  height INTEGER NOT NULL,
  background TEXT NOT NULL,
  revision INTEGER NOT NULL DEFAULT 0,
  made TEXT NOT NULL DEFAULT '',
  changed TEXT NOT NULL DEFAULT '',
  deleted TEXT,
  palette TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(palette)),
  within TEXT REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  part TEXT,
  position INTEGER,
  UNIQUE (within, part)
) STRICT;
INSERT INTO new_scene (id, name, fps, length, width, height, background, revision, made, changed, deleted, palette)
  SELECT id, name, fps, length, width, height, background, revision, made, changed, deleted, palette FROM scene;
DROP TABLE scene;
ALTER TABLE new_scene RENAME TO scene;
