-- Row numbers are never given away again (AUTOINCREMENT): what undo puts back finds its own number free, whatever other scenes did meanwhile.
-- Undo keeps the old rows themselves instead of the text of statements; store/undo.py makes those triggers and tables after each migration.
-- Steps recorded before this keep their statements, and are undone by them.

DROP TRIGGER scene_changed;
DROP TRIGGER object_added;
DROP TRIGGER object_deleted;
DROP TRIGGER object_changed;
DROP TRIGGER rule_added;
DROP TRIGGER rule_deleted;
DROP TRIGGER rule_changed;
DROP TRIGGER dial_added;
DROP TRIGGER dial_deleted;
DROP TRIGGER dial_changed;
DROP TRIGGER channel_added;
DROP TRIGGER channel_deleted;
DROP TRIGGER channel_changed;
DROP TRIGGER key_added;
DROP TRIGGER key_deleted;
DROP TRIGGER key_changed;
DROP TRIGGER cue_added;
DROP TRIGGER cue_deleted;
DROP TRIGGER cue_changed;

CREATE TABLE new_object (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  parent TEXT,
  shown INTEGER NOT NULL,
  shape TEXT,
  first_frame INTEGER,
  last_frame INTEGER,
  figure TEXT,
  bone TEXT,
  UNIQUE (scene, id)
) STRICT;
INSERT INTO new_object SELECT row, scene, id, position, name, kind, parent, shown, shape, first_frame, last_frame, figure, bone FROM object;
DROP TABLE object;
ALTER TABLE new_object RENAME TO object;

CREATE TABLE new_rule (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  object INTEGER NOT NULL REFERENCES object (row) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL,
  "on" INTEGER NOT NULL,
  channels TEXT NOT NULL,
  mode TEXT NOT NULL,
  words TEXT NOT NULL,
  UNIQUE (object, id)
) STRICT;
INSERT INTO new_rule SELECT row, object, id, position, kind, "on", channels, mode, words FROM rule;
DROP TABLE rule;
ALTER TABLE new_rule RENAME TO rule;

CREATE TABLE new_dial (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  unit TEXT NOT NULL DEFAULT '',
  low REAL,
  high REAL,
  UNIQUE (scene, id)
) STRICT;
INSERT INTO new_dial SELECT row, scene, id, position, name, unit, low, high FROM dial;
DROP TABLE dial;
ALTER TABLE new_dial RENAME TO dial;

CREATE TABLE new_channel (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  object INTEGER REFERENCES object (row) DEFERRABLE INITIALLY DEFERRED,
  rule INTEGER REFERENCES rule (row) DEFERRABLE INITIALLY DEFERRED,
  dial INTEGER REFERENCES dial (row) DEFERRABLE INITIALLY DEFERRED,
  name TEXT NOT NULL,
  base ANY,
  before_mode TEXT NOT NULL,
  before_times INTEGER,
  after_mode TEXT NOT NULL,
  after_times INTEGER,
  formula TEXT,
  CHECK ((object IS NOT NULL) + (rule IS NOT NULL) + (dial IS NOT NULL) = 1)
) STRICT;
INSERT INTO new_channel
  SELECT row, object, rule, dial, name, base, before_mode, before_times, after_mode, after_times, formula FROM channel;
DROP TABLE channel;
ALTER TABLE new_channel RENAME TO channel;
CREATE UNIQUE INDEX channel_of_object ON channel (object, name) WHERE object IS NOT NULL;
CREATE UNIQUE INDEX channel_of_rule ON channel (rule, name) WHERE rule IS NOT NULL;
CREATE UNIQUE INDEX channel_of_dial ON channel (dial) WHERE dial IS NOT NULL;

CREATE TABLE new_key (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  channel INTEGER NOT NULL REFERENCES channel (row) DEFERRABLE INITIALLY DEFERRED,
  frame REAL NOT NULL,
  value ANY NOT NULL,
  ease TEXT NOT NULL,
  out_frames REAL,
  out_value REAL,
  in_frames REAL,
  in_value REAL,
  tension REAL NOT NULL DEFAULT 0,
  continuity REAL NOT NULL DEFAULT 0,
  bias REAL NOT NULL DEFAULT 0,
  way TEXT,
  value_y REAL
) STRICT;
INSERT INTO new_key
  SELECT row, channel, frame, value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias, way, value_y FROM key;
DROP TABLE key;
ALTER TABLE new_key RENAME TO key;
CREATE INDEX key_by_channel ON key (channel, frame);

CREATE TABLE new_cue (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  first_frame INTEGER NOT NULL,
  last_frame INTEGER NOT NULL,
  objects TEXT NOT NULL,
  key TEXT,
  click TEXT,
  plays TEXT NOT NULL,
  UNIQUE (scene, id)
) STRICT;
INSERT INTO new_cue SELECT row, scene, id, position, name, first_frame, last_frame, objects, key, click, plays FROM cue;
DROP TABLE cue;
ALTER TABLE new_cue RENAME TO cue;

-- An inverse is an action on one row, or, in steps of older files, a whole statement.
CREATE TABLE new_inverse (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  step INTEGER NOT NULL REFERENCES step (id) ON DELETE CASCADE,
  statement TEXT,
  action TEXT CHECK (action IN ('delete', 'insert', 'update')),
  part_of TEXT,
  part ANY,
  CHECK ((statement IS NULL) <> (action IS NULL))
) STRICT;
INSERT INTO new_inverse (id, step, statement) SELECT id, step, statement FROM inverse;
DROP TABLE inverse;
ALTER TABLE new_inverse RENAME TO inverse;
CREATE INDEX inverse_by_step ON inverse (step, id);

-- Numbers that steps of older files will ask for are taken too: 'INSERT INTO key (row, …) VALUES (7, …' asks for 7.
INSERT INTO sqlite_sequence (name, seq)
  SELECT name, 0 FROM (SELECT 'object' AS name UNION SELECT 'rule' UNION SELECT 'dial' UNION SELECT 'channel' UNION SELECT 'key' UNION SELECT 'cue')
  WHERE name NOT IN (SELECT name FROM sqlite_sequence);
UPDATE sqlite_sequence SET seq = max(seq, (
  SELECT coalesce(max(CAST(substr(statement, instr(statement, 'VALUES (') + 8) AS INTEGER)), 0)
  FROM inverse WHERE statement LIKE 'INSERT INTO ' || sqlite_sequence.name || ' (row, %'
)) WHERE name IN ('object', 'rule', 'dial', 'channel', 'key', 'cue');

PRAGMA application_id = 1449743223;
