-- Rehearsals: versions of a scene that were kept under a name. No part of the scene, so undo does not know of them. `content` is the scene file,
-- packed by zlib, without what lies in `blob`. One that was removed can be brought back until the scene is gone for good.
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
CREATE INDEX rehearsal_by_scene ON rehearsal (scene);
