-- Sounds that are heard with a scene; the content of their files is a blob, which undo does not copy.
CREATE TABLE sound (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  hash TEXT NOT NULL REFERENCES blob (hash),
  seconds REAL NOT NULL,
  first_frame INTEGER NOT NULL,
  begins REAL NOT NULL,
  ends REAL,
  "on" INTEGER NOT NULL,
  gain REAL NOT NULL,
  dial TEXT,
  UNIQUE (scene, id)
) STRICT;

-- The sound that a dial follows, and the marks and the beat of a timeline, as JSON.
ALTER TABLE dial ADD COLUMN follows TEXT CHECK (follows IS NULL OR json_valid(follows));
ALTER TABLE scene ADD COLUMN markers TEXT CHECK (markers IS NULL OR json_valid(markers));
ALTER TABLE scene ADD COLUMN beat TEXT CHECK (beat IS NULL OR json_valid(beat));
