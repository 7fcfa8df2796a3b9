-- Exports: what was asked for, how far it is, and what is kept of it. The files lie beside the data file, in the folder `exports`.
CREATE TABLE export (
  id TEXT PRIMARY KEY,
  scene TEXT NOT NULL,
  revision INTEGER NOT NULL,
  name TEXT NOT NULL,
  format TEXT NOT NULL,
  options TEXT NOT NULL CHECK (json_valid(options)),
  asked TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'cancelled', 'failed', 'stopped')),
  done INTEGER NOT NULL DEFAULT 0,
  total INTEGER NOT NULL,
  size INTEGER,
  said TEXT,
  remarks TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(remarks)),
  still BLOB
) STRICT;
