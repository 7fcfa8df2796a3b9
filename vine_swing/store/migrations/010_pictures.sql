-- Which pictures an object shows, as JSON.
ALTER TABLE object ADD COLUMN picture TEXT CHECK (picture IS NULL OR json_valid(picture));

-- Pictures that people bring along; their content is a blob, which undo does not copy.
CREATE TABLE picture (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  width INTEGER NOT NULL,
  height INTEGER NOT NULL,
  hash TEXT NOT NULL REFERENCES blob (hash),
  UNIQUE (scene, id)
) STRICT;
