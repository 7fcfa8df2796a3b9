-- How a parade lays out its copies, with its lists, as JSON.
ALTER TABLE object ADD COLUMN parade TEXT CHECK (parade IS NULL OR json_valid(parade));

-- Font files that people bring along; their content is a blob, which undo does not copy.
CREATE TABLE font (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  licence TEXT NOT NULL,
  hash TEXT NOT NULL REFERENCES blob (hash),
  UNIQUE (scene, id)
) STRICT;
