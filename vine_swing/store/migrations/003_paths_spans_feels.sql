-- Keys of paths hold points: x in `value`, y in `value_y`; `way` is how the path goes on from them.
-- An object has a span of frames it is shown at. Feels drawn by hand are kept for all scenes.

ALTER TABLE key ADD COLUMN way TEXT;
ALTER TABLE key ADD COLUMN value_y REAL;
ALTER TABLE object ADD COLUMN first_frame INTEGER;
ALTER TABLE object ADD COLUMN last_frame INTEGER;

CREATE TABLE feel (
  name TEXT PRIMARY KEY,
  points TEXT NOT NULL,
  smooth INTEGER NOT NULL,
  made TEXT NOT NULL
) STRICT;

DROP TRIGGER key_added;
DROP TRIGGER key_deleted;
DROP TRIGGER key_changed;

CREATE TRIGGER key_added AFTER INSERT ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM key WHERE row = ' || quote(new.row)
  FROM recording;
END;

CREATE TRIGGER key_deleted AFTER DELETE ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO key (row, channel, frame, value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias, way, value_y) VALUES (' || quote(old.row) || ',' || quote(old.channel) || ',' || quote(old.frame) || ',' || quote(old.value) || ',' || quote(old.ease) || ',' || quote(old.out_frames) || ',' || quote(old.out_value) || ',' || quote(old.in_frames) || ',' || quote(old.in_value) || ',' || quote(old.tension) || ',' || quote(old.continuity) || ',' || quote(old.bias) || ',' || quote(old.way) || ',' || quote(old.value_y) || ')'
  FROM recording;
END;

CREATE TRIGGER key_changed AFTER UPDATE OF channel, frame, value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias, way, value_y ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE key SET ' || 'channel = ' || quote(old.channel) || ', ' || 'frame = ' || quote(old.frame) || ', ' || 'value = ' || quote(old.value) || ', ' || 'ease = ' || quote(old.ease) || ', ' || 'out_frames = ' || quote(old.out_frames) || ', ' || 'out_value = ' || quote(old.out_value) || ', ' || 'in_frames = ' || quote(old.in_frames) || ', ' || 'in_value = ' || quote(old.in_value) || ', ' || 'tension = ' || quote(old.tension) || ', ' || 'continuity = ' || quote(old.continuity) || ', ' || 'bias = ' || quote(old.bias) || ', ' || 'way = ' || quote(old.way) || ', ' || 'value_y = ' || quote(old.value_y) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;

DROP TRIGGER object_added;
DROP TRIGGER object_deleted;
DROP TRIGGER object_changed;

CREATE TRIGGER object_added AFTER INSERT ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'DELETE FROM object WHERE row = ' || quote(new.row)
  FROM recording;
END;

CREATE TRIGGER object_deleted AFTER DELETE ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'INSERT INTO object (row, scene, id, position, name, kind, parent, shown, shape, first_frame, last_frame) VALUES (' || quote(old.row) || ',' || quote(old.scene) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.name) || ',' || quote(old.kind) || ',' || quote(old.parent) || ',' || quote(old.shown) || ',' || quote(old.shape) || ',' || quote(old.first_frame) || ',' || quote(old.last_frame) || ')'
  FROM recording;
END;

CREATE TRIGGER object_changed AFTER UPDATE OF scene, id, position, name, kind, parent, shown, shape, first_frame, last_frame ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE object SET ' || 'scene = ' || quote(old.scene) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'name = ' || quote(old.name) || ', ' || 'kind = ' || quote(old.kind) || ', ' || 'parent = ' || quote(old.parent) || ', ' || 'shown = ' || quote(old.shown) || ', ' || 'shape = ' || quote(old.shape) || ', ' || 'first_frame = ' || quote(old.first_frame) || ', ' || 'last_frame = ' || quote(old.last_frame) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;

