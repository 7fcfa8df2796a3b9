-- Figures, and the bones that things hang on. A figure's joints stay in one piece, as a shape's outline does.

ALTER TABLE object ADD COLUMN figure TEXT;
ALTER TABLE object ADD COLUMN bone TEXT;

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
    'INSERT INTO object (row, scene, id, position, name, kind, parent, shown, shape, first_frame, last_frame, figure, bone) VALUES (' || quote(old.row) || ',' || quote(old.scene) || ',' || quote(old.id) || ',' || quote(old.position) || ',' || quote(old.name) || ',' || quote(old.kind) || ',' || quote(old.parent) || ',' || quote(old.shown) || ',' || quote(old.shape) || ',' || quote(old.first_frame) || ',' || quote(old.last_frame) || ',' || quote(old.figure) || ',' || quote(old.bone) || ')'
  FROM recording;
END;

CREATE TRIGGER object_changed AFTER UPDATE OF scene, id, position, name, kind, parent, shown, shape, first_frame, last_frame, figure, bone ON object WHEN (SELECT step FROM recording) IS NOT NULL BEGIN
  INSERT INTO inverse (step, statement) SELECT step,
    'UPDATE object SET ' || 'scene = ' || quote(old.scene) || ', ' || 'id = ' || quote(old.id) || ', ' || 'position = ' || quote(old.position) || ', ' || 'name = ' || quote(old.name) || ', ' || 'kind = ' || quote(old.kind) || ', ' || 'parent = ' || quote(old.parent) || ', ' || 'shown = ' || quote(old.shown) || ', ' || 'shape = ' || quote(old.shape) || ', ' || 'first_frame = ' || quote(old.first_frame) || ', ' || 'last_frame = ' || quote(old.last_frame) || ', ' || 'figure = ' || quote(old.figure) || ', ' || 'bone = ' || quote(old.bone) || ' WHERE row = ' || quote(old.row)
  FROM recording;
END;
