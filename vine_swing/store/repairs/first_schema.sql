-- Brings a file of the very first schema, which had neither rules nor dials, to what 001_scenes.sql says now.
-- Later migrations drop the old undo triggers by name, so those that such a file lacks are made here as ones that do nothing.

CREATE TABLE rule (
  row INTEGER PRIMARY KEY,
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

CREATE TABLE dial (
  row INTEGER PRIMARY KEY,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  UNIQUE (scene, id)
) STRICT;

CREATE TABLE channel_with_owners (
  row INTEGER PRIMARY KEY,
  object INTEGER REFERENCES object (row) DEFERRABLE INITIALLY DEFERRED,
  rule INTEGER REFERENCES rule (row) DEFERRABLE INITIALLY DEFERRED,
  dial INTEGER REFERENCES dial (row) DEFERRABLE INITIALLY DEFERRED,
  name TEXT NOT NULL,
  base ANY,
  before_mode TEXT NOT NULL,
  before_times INTEGER,
  after_mode TEXT NOT NULL,
  after_times INTEGER,
  CHECK ((object IS NOT NULL) + (rule IS NOT NULL) + (dial IS NOT NULL) = 1)
) STRICT;
INSERT INTO channel_with_owners (row, object, name, base, before_mode, before_times, after_mode, after_times)
  SELECT row, object, name, base, before_mode, before_times, after_mode, after_times FROM channel;
DROP TABLE channel;
ALTER TABLE channel_with_owners RENAME TO channel;
CREATE UNIQUE INDEX channel_of_object ON channel (object, name) WHERE object IS NOT NULL;
CREATE UNIQUE INDEX channel_of_rule ON channel (rule, name) WHERE rule IS NOT NULL;
CREATE UNIQUE INDEX channel_of_dial ON channel (dial) WHERE dial IS NOT NULL;

CREATE TRIGGER channel_added AFTER INSERT ON channel WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER channel_deleted AFTER DELETE ON channel WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER channel_changed AFTER UPDATE ON channel WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER rule_added AFTER INSERT ON rule WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER rule_deleted AFTER DELETE ON rule WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER rule_changed AFTER UPDATE ON rule WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER dial_added AFTER INSERT ON dial WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER dial_deleted AFTER DELETE ON dial WHEN 0 BEGIN SELECT 1; END;
CREATE TRIGGER dial_changed AFTER UPDATE ON dial WHEN 0 BEGIN SELECT 1; END;
