-- A data file as schema 1 left it, with a step to redo and three to undo.
BEGIN TRANSACTION;
CREATE TABLE channel (
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
INSERT INTO "channel" VALUES(1,1,NULL,NULL,'x',100.0,'hold',NULL,'ping-pong',NULL);
INSERT INTO "channel" VALUES(2,NULL,1,NULL,'amplitude',15.0,'hold',NULL,'hold',NULL);
INSERT INTO "channel" VALUES(3,NULL,1,NULL,'frequency',0.6,'hold',NULL,'hold',NULL);
INSERT INTO "channel" VALUES(4,NULL,1,NULL,'phase',0.0,'hold',NULL,'hold',NULL);
INSERT INTO "channel" VALUES(5,NULL,NULL,1,'value',0.4,'hold',NULL,'hold',NULL);
CREATE TABLE dial (
  row INTEGER PRIMARY KEY,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  UNIQUE (scene, id)
) STRICT;
INSERT INTO "dial" VALUES(1,'6YRka76jWT8o','wind',0,'Wind');
CREATE TABLE inverse (
  id INTEGER PRIMARY KEY,
  step INTEGER NOT NULL REFERENCES step (id) ON DELETE CASCADE,
  statement TEXT NOT NULL
) STRICT;
INSERT INTO "inverse" VALUES(1,1,'DELETE FROM key WHERE row = 3');
INSERT INTO "inverse" VALUES(2,2,'UPDATE object SET scene = ''6YRka76jWT8o'', id = ''mango'', position = 0, name = ''Mango'', kind = ''shape'', parent = NULL, shown = 1, shape = ''{"type":"ellipse"}'' WHERE row = 1');
INSERT INTO "inverse" VALUES(3,3,'INSERT INTO key (row, channel, frame, value, ease) VALUES (3,1,9.0,0.1,''"linear"'')');
INSERT INTO "inverse" VALUES(6,5,'INSERT INTO key (row, channel, frame, value, ease) VALUES (3,6,3.0,7.0,''"linear"'')');
INSERT INTO "inverse" VALUES(7,5,'INSERT INTO channel (row, object, rule, dial, name, base, before_mode, before_times, after_mode, after_times) VALUES (6,1,NULL,NULL,''y'',NULL,''hold'',NULL,''hold'',NULL)');
CREATE TABLE key (
  row INTEGER PRIMARY KEY,
  channel INTEGER NOT NULL REFERENCES channel (row) DEFERRABLE INITIALLY DEFERRED,
  frame REAL NOT NULL,
  value ANY NOT NULL,
  ease TEXT NOT NULL
) STRICT;
INSERT INTO "key" VALUES(1,1,0.0,100.0,'"linear"');
INSERT INTO "key" VALUES(2,1,24.0,340.0,'"linear"');
CREATE TABLE object (
  row INTEGER PRIMARY KEY,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  parent TEXT,
  shown INTEGER NOT NULL,
  shape TEXT,
  UNIQUE (scene, id)
) STRICT;
INSERT INTO "object" VALUES(1,'6YRka76jWT8o','mango',0,'Papaya','shape',NULL,1,'{"type":"ellipse"}');
CREATE TABLE recording (step INTEGER) STRICT;
INSERT INTO "recording" VALUES(NULL);
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
INSERT INTO "rule" VALUES(1,1,'r1',0,'oscillator',1,'["rotation"]','add','{"wave": "sine"}');
CREATE TABLE scene (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  fps REAL NOT NULL,
  length INTEGER NOT NULL,
  width INTEGER NOT NULL,
  height INTEGER NOT NULL,
  background TEXT NOT NULL,
  revision INTEGER NOT NULL DEFAULT 0,
  made TEXT NOT NULL,
  changed TEXT NOT NULL,
  deleted TEXT
) STRICT;
INSERT INTO "scene" VALUES('6YRka76jWT8o','Example',24.0,120,1280,720,'#F7F2E7',5,'2026-11-26T15:48:41.505+00:00','2026-11-26T15:48:41.530+00:00',NULL);
CREATE TABLE step (
  id INTEGER PRIMARY KEY,
  scene TEXT NOT NULL REFERENCES scene (id),
  kind TEXT NOT NULL CHECK (kind IN ('undo', 'redo')),
  label TEXT NOT NULL
) STRICT;
INSERT INTO "step" VALUES(1,'6YRka76jWT8o','undo','key Mango travel x at 9');
INSERT INTO "step" VALUES(2,'6YRka76jWT8o','undo','rename Mango to Papaya');
INSERT INTO "step" VALUES(3,'6YRka76jWT8o','undo','delete key of Papaya travel x');
INSERT INTO "step" VALUES(5,'6YRka76jWT8o','redo','key Papaya travel y at 3');
CREATE UNIQUE INDEX channel_of_object ON channel (object, name) WHERE object IS NOT NULL;
CREATE UNIQUE INDEX channel_of_rule ON channel (rule, name) WHERE rule IS NOT NULL;
CREATE UNIQUE INDEX channel_of_dial ON channel (dial) WHERE dial IS NOT NULL;
CREATE INDEX key_by_channel ON key (channel, frame);
CREATE INDEX step_by_scene ON step (scene, kind, id);
CREATE INDEX inverse_by_step ON inverse (step, id);
CREATE TRIGGER scene_changed AFTER UPDATE OF name, fps, length, width, height, background ON scene WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE scene SET ' || 'name = ' || quote(old.name) || ', ' || 'fps = ' || quote(old.fps) || ', ' || 'length = ' || quote(old.length) || ', ' || 'width = ' || quote(old.width) || ', ' || 'height = ' || quote(old.height) || ', ' || 'background = ' || quote(old.background) || ' WHERE id = ' || quote(old.id)
  FROM recording;
END;
CREATE TRIGGER object_added AFTER INSERT ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM object WHERE row = ' || quote(new.row)
  FROM recording;
END;
CREATE TRIGGER object_deleted AFTER DELETE ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO object (row, scene, id, position, name, kind, parent, shown, shape) VALUES (' || quote(old.row) || ',' || quote(old.scene) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.name) || ',' || quote(old.kind) || ',' || quote(old.parent) || ',' || quote(old.shown) || ',' || quote(old.shape) || ')'
  FROM recording;
END;
CREATE TRIGGER object_changed AFTER UPDATE OF scene, id, position, name, kind, parent, shown, shape ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE object SET ' || 'scene = ' || quote(old.scene) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'name = ' || quote(old.name) || ', ' || 'kind = ' || quote(old.kind) || ', ' || 'parent = ' || quote(old.parent) || ', ' || 'shown = ' || quote(old.shown) || ', ' || 'shape = ' || quote(old.shape) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
CREATE TRIGGER rule_added AFTER INSERT ON rule WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM rule WHERE row = ' || quote(new.row)
  FROM recording;
END;
CREATE TRIGGER rule_deleted AFTER DELETE ON rule WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO rule (row, object, id, position, kind, "on", channels, mode, words) VALUES (' || quote(old.row) || ',' || quote(old.object) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.kind) || ',' || quote(old."on") || ',' || quote(old.channels) || ',' || quote(old.mode) || ',' || quote(old.words) || ')'
  FROM recording;
END;
CREATE TRIGGER rule_changed AFTER UPDATE OF object, id, position, kind, "on", channels, mode, words ON rule WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE rule SET ' || 'object = ' || quote(old.object) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'kind = ' || quote(old.kind) || ', ' || '"on" = ' || quote(old."on") || ', ' || 'channels = ' || quote(old.channels) || ', ' || 'mode = ' || quote(old.mode) || ', ' || 'words = ' || quote(old.words) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
CREATE TRIGGER dial_added AFTER INSERT ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM dial WHERE row = ' || quote(new.row)
  FROM recording;
END;
CREATE TRIGGER dial_deleted AFTER DELETE ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO dial (row, scene, id, position, name) VALUES (' || quote(old.row) || ',' || quote(old.scene) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.name) || ')'
  FROM recording;
END;
CREATE TRIGGER dial_changed AFTER UPDATE OF scene, id, position, name ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE dial SET ' || 'scene = ' || quote(old.scene) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'name = ' || quote(old.name) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
CREATE TRIGGER channel_added AFTER INSERT ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM channel WHERE row = ' || quote(new.row)
  FROM recording;
END;
CREATE TRIGGER channel_deleted AFTER DELETE ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO channel (row, object, rule, dial, name, base, before_mode, before_times, after_mode, after_times) VALUES (' || quote(old.row) || ',' || quote(old.object) || ',' || quote(old.rule) || ',' || quote(old.dial) || ',' || quote(old.name) || ',' || quote(old.base) || ',' || quote(old.before_mode) || ',' || quote(old.before_times) || ',' || quote(old.after_mode) || ',' || quote(old.after_times) || ')'
  FROM recording;
END;
CREATE TRIGGER channel_changed AFTER UPDATE OF object, rule, dial, name, base, before_mode, before_times, after_mode, after_times ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE channel SET ' || 'object = ' || quote(old.object) || ', ' || 'rule = ' || quote(old.rule) || ', ' || 'dial = ' || quote(old.dial) || ', ' || 'name = ' || quote(old.name) || ', ' || 'base = ' || quote(old.base) || ', ' || 'before_mode = ' || quote(old.before_mode) || ', ' || 'before_times = ' || quote(old.before_times) || ', ' || 'after_mode = ' || quote(old.after_mode) || ', ' || 'after_times = ' || quote(old.after_times) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
CREATE TRIGGER key_added AFTER INSERT ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM key WHERE row = ' || quote(new.row)
  FROM recording;
END;
CREATE TRIGGER key_deleted AFTER DELETE ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO key (row, channel, frame, value, ease) VALUES (' || quote(old.row) || ',' || quote(old.channel) || ',' || quote(old.frame) || ',' || quote(old.value) || ',' || quote(old.ease) || ')'
  FROM recording;
END;
CREATE TRIGGER key_changed AFTER UPDATE OF channel, frame, value, ease ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE key SET ' || 'channel = ' || quote(old.channel) || ', ' || 'frame = ' || quote(old.frame) || ', ' || 'value = ' || quote(old.value) || ', ' || 'ease = ' || quote(old.ease) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
COMMIT;
PRAGMA user_version = 1;
