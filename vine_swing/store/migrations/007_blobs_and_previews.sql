-- Kept bytes (pictures, sounds, fonts) by the SHA-256 of their content, in hexadecimal: the same file kept twice is stored once.
-- Undo does not copy them; what refers to one names its hash.
CREATE TABLE blob (
  hash TEXT PRIMARY KEY CHECK (length(hash) = 64),
  media_type TEXT NOT NULL,
  data BLOB NOT NULL
) STRICT, WITHOUT ROWID;

-- The small picture of a scene for the Shelf, as the scene was at a revision; made anew when it is asked for at a later one.
CREATE TABLE preview (
  scene TEXT PRIMARY KEY REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  revision INTEGER NOT NULL,
  data BLOB NOT NULL
) STRICT, WITHOUT ROWID;
