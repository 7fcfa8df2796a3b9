-- What shapes the stretches beside a key: its handles, and its tension, continuity and bias.

ALTER TABLE key ADD COLUMN out_frames REAL;
ALTER TABLE key ADD COLUMN out_value REAL;
ALTER TABLE key ADD COLUMN in_frames REAL;
ALTER TABLE key ADD COLUMN in_value REAL;
ALTER TABLE key ADD COLUMN tension REAL NOT NULL DEFAULT 0;
ALTER TABLE key ADD COLUMN continuity REAL NOT NULL DEFAULT 0;
ALTER TABLE key ADD COLUMN bias REAL NOT NULL DEFAULT 0;

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
    'INSERT INTO key (row, channel, frame, value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias) VALUES (' || quote(old.row) || ',' || quote(old.channel) || ',' || quote(old.frame) || ',' || quote(old.value) || ',' || quote(old.ease) || ',' || quote(old.out_frames) || ',' || quote(old.out_value) || ',' || quote(old.in_frames) || ',' || quote(old.in_value) || ',' || quote(old.tension) || ',' || quote(old.continuity) || ',' || quote(old.bias) || ')'
  FROM recording;
END;

CREATE TRIGGER key_changed AFTER UPDATE OF channel, frame, value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias ON key WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE key SET ' || 'channel = ' || quote(old.channel) || ', ' || 'frame = ' || quote(old.frame) || ', ' || 'value = ' || quote(old.value) || ', ' || 'ease = ' || quote(old.ease) || ', ' || 'out_frames = ' || quote(old.out_frames) || ', ' || 'out_value = ' || quote(old.out_value) || ', ' || 'in_frames = ' || quote(old.in_frames) || ', ' || 'in_value = ' || quote(old.in_value) || ', ' || 'tension = ' || quote(old.tension) || ', ' || 'continuity = ' || quote(old.continuity) || ', ' || 'bias = ' || quote(old.bias) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;

