-- Dials have a unit and a range, settings of rules may have a formula, and a scene has cues.

ALTER TABLE dial ADD COLUMN unit TEXT NOT NULL DEFAULT '';
ALTER TABLE dial ADD COLUMN low REAL;
ALTER TABLE dial ADD COLUMN high REAL;
ALTER TABLE channel ADD COLUMN formula TEXT;

CREATE TABLE cue (
  row INTEGER PRIMARY KEY,
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

DROP TRIGGER dial_added;
DROP TRIGGER dial_deleted;
DROP TRIGGER dial_changed;
DROP TRIGGER channel_added;
DROP TRIGGER channel_deleted;
DROP TRIGGER channel_changed;

CREATE TRIGGER dial_added AFTER INSERT ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM dial WHERE row = ' || quote(new.row)
  FROM recording;
END;

CREATE TRIGGER dial_deleted AFTER DELETE ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO dial (row, scene, id, position, name, unit, low, high) VALUES (' || quote(old.row) || ',' || quote(old.scene) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.name) || ',' || quote(old.unit) || ',' || quote(old.low) || ',' || quote(old.high) || ')'
  FROM recording;
END;

CREATE TRIGGER dial_changed AFTER UPDATE OF scene, id, position, name, unit, low, high ON dial WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE dial SET ' || 'scene = ' || quote(old.scene) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'name = ' || quote(old.name) || ', ' || 'unit = ' || quote(old.unit) || ', ' || 'low = ' || quote(old.low) || ', ' || 'high = ' || quote(old.high) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;

CREATE TRIGGER channel_added AFTER INSERT ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM channel WHERE row = ' || quote(new.row)
  FROM recording;
END;

CREATE TRIGGER channel_deleted AFTER DELETE ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO channel (row, object, rule, dial, name, base, before_mode, before_times, after_mode, after_times, formula) VALUES (' || quote(old.row) || ',' || quote(old.object) || ',' || quote(old.rule) || ',' || quote(old.dial) || ',' || quote(old.name) || ',' || quote(old.base) || ',' || quote(old.before_mode) || ',' || quote(old.before_times) || ',' || quote(old.after_mode) || ',' || quote(old.after_times) || ',' || quote(old.formula) || ')'
  FROM recording;
END;

CREATE TRIGGER channel_changed AFTER UPDATE OF object, rule, dial, name, base, before_mode, before_times, after_mode, after_times, formula ON channel WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE channel SET ' || 'object = ' || quote(old.object) || ', ' || 'rule = ' || quote(old.rule) || ', ' || 'dial = ' || quote(old.dial) || ', ' || 'name = ' || quote(old.name) || ', ' || 'base = ' || quote(old.base) || ', ' || 'before_mode = ' || quote(old.before_mode) || ', ' || 'before_times = ' || quote(old.before_times) || ', ' || 'after_mode = ' || quote(old.after_mode) || ', ' || 'after_times = ' || quote(old.after_times) || ', ' || 'formula = ' || quote(old.formula) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;

CREATE TRIGGER cue_added AFTER INSERT ON cue WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM cue WHERE row = ' || quote(new.row)
  FROM recording;
END;

CREATE TRIGGER cue_deleted AFTER DELETE ON cue WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO cue (row, scene, id, position, name, first_frame, last_frame, objects, key, click, plays) VALUES (' || quote(old.row) || ',' || quote(old.scene) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.name) || ',' || quote(old.first_frame) || ',' || quote(old.last_frame) || ',' || quote(old.objects) || ',' || quote(old.key) || ',' || quote(old.click) || ',' || quote(old.plays) || ')'
  FROM recording;
END;

CREATE TRIGGER cue_changed AFTER UPDATE OF scene, id, position, name, first_frame, last_frame, objects, key, click, plays ON cue WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE cue SET ' || 'scene = ' || quote(old.scene) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'name = ' || quote(old.name) || ', ' || 'first_frame = ' || quote(old.first_frame) || ', ' || 'last_frame = ' || quote(old.last_frame) || ', ' || 'objects = ' || quote(old.objects) || ', ' || 'key = ' || quote(old.key) || ', ' || 'click = ' || quote(old.click) || ', ' || 'plays = ' || quote(old.plays) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
