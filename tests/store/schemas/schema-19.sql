BEGIN TRANSACTION;
CREATE TABLE blob (
  hash TEXT PRIMARY KEY CHECK (length(hash) = 64),
  media_type TEXT NOT NULL,
  data BLOB NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE "channel" (
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
INSERT INTO "channel" VALUES(1,1,NULL,NULL,'x',100.0,'hold',NULL,'ping-pong',NULL,NULL);
INSERT INTO "channel" VALUES(2,NULL,1,NULL,'amplitude',15.0,'hold',NULL,'hold',NULL,NULL);
INSERT INTO "channel" VALUES(3,NULL,1,NULL,'frequency',0.6,'hold',NULL,'hold',NULL,NULL);
INSERT INTO "channel" VALUES(4,NULL,1,NULL,'phase',0.0,'hold',NULL,'hold',NULL,NULL);
INSERT INTO "channel" VALUES(5,NULL,NULL,1,'value',0.4,'hold',NULL,'hold',NULL,NULL);
INSERT INTO "channel" VALUES(6,1,NULL,NULL,'y',NULL,'hold',NULL,'hold',NULL,NULL);
INSERT INTO "channel" VALUES(7,NULL,2,NULL,'amplitude',3.0,'hold',NULL,'hold',NULL,NULL);
CREATE TABLE channel_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "object" ANY, "rule" ANY, "dial" ANY, "name" ANY, "base" ANY, "before_mode" ANY, "before_times" ANY, "after_mode" ANY, "after_times" ANY, "formula" ANY) STRICT;
CREATE TABLE "cue" (
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
CREATE TABLE cue_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "scene" ANY, "id" ANY, "position" ANY, "name" ANY, "first_frame" ANY, "last_frame" ANY, "objects" ANY, "key" ANY, "click" ANY, "plays" ANY) STRICT;
CREATE TABLE "dial" (
  row INTEGER PRIMARY KEY AUTOINCREMENT,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  id TEXT NOT NULL,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  unit TEXT NOT NULL DEFAULT '',
  low REAL,
  high REAL, follows TEXT CHECK (follows IS NULL OR json_valid(follows)),
  UNIQUE (scene, id)
) STRICT;
INSERT INTO "dial" VALUES(1,'r0aXx4YKwybu','wind',0,'Wind','',NULL,NULL,NULL);
CREATE TABLE dial_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "scene" ANY, "id" ANY, "position" ANY, "name" ANY, "unit" ANY, "low" ANY, "high" ANY, "follows" ANY) STRICT;
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
CREATE TABLE feel (
  name TEXT PRIMARY KEY,
  points TEXT NOT NULL,
  smooth INTEGER NOT NULL,
  made TEXT NOT NULL
) STRICT;
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
CREATE TABLE font_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "scene" ANY, "id" ANY, "position" ANY, "name" ANY, "licence" ANY, "hash" ANY) STRICT;
CREATE TABLE "inverse" (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  step INTEGER NOT NULL REFERENCES step (id) ON DELETE CASCADE,
  statement TEXT,
  action TEXT CHECK (action IN ('delete', 'insert', 'update')),
  part_of TEXT,
  part ANY,
  CHECK ((statement IS NULL) <> (action IS NULL))
) STRICT;
INSERT INTO "inverse" VALUES(1,1,NULL,'update','object',1);
INSERT INTO "inverse" VALUES(2,2,NULL,'delete','channel',6);
INSERT INTO "inverse" VALUES(3,2,NULL,'delete','key',3);
INSERT INTO "inverse" VALUES(4,3,NULL,'delete','rule',2);
INSERT INTO "inverse" VALUES(5,3,NULL,'delete','channel',7);
INSERT INTO "inverse" VALUES(7,5,NULL,'update','key',3);
CREATE TABLE "key" (
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
, meets TEXT CHECK (meets IS NULL OR json_valid(meets))) STRICT;
INSERT INTO "key" VALUES(1,1,0.0,100.0,'"linear"',NULL,NULL,NULL,NULL,0.0,0.0,0.0,NULL,NULL,NULL);
INSERT INTO "key" VALUES(2,1,24.0,340.0,'"linear"',NULL,NULL,NULL,NULL,0.0,0.0,0.0,NULL,NULL,NULL);
INSERT INTO "key" VALUES(3,6,3.0,5.0,'"linear"',NULL,NULL,NULL,NULL,0.0,0.0,0.0,NULL,NULL,NULL);
CREATE TABLE key_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "channel" ANY, "frame" ANY, "value" ANY, "ease" ANY, "out_frames" ANY, "out_value" ANY, "in_frames" ANY, "in_value" ANY, "tension" ANY, "continuity" ANY, "bias" ANY, "way" ANY, "value_y" ANY, "meets" ANY) STRICT;
INSERT INTO "key_before" VALUES(7,3,6,3.0,7.0,'"linear"',NULL,NULL,NULL,NULL,0.0,0.0,0.0,NULL,NULL,NULL);
CREATE TABLE "object" (
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
  bone TEXT, parade TEXT CHECK (parade IS NULL OR json_valid(parade)), picture TEXT CHECK (picture IS NULL OR json_valid(picture)), inset TEXT CHECK (inset IS NULL OR json_valid(inset)), pinned INTEGER, blurred INTEGER, blend TEXT, line TEXT CHECK (line IS NULL OR json_valid(line)), paints TEXT CHECK (paints IS NULL OR json_valid(paints)), locked INTEGER, tag TEXT,
  UNIQUE (scene, id)
) STRICT;
INSERT INTO "object" VALUES(1,'r0aXx4YKwybu','mango',0,'Papaya','shape',NULL,1,'{"type":"ellipse"}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'normal',NULL,NULL,NULL,NULL);
CREATE TABLE object_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "scene" ANY, "id" ANY, "position" ANY, "name" ANY, "kind" ANY, "parent" ANY, "shown" ANY, "shape" ANY, "first_frame" ANY, "last_frame" ANY, "figure" ANY, "bone" ANY, "parade" ANY, "picture" ANY, "inset" ANY, "pinned" ANY, "blurred" ANY, "blend" ANY, "line" ANY, "paints" ANY, "locked" ANY, "tag" ANY) STRICT;
INSERT INTO "object_before" VALUES(1,1,'r0aXx4YKwybu','mango',0,'Mango','shape',NULL,1,'{"type":"ellipse"}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'normal',NULL,NULL,NULL,NULL);
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
CREATE TABLE picture_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "scene" ANY, "id" ANY, "position" ANY, "name" ANY, "width" ANY, "height" ANY, "hash" ANY) STRICT;
CREATE TABLE preview (
  scene TEXT PRIMARY KEY REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  revision INTEGER NOT NULL,
  data BLOB NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE recording (step INTEGER) STRICT;
INSERT INTO "recording" VALUES(NULL);
CREATE TABLE reduced (
  picture TEXT NOT NULL,
  wide INTEGER NOT NULL,
  data BLOB NOT NULL,
  PRIMARY KEY (picture, wide)
) STRICT, WITHOUT ROWID;
CREATE TABLE rehearsal (
  id TEXT PRIMARY KEY,
  scene TEXT NOT NULL REFERENCES scene (id) DEFERRABLE INITIALLY DEFERRED,
  name TEXT NOT NULL,
  kept TEXT NOT NULL,
  revision INTEGER NOT NULL,
  content BLOB NOT NULL,
  still BLOB NOT NULL,
  removed TEXT
) STRICT;
CREATE TABLE "rule" (
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
INSERT INTO "rule" VALUES(1,1,'r1',0,'oscillator',1,'["rotation"]','add','{"wave": "sine"}');
INSERT INTO "rule" VALUES(2,1,'r9',1,'noise',1,'["y"]','add','{}');
CREATE TABLE rule_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "object" ANY, "id" ANY, "position" ANY, "kind" ANY, "on" ANY, "channels" ANY, "mode" ANY, "words" ANY) STRICT;
CREATE TABLE "scene" (
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
  position INTEGER, blur TEXT CHECK (blur IS NULL OR json_valid(blur)), hushed TEXT CHECK (hushed IS NULL OR json_valid(hushed)), markers TEXT CHECK (markers IS NULL OR json_valid(markers)), beat TEXT CHECK (beat IS NULL OR json_valid(beat)),
  UNIQUE (within, part)
) STRICT;
INSERT INTO "scene" VALUES('r0aXx4YKwybu','Example',24.0,120,1280,720,'#F7F2E7',5,'2026-11-27T12:29:49.409+00:00','2026-11-27T12:29:49.429+00:00',NULL,'[]',NULL,NULL,NULL,NULL,NULL,NULL,NULL);
CREATE TABLE scene_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "id" ANY, "name" ANY, "fps" ANY, "length" ANY, "width" ANY, "height" ANY, "background" ANY, "palette" ANY, "within" ANY, "part" ANY, "position" ANY, "blur" ANY, "hushed" ANY, "markers" ANY, "beat" ANY) STRICT;
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
CREATE TABLE sound_before (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE, "row" ANY, "scene" ANY, "id" ANY, "position" ANY, "name" ANY, "hash" ANY, "seconds" ANY, "first_frame" ANY, "begins" ANY, "ends" ANY, "on" ANY, "gain" ANY, "dial" ANY) STRICT;
CREATE TABLE step (
  id INTEGER PRIMARY KEY,
  scene TEXT NOT NULL REFERENCES scene (id),
  kind TEXT NOT NULL CHECK (kind IN ('undo', 'redo')),
  label TEXT NOT NULL
) STRICT;
INSERT INTO "step" VALUES(1,'r0aXx4YKwybu','undo','step');
INSERT INTO "step" VALUES(2,'r0aXx4YKwybu','undo','step');
INSERT INTO "step" VALUES(3,'r0aXx4YKwybu','undo','step');
INSERT INTO "step" VALUES(5,'r0aXx4YKwybu','redo','step');
CREATE INDEX step_by_scene ON step (scene, kind, id);
CREATE UNIQUE INDEX channel_of_object ON channel (object, name) WHERE object IS NOT NULL;
CREATE UNIQUE INDEX channel_of_rule ON channel (rule, name) WHERE rule IS NOT NULL;
CREATE UNIQUE INDEX channel_of_dial ON channel (dial) WHERE dial IS NOT NULL;
CREATE INDEX key_by_channel ON key (channel, frame);
CREATE INDEX inverse_by_step ON inverse (step, id);
CREATE INDEX rehearsal_by_scene ON rehearsal (scene);
CREATE TRIGGER scene_added AFTER INSERT ON scene WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'scene', new."id");  END;
CREATE TRIGGER scene_deleted AFTER DELETE ON scene WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'scene', old."id"); INSERT INTO scene_before (inverse, "id", "name", "fps", "length", "width", "height", "background", "palette", "within", "part", "position", "blur", "hushed", "markers", "beat") VALUES (last_insert_rowid(), old."id", old."name", old."fps", old."length", old."width", old."height", old."background", old."palette", old."within", old."part", old."position", old."blur", old."hushed", old."markers", old."beat"); END;
CREATE TRIGGER scene_changed AFTER UPDATE OF "id", "name", "fps", "length", "width", "height", "background", "palette", "within", "part", "position", "blur", "hushed", "markers", "beat" ON scene WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'scene', old."id"); INSERT INTO scene_before (inverse, "id", "name", "fps", "length", "width", "height", "background", "palette", "within", "part", "position", "blur", "hushed", "markers", "beat") VALUES (last_insert_rowid(), old."id", old."name", old."fps", old."length", old."width", old."height", old."background", old."palette", old."within", old."part", old."position", old."blur", old."hushed", old."markers", old."beat"); END;
CREATE TRIGGER object_added AFTER INSERT ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'object', new."row");  END;
CREATE TRIGGER object_deleted AFTER DELETE ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'object', old."row"); INSERT INTO object_before (inverse, "row", "scene", "id", "position", "name", "kind", "parent", "shown", "shape", "first_frame", "last_frame", "figure", "bone", "parade", "picture", "inset", "pinned", "blurred", "blend", "line", "paints", "locked", "tag") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."kind", old."parent", old."shown", old."shape", old."first_frame", old."last_frame", old."figure", old."bone", old."parade", old."picture", old."inset", old."pinned", old."blurred", old."blend", old."line", old."paints", old."locked", old."tag"); END;
CREATE TRIGGER object_changed AFTER UPDATE OF "row", "scene", "id", "position", "name", "kind", "parent", "shown", "shape", "first_frame", "last_frame", "figure", "bone", "parade", "picture", "inset", "pinned", "blurred", "blend", "line", "paints", "locked", "tag" ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'object', old."row"); INSERT INTO object_before (inverse, "row", "scene", "id", "position", "name", "kind", "parent", "shown", "shape", "first_frame", "last_frame", "figure", "bone", "parade", "picture", "inset", "pinned", "blurred", "blend", "line", "paints", "locked", "tag") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."kind", old."parent", old."shown", old."shape", old."first_frame", old."last_frame", old."figure", old."bone", old."parade", old."picture", old."inset", old."pinned", old."blurred", old."blend", old."line", old."paints", old."locked", old."tag"); END;
CREATE TRIGGER rule_added AFTER INSERT ON rule WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'rule', new."row");  END;
CREATE TRIGGER rule_deleted AFTER DELETE ON rule WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'rule', old."row"); INSERT INTO rule_before (inverse, "row", "object", "id", "position", "kind", "on", "channels", "mode", "words") VALUES (last_insert_rowid(), old."row", old."object", old."id", old."position", old."kind", old."on", old."channels", old."mode", old."words"); END;
CREATE TRIGGER rule_changed AFTER UPDATE OF "row", "object", "id", "position", "kind", "on", "channels", "mode", "words" ON rule WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'rule', old."row"); INSERT INTO rule_before (inverse, "row", "object", "id", "position", "kind", "on", "channels", "mode", "words") VALUES (last_insert_rowid(), old."row", old."object", old."id", old."position", old."kind", old."on", old."channels", old."mode", old."words"); END;
CREATE TRIGGER dial_added AFTER INSERT ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'dial', new."row");  END;
CREATE TRIGGER dial_deleted AFTER DELETE ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'dial', old."row"); INSERT INTO dial_before (inverse, "row", "scene", "id", "position", "name", "unit", "low", "high", "follows") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."unit", old."low", old."high", old."follows"); END;
CREATE TRIGGER dial_changed AFTER UPDATE OF "row", "scene", "id", "position", "name", "unit", "low", "high", "follows" ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'dial', old."row"); INSERT INTO dial_before (inverse, "row", "scene", "id", "position", "name", "unit", "low", "high", "follows") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."unit", old."low", old."high", old."follows"); END;
CREATE TRIGGER channel_added AFTER INSERT ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'channel', new."row");  END;
CREATE TRIGGER channel_deleted AFTER DELETE ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'channel', old."row"); INSERT INTO channel_before (inverse, "row", "object", "rule", "dial", "name", "base", "before_mode", "before_times", "after_mode", "after_times", "formula") VALUES (last_insert_rowid(), old."row", old."object", old."rule", old."dial", old."name", old."base", old."before_mode", old."before_times", old."after_mode", old."after_times", old."formula"); END;
CREATE TRIGGER channel_changed AFTER UPDATE OF "row", "object", "rule", "dial", "name", "base", "before_mode", "before_times", "after_mode", "after_times", "formula" ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'channel', old."row"); INSERT INTO channel_before (inverse, "row", "object", "rule", "dial", "name", "base", "before_mode", "before_times", "after_mode", "after_times", "formula") VALUES (last_insert_rowid(), old."row", old."object", old."rule", old."dial", old."name", old."base", old."before_mode", old."before_times", old."after_mode", old."after_times", old."formula"); END;
CREATE TRIGGER key_added AFTER INSERT ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'key', new."row");  END;
CREATE TRIGGER key_deleted AFTER DELETE ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'key', old."row"); INSERT INTO key_before (inverse, "row", "channel", "frame", "value", "ease", "out_frames", "out_value", "in_frames", "in_value", "tension", "continuity", "bias", "way", "value_y", "meets") VALUES (last_insert_rowid(), old."row", old."channel", old."frame", old."value", old."ease", old."out_frames", old."out_value", old."in_frames", old."in_value", old."tension", old."continuity", old."bias", old."way", old."value_y", old."meets"); END;
CREATE TRIGGER key_changed AFTER UPDATE OF "row", "channel", "frame", "value", "ease", "out_frames", "out_value", "in_frames", "in_value", "tension", "continuity", "bias", "way", "value_y", "meets" ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'key', old."row"); INSERT INTO key_before (inverse, "row", "channel", "frame", "value", "ease", "out_frames", "out_value", "in_frames", "in_value", "tension", "continuity", "bias", "way", "value_y", "meets") VALUES (last_insert_rowid(), old."row", old."channel", old."frame", old."value", old."ease", old."out_frames", old."out_value", old."in_frames", old."in_value", old."tension", old."continuity", old."bias", old."way", old."value_y", old."meets"); END;
CREATE TRIGGER cue_added AFTER INSERT ON cue WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'cue', new."row");  END;
CREATE TRIGGER cue_deleted AFTER DELETE ON cue WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'cue', old."row"); INSERT INTO cue_before (inverse, "row", "scene", "id", "position", "name", "first_frame", "last_frame", "objects", "key", "click", "plays") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."first_frame", old."last_frame", old."objects", old."key", old."click", old."plays"); END;
CREATE TRIGGER cue_changed AFTER UPDATE OF "row", "scene", "id", "position", "name", "first_frame", "last_frame", "objects", "key", "click", "plays" ON cue WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'cue', old."row"); INSERT INTO cue_before (inverse, "row", "scene", "id", "position", "name", "first_frame", "last_frame", "objects", "key", "click", "plays") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."first_frame", old."last_frame", old."objects", old."key", old."click", old."plays"); END;
CREATE TRIGGER font_added AFTER INSERT ON font WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'font', new."row");  END;
CREATE TRIGGER font_deleted AFTER DELETE ON font WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'font', old."row"); INSERT INTO font_before (inverse, "row", "scene", "id", "position", "name", "licence", "hash") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."licence", old."hash"); END;
CREATE TRIGGER font_changed AFTER UPDATE OF "row", "scene", "id", "position", "name", "licence", "hash" ON font WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'font', old."row"); INSERT INTO font_before (inverse, "row", "scene", "id", "position", "name", "licence", "hash") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."licence", old."hash"); END;
CREATE TRIGGER picture_added AFTER INSERT ON picture WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'picture', new."row");  END;
CREATE TRIGGER picture_deleted AFTER DELETE ON picture WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'picture', old."row"); INSERT INTO picture_before (inverse, "row", "scene", "id", "position", "name", "width", "height", "hash") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."width", old."height", old."hash"); END;
CREATE TRIGGER picture_changed AFTER UPDATE OF "row", "scene", "id", "position", "name", "width", "height", "hash" ON picture WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'picture', old."row"); INSERT INTO picture_before (inverse, "row", "scene", "id", "position", "name", "width", "height", "hash") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."width", old."height", old."hash"); END;
CREATE TRIGGER sound_added AFTER INSERT ON sound WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'delete', 'sound', new."row");  END;
CREATE TRIGGER sound_deleted AFTER DELETE ON sound WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'insert', 'sound', old."row"); INSERT INTO sound_before (inverse, "row", "scene", "id", "position", "name", "hash", "seconds", "first_frame", "begins", "ends", "on", "gain", "dial") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."hash", old."seconds", old."first_frame", old."begins", old."ends", old."on", old."gain", old."dial"); END;
CREATE TRIGGER sound_changed AFTER UPDATE OF "row", "scene", "id", "position", "name", "hash", "seconds", "first_frame", "begins", "ends", "on", "gain", "dial" ON sound WHEN (SELECT step FROM recording) IS NOT NULL BEGIN INSERT INTO inverse (step, action, part_of, part) VALUES ((SELECT step FROM recording), 'update', 'sound', old."row"); INSERT INTO sound_before (inverse, "row", "scene", "id", "position", "name", "hash", "seconds", "first_frame", "begins", "ends", "on", "gain", "dial") VALUES (last_insert_rowid(), old."row", old."scene", old."id", old."position", old."name", old."hash", old."seconds", old."first_frame", old."begins", old."ends", old."on", old."gain", old."dial"); END;
DELETE FROM "sqlite_sequence";
INSERT INTO "sqlite_sequence" VALUES('object',1);
INSERT INTO "sqlite_sequence" VALUES('rule',2);
INSERT INTO "sqlite_sequence" VALUES('dial',1);
INSERT INTO "sqlite_sequence" VALUES('channel',7);
INSERT INTO "sqlite_sequence" VALUES('key',3);
INSERT INTO "sqlite_sequence" VALUES('cue',0);
INSERT INTO "sqlite_sequence" VALUES('inverse',7);
COMMIT;
PRAGMA application_id = 1449743223;
PRAGMA user_version = 19;
